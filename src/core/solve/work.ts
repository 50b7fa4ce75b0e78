/**
 * Work done in a solve, counted in multiplications or about as much: limits stand on it and not on a clock, so that the
 * same circuit gets the same answer on every machine, however busy.
 */
export interface Work {
  done: number;
}

/** What one diode's law costs, in multiplications: an omega function and what is around it. */
export const LAW = 12;

/** Work of solving n linear equations once. */
export function elimination(n: number): number {
  return (n * n * n) / 3 + n * n;
}
