'use client';

import dynamic from 'next/dynamic';
import { Loading, orSay } from '@/ui/loading';
import { Room } from '@/ui/room';

const Drawer = dynamic(
  orSay(() => import('@/ui/drawer/drawer').then((m) => m.Drawer)),
  { ssr: false, loading: Loading },
);

/** The drawer, beside the design that is open. */
export function DrawerRoom() {
  return (
    <Room className="flex min-h-0 flex-col px-4 py-3" name="Drawer">
      <Drawer />
    </Room>
  );
}
