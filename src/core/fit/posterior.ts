import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { CholeskyDecomposition, inverse, Matrix, solve } from 'ml-matrix';
import { orUnsolved } from '@/core/solve/solve-error';
import { valuesAt, type Reading, type Unknown } from './belief';

/** What the readings make of the beliefs: the most probable values and how sure they are, near them taken as normal. */
export interface Posterior {
  /** Most probable values, counted in spreads of the belief. */
  z: number[];
  values: number[];
  /** Covariance of z. Without readings it is the unit matrix. */
  covariance: number[][];
  /** What each reading should have been. */
  computed: number[];
  /** (computed − read) / sigma of each. */
  sigmas: number[];
  /** Derivative of each computed value by each z. */
  slopes: number[][];
  /** Sum of the squared sigmas of the readings. */
  chiSquare: number;
  /** The same with the squared distances from the beliefs: what the search made least. */
  squares: number;
  /** ln of the probability of exactly these readings under this model, everything believed about its unknowns counted in. */
  logEvidence: number;
}

/** How the most probable values are looked for. */
export interface Search {
  /** Of each reading's square, 1 where left out; 0 leaves a reading out. */
  weights?: readonly number[];
  /** Where it begins, in spreads. */
  from?: readonly number[];
  /** A sum of squares that is no longer of interest: it ends where it is not going to fall below it. */
  hopeless?: number;
  /** Most rounds; what the last one left to gain is counted into the evidence. */
  rounds?: number;
  /**
   * Slopes of what each reading should be where it begins, by each unknown's z. From there they follow what each step
   * shows, by Broyden's method; where left out they are solved for at every place.
   */
  slopes?: number[][];
}

/** What every reading should be, for given values of the unknowns. @throws SolveError where there is no answer */
export type Predict = (values: readonly number[]) => readonly number[];

/** A move of ln(value) over which a derivative is taken: within what is believed, and well above the solver's noise of 1e-5. */
const logStep = (u: Unknown): number => Math.min(0.01, Math.max(u.spread / 2, 1e-3));
/** No value is looked for farther than so many spreads from what is believed. */
const FARTHEST = 8;
/** Rounds of a few steps each. */
const ROUNDS = 10;
const STEPS_A_ROUND = 2;
/** What is left to gain in the sum of squares when a search is done: no figure moves by a thirtieth of its spread. */
const ENOUGH = 1e-3;
/** The same of a search whose slopes are not solved for anew: what it leaves is counted into its evidence. */
const ENOUGH_ROUGHLY = 0.03;
/** So many times a sum of squares of no interest after a round is not going to come down to it. */
const FAR_OFF = 100;
/** A search with more than this left to gain has not come near enough to say how much it is. */
const MOST_LEFT = 6;
const FIRST_DAMPING = 1e-3;
const MOST_DAMPING = 1e6;
/** What a model that has no answer is taken to be off by, in sigmas. */
const NO_ANSWER = 1e4;

/**
 * The most probable values of the unknowns given readings: the least sum of squares of (computed − read)/sigma and of
 * the distance from the beliefs in spreads, by Levenberg and Marquardt's method.
 * @throws SolveError where the model has no answer even where the search begins
 */
