import type { Metadata } from 'next';
import { Assembly } from '@/places/assembly/assembly';

export const metadata: Metadata = { title: 'Assembly' };

export default function AssemblyPage() {
  return <Assembly />;
}
