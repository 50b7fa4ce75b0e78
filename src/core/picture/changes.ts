import type { SingleChange } from '@/core/judge/single-change';

/** Shares of a wanted margin beyond which nobody gains: what is more than kept is kept. */
const ENOUGH = 2;

/** What a change brings: fewer failures first, then the worst margin, up to what is wanted twice over. */
const gain = (c: SingleChange) => c.relief + Math.min(c.worstAfter, ENOUGH) - Math.min(c.worstBefore, ENOUGH);

/** What leaves least failing first, then most margin gained per euro; what costs nothing, or saves, counts as a tenth of a euro. */
export function rankChanges(changes: readonly SingleChange[]): SingleChange[] {
  const worth = (c: SingleChange) => gain(c) / Math.max(c.costEur, 0.1);
  return changes.filter((c) => gain(c) > 0.02).sort((a, b) => a.failsAfter - b.failsAfter || worth(b) - worth(a));
}
