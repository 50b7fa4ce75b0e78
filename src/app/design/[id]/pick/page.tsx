import type { Metadata } from 'next';
import { PickParts } from '@/places/parts/pick';
import { Room } from '@/ui/room';

export const metadata: Metadata = { title: 'Pick' };

export default function PickPage() {
  return (
    <Room className="flex min-h-0 flex-col px-4 py-3" name="Pick">
      <PickParts />
    </Room>
  );
}
