import type { Metadata } from 'next';
import { LoadLine } from '@/places/bench/load-line';

export const metadata: Metadata = { title: 'Load line and fit' };

export default function LoadLinePage() {
  return <LoadLine />;
}