export function posterior(
  unknowns: readonly Unknown[],
  readings: readonly Reading[],
  predict: Predict,
  {
    weights = readings.map(() => 1),
    from = unknowns.map(() => 0),
    hopeless = Infinity,
    rounds = ROUNDS,
    slopes: first,
  }: Search = {},
): Posterior {
  const roots = weights.map(Math.sqrt);
  const residualsAt = (computed: readonly number[]) =>
    readings.map((r, n) => (roots[n]! * (computed[n]! - r.value)) / r.sigma);
  // The search asks for a place and for its slopes more than once.
  const computedAt = remembered((z) => predict(valuesAt(unknowns, z)));
  let known: { z: readonly number[]; computed: readonly number[]; slopes: number[][] } | null = null;
  const slopesAt = remembered((z): number[][] => {
    const computed = computedAt(z);
    if (!first) return rowsOf(slopeColumns(unknowns, z, computed, predict), readings.length);
    const slopes: number[][] = known ? corrected(known.slopes, known.z, known.computed, z, computed) : first;
    known = { z, computed, slopes };
    return slopes;
  });
  const curvatureAt = (z: readonly number[]) => curvatureOf(unknowns.length, readings, weights, slopesAt(z));
  /** What the sum of squares would still fall by if all were as straight as it is here. */
  const stillDue = (z: readonly number[]): number => {
    const slopes = slopesAt(z);
    const misses = residualsAt(computedAt(z));
    const gradient = unknowns.map((_, k) =>
      readings.reduce((sum, r, n) => sum + (misses[n]! * roots[n]! * slopes[n]![k]!) / r.sigma, z[k]!),
    );
    const g = Matrix.columnVector(gradient);
    return g
      .transpose()
      .mmul(solve(curvatureAt(z), g))
      .get(0, 0);
  };

  let best = { z: [...from], cost: costOf(residualsAt(computedAt(from)), from) };
  if (unknowns.length > 0 && readings.length > 0) {
    const model = (z: number[]) => {
      const rows = orUnsolved(() => residualsAt(computedAt(z))) ?? readings.map(() => NO_ANSWER);
      return (n: number) => (n < rows.length ? rows[n]! : z[n - rows.length]!);
    };
    // The slopes of where a round begins serve all its steps: near enough for them, and a third of the work.
    const jacobianFrom = (z: readonly number[]) => {
      const slopes = slopesAt(z);
      return () => (n: number) =>
        n < readings.length
          ? unknowns.map((_, k) => (roots[n]! * slopes[n]![k]!) / readings[n]!.sigma)
          : unknowns.map((_, k) => (k === n - readings.length ? 1 : 0));
    };
    const x = Array.from({ length: readings.length + unknowns.length }, (_, n) => n);
    let damping = FIRST_DAMPING;
    for (let round = 0; round < rounds; round++) {
      const due = stillDue(best.z);
      if (due <= (first ? ENOUGH_ROUGHLY : ENOUGH) || best.cost - 1.5 * due > hopeless) break;
      if (round > 0 && best.cost > FAR_OFF * hopeless) break;
      const found = levenbergMarquardt({ x, y: x.map(() => 0) }, model, {
        initialValues: best.z,
        damping,
        maxIterations: first ? 1 : STEPS_A_ROUND,
        minValues: unknowns.map(() => -FARTHEST),
        maxValues: unknowns.map(() => FARTHEST),
        jacobianFunction: jacobianFrom(best.z),
      });
      if (found.parameterError < best.cost) {
        best = { z: [...found.parameterValues], cost: found.parameterError };
        damping = FIRST_DAMPING;
      } else {
        // Too bold: the same place again, with shorter steps.
        damping *= 1e3;
        if (damping > MOST_DAMPING) break;
      }
    }
  }
  const found = summedUp(
    unknowns,
    readings,
    weights,
    best.z,
    computedAt(best.z),
    slopesAt(best.z),
    curvatureAt(best.z),
  );
  // Of a search that was cut short: what it would still have gained if all were straight.
  const left = rounds < ROUNDS && unknowns.length > 0 ? Math.min(stillDue(best.z), MOST_LEFT) : 0;
  return { ...found, logEvidence: found.logEvidence + left / 2 };
}

const costOf = (residuals: readonly number[], z: readonly number[]) =>
  [...residuals, ...z].reduce((sum, v) => sum + v * v, 0);

/** The curvature of the sum of squares: one for each belief, and what each reading adds. */
function curvatureOf(
  size: number,
  readings: readonly Reading[],
  weights: readonly number[],
  slopes: readonly (readonly number[])[],
): Matrix {
  const curvature = Matrix.eye(size, size);
  readings.forEach((r, n) => {
    for (let i = 0; i < size; i++)
      for (let j = 0; j < size; j++) {
        const added = (weights[n]! * slopes[n]![i]! * slopes[n]![j]!) / (r.sigma * r.sigma);
        curvature.set(i, j, curvature.get(i, j) + added);
      }
  });
  return curvature;
}

