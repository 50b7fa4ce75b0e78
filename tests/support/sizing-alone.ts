import type { Design } from '@/core/design/design';
import type { Part } from '@/core/drawer/part';
import { lookAt } from '@/core/size/sizing';
import { planSizing } from '@/core/size/sizing-plan';
import { SizingTally } from '@/core/size/sizing-tally';
import type { SizingAsk, SizingProgress } from '@/core/size/sized-set';

/** A search for whole sets as one thread goes through it by itself, circuit by circuit. */
export function* sizing(design: Design, parts: readonly Part[], ask: SizingAsk): Generator<SizingProgress, void> {
  const plan = planSizing(design, parts, ask);
  const tally = new SizingTally(plan.circuits.length, plan.leftOut);
  let progress = tally.take([]);
  for (let n = 0; !tally.over; n++) {
    const result = lookAt(plan, n, tally.failedKin);
    progress = tally.take([result]);
    if (result.lookedAt && !tally.over) yield progress;
  }
  yield progress;
}
