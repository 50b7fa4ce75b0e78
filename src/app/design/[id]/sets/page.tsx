import type { Metadata } from 'next';
import { SizeSets } from '@/places/parts/size';
import { Room } from '@/ui/room';

export const metadata: Metadata = { title: 'Whole sets' };

export default function WholeSetsPage() {
  return (
    <Room className="flex min-h-0 flex-col px-4 py-3" name="Whole sets">
      <SizeSets />
    </Room>
  );
}
