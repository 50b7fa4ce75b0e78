import type { Metadata } from 'next';
import { DrawerRoom } from '@/places/parts/drawer-room';

export const metadata: Metadata = { title: 'Drawer' };

export default function DrawerPage() {
  return <DrawerRoom />;
}
