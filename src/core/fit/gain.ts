import { probit } from 'simple-statistics';
import { logNormal } from './belief';

/** What one hypothesis says a reading not yet taken would be. */
export interface Outlook {
  probability: number;
  mean: number;
  /** Of the reading: what is left of the tolerances and the instrument's own, together. */
  sigma: number;
}

/** Points of equal weight of the normal distribution. */
const POINTS = 15;
const NODES = Array.from({ length: POINTS }, (_, n) => probit((n + 0.5) / POINTS));

/**
 * How much is learned on average by one more reading, bits: the mutual information between which hypothesis is true and
 * what is read.
 */
export function expectedGain(outlooks: readonly Outlook[]): number {
  const total = outlooks.reduce((sum, f) => sum + f.probability, 0);
  if (!(total > 0)) return 0;
  let gain = 0;
  for (const f of outlooks) {
    for (const node of NODES) {
      const x = f.mean + node * f.sigma;
      const mixed = outlooks.reduce(
        (sum, g) => sum + (g.probability / total) * Math.exp(logNormal(x, g.mean, g.sigma)),
        0,
      );
      gain += (f.probability / total / POINTS) * (logNormal(x, f.mean, f.sigma) - Math.log(Math.max(mixed, 1e-300)));
    }
  }
  return Math.max(0, gain / Math.LN2);
}
