import type { Design } from '@/core/design/design';
import { Batch } from '@/core/judge/builds/batch';
import { planOf } from '@/core/judge/builds/plan';
import * as solve from '@/core/judge/builds/solve';
import * as summary from '@/core/judge/builds/summary';
import type { Build, Check, ToleranceSummary } from '@/core/picture/build-summary';

/** Builds drawn in one thread; solved one and all, for tests of what is drawn and how it is added up. */

export const checksOf = (design: Design): Check[] => planOf(design).checks;

export const solveBuilds = (design: Design, seed: number, from: number, count: number): Build[] =>
  solve.solveBuilds(design, planOf(design), seed, from, count);

/** Distances to the limits of one build, in the order of the checks. @param factors in the order of the spreads */
export function marginsAt(design: Design, factors: readonly number[]): number[] {
  const plan = planOf(design);
  return solve.marginsOf(plan, solve.seenWith(design, plan, factors, solve.allPlaces(plan)));
}

export function summarise(design: Design, seed: number, builds: readonly Build[]): ToleranceSummary {
  const plan = planOf(design);
  const all = builds.length * plan.conditions.length;
  const reading = { circumstances: all, solved: all, within: plan.checks.map(() => 0) };
  return summary.summarise({ design, plan, seed }, { builds, reading });
}

export const drawnShares = (design: Design, builds: readonly Build[]) => summary.drawnShares(planOf(design), builds);

/** A whole batch, asked for and answered by one. */
export function drawnAlone(design: Design, seed: number, count: number): Batch {
  const batch = new Batch(design, seed, count);
  for (let asks = batch.first(); asks.length > 0; asks = batch.next())
    batch.take(asks.map((ask) => solve.solveAsk(design, batch.plan, seed, ask)));
  return batch;
}
