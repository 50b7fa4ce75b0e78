import type { Metadata } from 'next';
import { WorstCase } from '@/places/worst/worst';

export const metadata: Metadata = { title: 'Worst case' };

export default function WorstCasePage() {
  return <WorstCase />;
}
