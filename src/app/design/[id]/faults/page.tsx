import type { Metadata } from 'next';
import { Faults } from '@/places/bench/faults';

export const metadata: Metadata = { title: 'Faults' };

export default function FaultsPage() {
  return <Faults />;
}
