import type { Metadata } from 'next';
import { Wiring } from '@/places/wiring/wiring';

export const metadata: Metadata = { title: 'Wiring' };

export default function WiringPage() {
  return <Wiring />;
}
