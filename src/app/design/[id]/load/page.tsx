import type { Metadata } from 'next';
import { Load } from '@/places/load/load';

export const metadata: Metadata = { title: 'Load' };

export default function LoadPage() {
  return <Load />;
}
