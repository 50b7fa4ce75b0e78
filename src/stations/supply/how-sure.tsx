'use client';

import { useEffect, useState } from 'react';
import type { Verdict } from '@/core/judge/verdict';
import { drawnShares } from '@/core/judge/tolerance';
import { useDesign } from '@/ui/session';
import { solver } from '@/workers/client';

const BUILDS = 60;
/** Verdicts this near their limit, in wanted margins, deserve to be told how sure they are. */
const NEAR = 1.5;

/** Of some builds drawn from the parts' spreads, how many hold this verdict: near a limit one figure alone says little. */
export function HowSure({ verdict }: { verdict: Verdict }) {
  const design = useDesign();
  const near = Math.abs(verdict.left) < NEAR && verdict.state !== 'holds';
  const [drawn, setDrawn] = useState<{ of: typeof design; shares: Record<string, number> } | null>(null);
  useEffect(() => {
    if (!near) return;
    let current = true;
    const wait = setTimeout(() => {
      void solver('search')
        .builds(design, 1, BUILDS, [0])
        .then(([builds]) => current && setDrawn({ of: design, shares: drawnShares(design, builds!) }));
    }, 400);
    return () => {
      current = false;
      clearTimeout(wait);
    };
  }, [design, near]);
  const share = drawn?.of === design ? drawn.shares[verdict.id] : undefined;
  if (!near || share === undefined) return null;
  return (
    <p className="mt-1 text-[13px] leading-snug" data-testid="how-sure">
      Of {BUILDS} builds drawn from its parts’ spreads {Math.round(share * BUILDS)} hold this.
    </p>
  );
}
