import type { Metadata } from 'next';
import { CircuitRoom } from '@/places/circuit/later';

export const metadata: Metadata = { title: 'Circuit' };

export default function CircuitPage() {
  return <CircuitRoom />;
}
