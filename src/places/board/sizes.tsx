'use client';

import { useMemo } from 'react';
import { boardParts } from '@/core/board/stripboard';
import { pinoutOf } from '@/core/build/pinouts';
import { netlistOf } from '@/core/netlist/netlist-of';
import { useDesign } from '@/ui/session';

/** Housings without legs that go through a board. */
const FLAT: ReadonlySet<string> = new Set(['SOT-223']);

/** What is said of all sizes, and of parts that have no legs for this board. */
export function Sizes({ children }: { children?: React.ReactNode }) {
  const design = useDesign();
  const flat = useMemo(
    () =>
      boardParts(netlistOf(design)).flatMap(({ part, wire }) => {
        const housing = wire ? undefined : pinoutOf(part)?.housing;
        return housing !== undefined && FLAT.has(housing) ? [`${part.ref} (${housing})`] : [];
      }),
    [design],
  );
  return (
    <p className="mt-2 text-[14px] text-quiet">
      {children}Sizes of parts are typical: lay yours on the print first. What is on a sink goes to the edge, or on
      short leads.
      {flat.length > 0 &&
        ` ${flat.join(' and ')} has no legs: it sits on an adapter with pins 2.54 mm apart, which has to bring the copper it is cooled by.`}
    </p>
  );
}
