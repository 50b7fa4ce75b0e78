import type { Metadata } from 'next';
import { Circuit } from '@/places/circuit/circuit';

export const metadata: Metadata = { title: 'Circuit' };

export default function CircuitPage() {
  return <Circuit />;
}
