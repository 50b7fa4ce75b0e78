import type { Metadata } from 'next';
import { Scope } from '@/places/scope/scope';

export const metadata: Metadata = { title: 'Scope' };

export default function ScopePage() {
  return <Scope />;
}
