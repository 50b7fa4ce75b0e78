import { sampleCorrelation } from 'simple-statistics';
import type { Build, CheckSummary, Reading, ToleranceSummary } from '@/core/picture/build-summary';
import type { RuleId } from '../rules';
import type { Plan } from './plan';
import type { BatchOf } from './batch-surfaces';
import { spreadsOf } from './spreads';

const BINS = 24;

/** Adds up builds: shares, histograms, and what drives the misses by the squares of the correlations. */
export function summarise(
  { design, plan, seed }: BatchOf,
  { builds, reading }: { builds: readonly Build[]; reading: Reading },
): ToleranceSummary {
  const solved = builds.filter((b): b is Build & { margins: number[] } => b.margins !== null);
  const passes = solved.filter((b) => b.margins.every((m) => m >= 0)).length;
  const spreads = spreadsOf(design).map(({ label }, s) => ({ label, factors: solved.map((b) => b.factors[s]!) }));
  const { within, ...solves } = reading;
  return {
    seed,
    builds: builds.length,
    unsolved: builds.length - solved.length,
    reading: solves,
    pass: builds.length === 0 ? 0 : passes / builds.length,
    checks: plan.checks.map((check, c): CheckSummary => {
      const margins = solved.map((b) => b.margins[c]!);
      const sorted = [...margins].sort((a, b) => a - b);
      const least = sorted[0] ?? 0;
      const most = sorted[sorted.length - 1] ?? 0;
      const histogram = new Array<number>(BINS).fill(0);
      for (const m of margins)
        histogram[Math.min(BINS - 1, Math.floor(((m - least) / Math.max(most - least, 1e-12)) * BINS))]!++;
      const causes = spreads
        .map(({ label, factors }) => {
          const r = correlation(factors, margins);
          return { label, share: r * r, hurts: r > 0 ? ('low' as const) : ('high' as const) };
        })
        .filter((cause) => cause.share > 0.02)
        .sort((a, b) => b.share - a.share);
      return {
        check,
        within: within[c]!,
        pass: builds.length === 0 ? 0 : margins.filter((m) => m >= 0).length / builds.length,
        least,
        median: sorted[sorted.length >> 1] ?? 0,
        most,
        histogram,
        causes,
      };
    }),
  };
}

/** Correlation of two lists, -1 to 1; 0 where one of them stands still, or there is nothing to compare. */
function correlation(a: number[], b: number[]): number {
  return (a.length > 1 && sampleCorrelation(a, b)) || 0;
}

/** Share of the builds that pass each check. */
export function drawnShares(plan: Plan, builds: readonly Build[]): Partial<Record<RuleId, number>> {
  return Object.fromEntries(
    plan.checks.map(({ id }, n) => {
      const held = builds.filter((b) => b.margins !== null && b.margins[n]! >= 0).length;
      return [id, builds.length === 0 ? 0 : held / builds.length];
    }),
  );
}
