import type { Metadata } from 'next';
import Link from 'next/link';
import { Drawer } from '@/ui/drawer/drawer';
import { Mark } from '@/ui/mark';

export const metadata: Metadata = { title: 'Drawer' };

export default function DrawerPage() {
  return (
    <div className="mx-auto flex h-dvh max-w-[1400px] flex-col px-5 pb-4">
      <header className="flex items-center gap-3 py-3">
        <Link href="/" aria-label="Ember Rail: to the shelf">
          <Mark size={34} />
        </Link>
        <div>
          <h1 className="text-[25px] font-semibold leading-7">Drawer</h1>
          <p className="text-[14px] text-quiet">
            What lies in the workshop, and generic parts at typical ratings (count 0) to pick from and order by. Prices
            are rules of thumb until you type yours.
          </p>
        </div>
      </header>
      <Drawer />
    </div>
  );
}
