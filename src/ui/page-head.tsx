import Link from 'next/link';
import type { ReactNode } from 'react';
import { Mark } from './mark';

/** The head of a page that is no room of a design: the mark that leads to the shelf, what it is, and what stands beside it. */
export function PageHead({ title, says, children }: { title: string; says?: string; children?: ReactNode }) {
  return (
    <header className="flex flex-wrap items-center gap-3 py-3">
      <Link href="/" aria-label="Ember Rail: to the shelf">
        <Mark size={34} />
      </Link>
      <div className="mr-auto min-w-0 max-w-[1000px]">
        <h1 className="text-[25px] font-semibold leading-7">{title}</h1>
        {says && <p className="text-[14px] text-quiet">{says}</p>}
      </div>
      {children}
    </header>
  );
}
