'use client';

import type { Verdict } from '@/core/judge/verdict';
import type { Design } from '@/core/design/design';
import { useDesign } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';

const BUILDS = 60;

const askShares = (solver: RemoteSolver, design: Design) => solver.sharesOf(design, BUILDS);

/** Of some builds drawn from the parts' spreads, how many hold this verdict: near a limit one figure alone says little. */
export function HowSure({ verdict }: { verdict: Verdict }) {
  const design = useDesign();
  const { value: shares, of } = useSolved(askShares, { waitMs: 400 });
  const share = of === design ? shares?.[verdict.id] : undefined;
  // Its line is there before its figure.
  return (
    <p
      className="mt-1 min-h-[36px] text-[13px] leading-snug"
      data-testid={share === undefined ? undefined : 'how-sure'}
    >
      {share !== undefined &&
        `Of ${BUILDS} builds drawn from its parts’ spreads ${Math.round(share * BUILDS)} pass this.`}
    </p>
  );
}
