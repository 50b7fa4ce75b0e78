import type { Metadata } from 'next';
import { Bill } from '@/places/parts/bill';
import { Room } from '@/ui/room';

export const metadata: Metadata = { title: 'Bill' };

export default function BillPage() {
  return (
    <Room name="Bill">
      <Bill />
    </Room>
  );
}
