import type { Unknown } from './belief';
import { slopeColumns, spreadOf, type Posterior, type Predict } from './posterior';

/** A quantity nobody read, as a model has it. */
export interface Foretold {
  value: number;
  /** What is left of the tolerances, in the quantity's unit. */
  sigma: number;
}

/** What a model says of places nobody read, near what it made of the readings. @throws SolveError where one has no answer */
export function foretell(unknowns: readonly Unknown[], p: Posterior, ask: Predict): Foretold[] {
  const here = ask(p.values);
  const columns = slopeColumns(unknowns, p.z, here, ask);
  return here.map((value, n) => ({
    value,
    sigma: spreadOf(
      columns.map((c) => c[n]!),
      p.covariance,
    ),
  }));
}
