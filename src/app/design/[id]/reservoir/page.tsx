import type { Metadata } from 'next';
import { Cans } from '@/places/parts/cans';
import { Room } from '@/ui/room';

export const metadata: Metadata = { title: 'Reservoir' };

export default function ReservoirPage() {
  return (
    <Room name="Reservoir">
      <Cans />
    </Room>
  );
}
