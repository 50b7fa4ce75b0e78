import type { Build, CheckSummary, Reading, ToleranceSummary } from '@/core/picture/build-summary';
import type { RuleId } from '../rules';
import type { Plan } from './plan';
import type { CrowdOf } from './crowd-surfaces';
import { spreadsOf } from './spreads';

const BINS = 24;

/** Adds up builds: shares, histograms, and what drives the misses by the squares of the correlations. */
export function summarise(
  { design, plan, seed }: CrowdOf,
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

function correlation(a: readonly number[], b: readonly number[]): number {
  const n = a.length;
  if (n < 2) return 0;
  const mean = (list: readonly number[]) => list.reduce((sum, v) => sum + v, 0) / n;
  const [ma, mb] = [mean(a), mean(b)];
  let ab = 0;
  let aa = 0;
  let bb = 0;
  for (let k = 0; k < n; k++) {
    ab += (a[k]! - ma) * (b[k]! - mb);
    aa += (a[k]! - ma) ** 2;
    bb += (b[k]! - mb) ** 2;
  }
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
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
