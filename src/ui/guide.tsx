'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import { stopGuiding } from './guided';
import { NOTHING_SEEN, seenAfter, STEPS, stepAt } from './guide-steps';
import { roomPath } from './places';
import { useDesign, useView } from './session';

/** The first five minutes: one thing to look at or to do, until the design is the person's own. */
export function Guide() {
  const id = useView((s) => s.id);
  const design = useDesign();
  const band = useView((s) => s.band);
  const opened = useView((s) => s.opened);
  const fails = useView((s) => (s.picture && s.trouble === null ? s.picture.fails : null));
  const path = usePathname();
  const [first] = useState({ name: design.name, demand: JSON.stringify(design.demand), opened });
  const [seen, setSeen] = useState(NOTHING_SEEN);
  const own = design.name !== first.name || JSON.stringify(design.demand) !== first.demand;
  const next = seenAfter(seen, { band, opened: opened !== null && opened !== first.opened, fails, own });
  // Seen once is seen: the step does not come back when the hand moves on.
  if (JSON.stringify(next) !== JSON.stringify(seen)) setSeen(next);
  const at = stepAt(next);
  const home = roomPath(id, 'supply');
  return (
    <section
      aria-label="First steps"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule bg-raised px-4 py-1.5 print:hidden"
    >
      <p role="status" className="min-w-[260px] flex-1 text-[15px]">
        <span className="mr-2 font-semibold tabular-nums text-volt">
          {at < STEPS.length ? `${at + 1} of ${STEPS.length}` : 'Done.'}
        </span>
        {STEPS[at]?.says ??
          'This supply is yours now, and it stays on the shelf. What to buy is under Buy, how to build it under Build, what to measure under Bench.'}
      </p>
      {path !== home && at < STEPS.length && (
        <Link href={home} className="btn !min-h-[28px]">
          Back to the terrace
        </Link>
      )}
      <button type="button" className="btn !min-h-[28px]" onClick={stopGuiding}>
        {at < STEPS.length ? 'Leave it' : 'Close'}
      </button>
    </section>
  );
}
