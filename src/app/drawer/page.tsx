import type { Metadata } from 'next';
import { Drawer } from '@/ui/drawer/drawer';
import { PageHead } from '@/ui/page-head';

export const metadata: Metadata = { title: 'Drawer' };

export default function DrawerPage() {
  return (
    <div className="mx-auto flex h-dvh max-w-[1400px] flex-col px-5 pb-4">
      <PageHead
        title="Drawer"
        says="What lies in the workshop, and generic parts at typical ratings (count 0) to pick from and order by. Prices are rules of thumb until you type yours."
      />
      <Drawer />
    </div>
  );
}