/** Slopes by reading of what `slopeColumns` tells by unknown. */
export const rowsOf = (columns: readonly (readonly number[])[], rows: number): number[][] =>
  Array.from({ length: rows }, (_, n) => columns.map((c) => c[n]!));

/** Slopes as one step shows them: the least change of the old ones that has the step lead where it did. */
function corrected(
  slopes: readonly (readonly number[])[],
  fromZ: readonly number[],
  fromY: readonly number[],
  toZ: readonly number[],
  toY: readonly number[],
): number[][] {
  const step = toZ.map((v, k) => v - fromZ[k]!);
  const square = step.reduce((sum, s) => sum + s * s, 0);
  return slopes.map((row, n) => {
    const foreseen = row.reduce((sum, slope, k) => sum + slope * step[k]!, fromY[n]!);
    const share = square > 0 ? (toY[n]! - foreseen) / square : 0;
    return row.map((slope, k) => slope + share * step[k]!);
  });
}

/** How many answers are kept: a round's steps, and what is asked again of where it began. */
const KEPT = 8;

/** A function of a place that keeps its last few answers. */
export function remembered<T>(work: (z: readonly number[]) => T): (z: readonly number[]) => T {
  const kept: { z: readonly number[]; answer: T }[] = [];
  return (z) => {
    const hit = kept.find((k) => k.z.every((v, n) => v === z[n]));
    if (hit) return hit.answer;
    const answer = work(z);
    kept.unshift({ z: [...z], answer });
    kept.length = Math.min(kept.length, KEPT);
    return answer;
  };
}

function summedUp(
  unknowns: readonly Unknown[],
  readings: readonly Reading[],
  weights: readonly number[],
  z: number[],
  computed: readonly number[],
  slopes: number[][],
  curvature: Matrix,
): Posterior {
  const size = unknowns.length;
  const covariance = size === 0 ? [] : inverse(curvature).to2DArray();
  const sigmas = readings.map((r, n) => (computed[n]! - r.value) / r.sigma);
  const chiSquare = sigmas.reduce((sum, s, n) => sum + weights[n]! * s * s, 0);
  const belief = z.reduce((sum, v) => sum + v * v, 0);
  const widths = readings.reduce((sum, r, n) => sum + weights[n]! * Math.log(r.sigma * Math.sqrt(2 * Math.PI)), 0);
  return {
    z,
    values: valuesAt(unknowns, z),
    covariance,
    computed: [...computed],
    sigmas,
    slopes,
    chiSquare,
    squares: chiSquare + belief,
    logEvidence: -0.5 * (chiSquare + belief) - widths - 0.5 * (size === 0 ? 0 : logDeterminant(curvature)),
  };
}

/** ln of the determinant of a positive definite matrix. */
function logDeterminant(matrix: Matrix): number {
  const { lowerTriangularMatrix } = new CholeskyDecomposition(matrix);
  return 2 * lowerTriangularMatrix.diag().reduce((sum, v) => sum + Math.log(v), 0);
}

/**
 * How what a model predicts moves with each unknown near z. Where it has no answer on one side the other is looked at;
 * where it has none on either, nothing is learned of that unknown.
 * @param only how many of the unknowns, the first ones, are wanted; all where left out
 */
export function slopeColumns(
  unknowns: readonly Unknown[],
  z: readonly number[],
  here: readonly number[],
  predict: Predict,
  only = unknowns.length,
): number[][] {
  return unknowns.slice(0, only).map((u, k) => {
    for (const h of [logStep(u) / u.spread, -logStep(u) / u.spread]) {
      const moved = orUnsolved(() =>
        predict(
          valuesAt(
            unknowns,
            z.map((v, n) => (n === k ? v + h : v)),
          ),
        ),
      );
      if (moved) return moved.map((v, n) => (v - here[n]!) / h);
    }
    return here.map(() => 0);
  });
}

/** Spread of a quantity that moves by `slopes` with the unknowns, from their covariance. */
export function spreadOf(slopes: readonly number[], covariance: readonly (readonly number[])[]): number {
  let variance = 0;
  slopes.forEach((a, i) => slopes.forEach((b, j) => (variance += a * covariance[i]![j]! * b)));
  return Math.sqrt(Math.max(variance, 0));
}
