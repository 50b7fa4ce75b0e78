import type { Metadata } from 'next';
import { Hum } from '@/places/load/hum';

export const metadata: Metadata = { title: 'Hum' };

export default function HumPage() {
  return <Hum />;
}
