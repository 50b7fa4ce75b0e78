import { LuDecomposition, Matrix } from 'ml-matrix';

/** Terms of a quadratic in so many variables. */
export const termCount = (variables: number): number => ((variables + 1) * (variables + 2)) / 2;

/** Writes the terms of a quadratic at a place, of order one, into `terms`: 1, each variable, each product of two. */
export function quadraticTerms(place: readonly number[], terms: Float64Array): void {
  const n = place.length;
  let to = 0;
  terms[to++] = 1;
  for (let a = 0; a < n; a++) terms[to++] = place[a]!;
  for (let a = 0; a < n; a++) for (let b = a; b < n; b++) terms[to++] = place[a]! * place[b]!;
}

/** A quantity over the places of builds: one coefficient for each term. */
export type Surface = Float64Array;

/** A quantity at a place. @param at terms of the place */
export function readSurface(surface: Surface, at: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < surface.length; k++) sum += surface[k]! * at[k]!;
  return sum;
}

/** Added to the squares, as a share of them: terms that hardly differ do not run against each other. */
const RIDGE = 1e-10;

/**
 * Finds the quadratics that come nearest to quantities known at some places, by least squares.
 * @param points terms of each place
 * @returns what makes a surface of one quantity's values in the order of the points, more of them than points left aside;
 *   null where the places do not determine one
 */
export function fitOver(points: readonly Float64Array[]): ((values: Float64Array) => Surface) | null {
  const at = new Matrix(points as unknown as number[][]);
  const byTerm = at.transpose();
  const squares = byTerm.mmul(at);
  for (let k = 0; k < squares.rows; k++) squares.set(k, k, squares.get(k, k) * (1 + RIDGE));
  const normal = new LuDecomposition(squares);
  if (normal.isSingular()) return null;
  return (values) => {
    const sums = byTerm.mmul(Matrix.columnVector(values.subarray(0, points.length)));
    return Float64Array.from(normal.solve(sums).to1DArray());
  };
}
