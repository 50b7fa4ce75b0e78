import type { Metadata } from 'next';
import { WiringRoom } from '@/places/wiring/later';

export const metadata: Metadata = { title: 'Wiring' };

export default function WiringPage() {
  return <WiringRoom />;
}
