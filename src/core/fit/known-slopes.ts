import { valuesAt, type Unknown } from './belief';
import { rowsOf, slopeColumns, type Predict } from './posterior';

/** How one hypothesis' readings move with its unknowns, for another to begin with. */
export interface KnownSlopes {
  unknowns: readonly Unknown[];
  /** What its readings are where the slopes were taken. */
  computed: readonly number[];
  /** Of each reading by each unknown's z. */
  slopes: readonly (readonly number[])[];
}

/**
 * Slopes of each reading by each unknown's z at a place. Whatever is wrong, tolerances move readings much alike: those of the
 * first unknowns, which say how bad it is, are solved for, the others are taken as shares of what is read from what is known
 * already; where that does not cover them, all are solved for.
 * @throws SolveError where there is no answer at that place
 */
export function slopesLike(
  unknowns: readonly Unknown[],
  severities: number,
  predict: Predict,
  z: readonly number[],
  known: KnownSlopes | null,
): number[][] {
  const here = predict(valuesAt(unknowns, z));
  const columnOf = new Map(known?.unknowns.map((u, k) => [u.id, k]));
  const borrowed = unknowns.slice(severities).map((u) => columnOf.get(u.id) ?? null);
  if (!known || borrowed.includes(null)) return rowsOf(slopeColumns(unknowns, z, here, predict), here.length);
  const own = rowsOf(slopeColumns(unknowns, z, here, predict, severities), here.length);
  return here.map((value, n) => {
    const scale = known.computed[n] === 0 ? 1 : value / known.computed[n]!;
    return [...own[n]!, ...borrowed.map((k) => scale * known.slopes[n]![k!]!)];
  });
}
