import type { Metadata } from 'next';
import { Drawer } from '@/ui/drawer/drawer';
import { Room } from '@/ui/room';

export const metadata: Metadata = { title: 'Drawer' };

export default function DrawerPage() {
  return (
    <Room className="flex min-h-0 flex-col px-4 py-3" name="Drawer">
      <Drawer />
    </Room>
  );
}
