/**
 * What is believed of a quantity before anything is read: ln(value) is normal around ln(centre).
 * Counted from there in spreads, z = ln(value / centre) / spread, every belief looks the same: 0 ± 1.
 */
export interface Unknown {
  id: string;
  /** The value believed in, SI, more than 0. */
  centre: number;
  /** Standard deviation of ln(value), more than 0: 0.05 is about 5 %. */
  spread: number;
}

/** One reading and how sure it is. */
export interface Reading {
  value: number;
  /** Standard deviation of what the instrument may be off, in the reading's unit, more than 0. */
  sigma: number;
}

export const valueAt = (u: Unknown, z: number): number => u.centre * Math.exp(u.spread * z);

export const valuesAt = (unknowns: readonly Unknown[], z: readonly number[]): number[] =>
  unknowns.map((u, n) => valueAt(u, z[n]!));

/** ln of the normal density. */
export const logNormal = (x: number, mean: number, sigma: number): number =>
  -0.5 * ((x - mean) / sigma) ** 2 - Math.log(sigma * Math.sqrt(2 * Math.PI));
