import { invert } from '@/core/solve/dense';

/** Terms of a quadratic in so many variables. */
export const termsOf = (variables: number): number => ((variables + 1) * (variables + 2)) / 2;

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
  const terms = points[0]!.length;
  const squares = new Float64Array(terms * terms);
  for (const p of points)
    for (let a = 0; a < terms; a++) for (let b = 0; b < terms; b++) squares[a * terms + b]! += p[a]! * p[b]!;
  for (let a = 0; a < terms; a++) squares[a * terms + a]! *= 1 + RIDGE;
  const inverse = new Float64Array(terms * terms);
  if (!invert(squares, terms, inverse)) return null;
  const sums = new Float64Array(terms);
  return (values) => {
    sums.fill(0);
    points.forEach((p, k) => {
      for (let a = 0; a < terms; a++) sums[a]! += p[a]! * values[k]!;
    });
    const surface = new Float64Array(terms);
    for (let a = 0; a < terms; a++) for (let b = 0; b < terms; b++) surface[a]! += inverse[a * terms + b]! * sums[b]!;
    return surface;
  };
}
