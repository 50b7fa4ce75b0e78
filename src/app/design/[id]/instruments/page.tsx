import type { Metadata } from 'next';
import { Instruments } from '@/places/instruments/instruments';

export const metadata: Metadata = { title: 'Instruments' };

export default function InstrumentsPage() {
  return <Instruments />;
}
