import { atOnce } from '@/core/quantity/at-once';
import type { Reading, Unknown } from './belief';
import { posterior, spreadOf, type Posterior, type Predict } from './posterior';

/** One value of the fit. */
export interface Fitted {
  id: string;
  value: number;
  /** Standard deviation of ln(value). */
  relativeSigma: number;
  /** Readings, where they shrank the spread by more than half; else what was believed. */
  decidedBy: 'readings' | 'belief';
}

export interface Fit {
  fitted: Fitted[];
  /** With the readings taken for wrong left out. */
  posterior: Posterior;
  /** Readings taken for wrong, by index, the worst first. */
  outliers: number[];
  /** Pairs of unknowns the readings cannot tell apart, and how strongly they hang together, −1 to 1. */
  entangled: { ids: [string, string]; correlation: number }[];
}

/** A reading is taken for wrong when everything else agrees better without it by this square of sigmas. */
const WRONG_SQUARE = 4 ** 2;
/** The share of its spread an unknown may keep to be decided by readings. */
const DECIDED = 0.5;
const ENTANGLED = 0.95;

/** Fits a model to readings in one go. */
export function fit(unknowns: readonly Unknown[], readings: readonly Reading[], predict: Predict): Fit {
  return atOnce(fitting(unknowns, readings, predict));
}

/**
 * Fits a model to readings, a step for each fit on the way. A reading that everything else speaks against is named and left out, never more than a
 * third of them, and only while more than two others remain: with fewer nobody can say which one is wrong.
 * @throws SolveError where the model has no answer at what is believed
 */
export function* fitting(
  unknowns: readonly Unknown[],
  readings: readonly Reading[],
  predict: Predict,
): Generator<void, Fit> {
  const weights = readings.map(() => 1);
  const outliers: number[] = [];
  let found = posterior(unknowns, readings, predict, { weights });
  yield;
  const most = Math.floor(readings.length / 3);
  while (outliers.length < most && readings.length - outliers.length > 2) {
    const worst = yield* mostAgainst(unknowns, readings, predict, weights, found);
    if (!worst) break;
    weights[worst.index] = 0;
    outliers.push(worst.index);
    found = worst.without;
  }
  const spreads = unknowns.map((_, n) => Math.sqrt(found.covariance[n]![n]!));
  return {
    fitted: unknowns.map((u, n) => ({
      id: u.id,
      value: found.values[n]!,
      relativeSigma: u.spread * spreads[n]!,
      decidedBy: spreads[n]! < DECIDED ? 'readings' : 'belief',
    })),
    posterior: found,
    outliers,
    entangled: unknowns.flatMap((a, i) =>
      unknowns.slice(i + 1).flatMap((b, k) => {
        const j = i + 1 + k;
        const correlation = found.covariance[i]![j]! / (spreads[i]! * spreads[j]!);
        return Math.abs(correlation) > ENTANGLED ? [{ ids: [a.id, b.id] as [string, string], correlation }] : [];
      }),
    ),
  };
}

/** The reading without which everything else agrees best; null where none of them is against the others. */
function* mostAgainst(
  unknowns: readonly Unknown[],
  readings: readonly Reading[],
  predict: Predict,
  weights: readonly number[],
  found: Posterior,
): Generator<void, { index: number; without: Posterior } | null> {
  const whole = found.squares;
  // Near the fit a reading left out lets the sum of squares fall by its own square over one less its leverage.
  const suspects = readings
    .flatMap((r, n) => {
      if (weights[n] === 0) return [];
      const leverage = (spreadOf(found.slopes[n]!, found.covariance) / r.sigma) ** 2;
      return [{ n, falls: found.sigmas[n]! ** 2 / Math.max(1 - leverage, 1e-3) }];
    })
    .filter((s) => s.falls > WRONG_SQUARE / 2)
    .sort((a, b) => b.falls - a.falls)
    .slice(0, 6);
  let worst: { index: number; without: Posterior; falls: number } | null = null;
  for (const { n, falls } of suspects) {
    // Fitted anew it falls by about what was foretold: one that promises less than the worst found gave is no rival.
    if (worst && worst.falls > falls) break;
    const without = posterior(unknowns, readings, predict, {
      weights: weights.map((w, k) => (k === n ? 0 : w)),
      from: found.z,
    });
    yield;
    const gained = whole - without.squares;
    if (!worst || gained > worst.falls) worst = { index: n, without, falls: gained };
  }
  return worst && worst.falls > WRONG_SQUARE ? worst : null;
}
