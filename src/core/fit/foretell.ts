import type { Unknown } from './belief';
import { slopesLike, type KnownSlopes } from './known-slopes';
import { spreadOf, type Posterior, type Predict } from './posterior';

/** A quantity nobody read, as a model has it. */
export interface Foretold {
  value: number;
  /** What is left of the tolerances, in the quantity's unit. */
  sigma: number;
}

/** The same, with how it moves. */
export interface ForetoldWithSlopes extends Foretold {
  /** How it moves with each unknown's z. */
  slopes: number[];
}

/**
 * What a model says of places nobody read, near what it made of the readings.
 * @param like how another model's tolerances move the same places, and how many of the unknowns are this one's own
 * @throws SolveError where one has no answer
 */
export function foretell(
  unknowns: readonly Unknown[],
  p: Posterior,
  ask: Predict,
  like: { known: KnownSlopes; severities: number } | null = null,
): ForetoldWithSlopes[] {
  const here = ask(p.values);
  const again: Predict = (values) => (values.every((v, n) => v === p.values[n]) ? here : ask(values));
  const slopes = slopesLike(unknowns, like?.severities ?? 0, again, p.z, like?.known ?? null);
  return here.map((value, n) => ({ value, slopes: slopes[n]!, sigma: spreadOf(slopes[n]!, p.covariance) }));
}
