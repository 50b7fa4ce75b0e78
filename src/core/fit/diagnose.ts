import { orUnsolved } from '@/core/solve/solve-error';
import { logNormal, type Reading, type Unknown } from './belief';
import { posterior, type Posterior, type Predict } from './posterior';

/** One thing that may be wrong, or nothing: a model of the supply with its tolerances and how bad it is as unknowns. */
export interface Hypothesis {
  fault: string;
  /** Where it sits. */
  part: string;
  /** How common it is before anything is read, against the others. */
  prior: number;
  unknowns: readonly Unknown[];
  /** How many of the unknowns, the first ones, say how bad it is. */
  severities: number;
  predict: Predict;
}

/** A hypothesis against the readings. */
export interface Weighed<H extends Hypothesis = Hypothesis> {
  hypothesis: H;
  /** Share of belief, 0 to 1. */
  probability: number;
  /** Null where such a supply has no answer: it then explains nothing. */
  posterior: Posterior | null;
}

export interface Diagnosis<H extends Hypothesis = Hypothesis> {
  /** The most probable first. */
  weighed: Weighed<H>[];
  /** Share of belief that none of these explains the readings. */
  other: number;
}

/** A reading is explained when it lies within so many of its sigmas. */
export const EXPLAINED_SIGMAS = 2.5;
/** Of what no hypothesis has: readings anywhere within this share of what they should be. */
const ANYWHERE = 0.4;

/**
 * Weighs what may be wrong by how probable exactly these readings are under each, its tolerances and severity integrated
 * over (taken as normal around the most probable ones), times how common it is.
 * @param expected what a sound supply should read: the scale of what none of the hypotheses explains
 * @param otherPrior how common it is that none of them is true
 */
export function diagnose<H extends Hypothesis>(
  hypotheses: readonly H[],
  readings: readonly Reading[],
  expected: readonly number[],
  otherPrior: number,
): Diagnosis<H> {
  // What is nearest at its centres first: against it most of the others are soon out of question.
  const lined = hypotheses
    .map((hypothesis) => {
      const centre = orUnsolved(() => hypothesis.predict(hypothesis.unknowns.map((u) => u.centre)));
      const miss = centre ? readings.reduce((sum, r, n) => sum + ((centre[n]! - r.value) / r.sigma) ** 2, 0) : Infinity;
      return { hypothesis, centre, miss };
    })
    .sort((x, y) => x.miss - y.miss);
  const found: { hypothesis: H; centre: readonly number[] | null; posterior: Posterior | null }[] = [];
  let bestSquares = Infinity;
  for (const { hypothesis, centre } of lined) {
    // A bridge's diodes cannot be told apart from its rail: one is weighed for all that read alike.
    const twin = found.find((f) => comparable(f.hypothesis, hypothesis) && alike(f.centre, centre));
    const p = twin ? twin.posterior : centre && weigh(hypothesis, readings, bestSquares + HOPELESS_SQUARES);
    if (p) bestSquares = Math.min(bestSquares, p.squares);
    found.push({ hypothesis, centre, posterior: p });
  }
  const logs = found.map(({ hypothesis, posterior: p }) =>
    p ? Math.log(hypothesis.prior) + p.logEvidence : -Infinity,
  );
  const anything =
    Math.log(otherPrior) +
    readings.reduce(
      (sum, r, n) => sum + logNormal(r.value, expected[n]!, Math.hypot(r.sigma, ANYWHERE * expected[n]!)),
      0,
    );
  const top = Math.max(anything, ...logs);
  const total = [...logs, anything].reduce((sum, l) => sum + Math.exp(l - top), 0);
  return {
    weighed: found
      .map(({ hypothesis, posterior: p }, n) => ({
        hypothesis,
        posterior: p,
        probability: Math.exp(logs[n]! - top) / total,
      }))
      .sort((a, b) => b.probability - a.probability),
    other: Math.exp(anything - top) / total,
  };
}

/** Where a search begins: with its severity as believed, much worse, much milder; it may have two places that fit. */
const STARTS = [0, 1.5, -1.5] as const;
/** A sum of squares so much above the best one is a share of belief of 1e-7: how it ends is of no interest. */
const HOPELESS_SQUARES = 32;
/** Rounds of a search: how probable a fault is is known long before its last figure is. */
const ROUNDS = 3;
/** Two hypotheses that read the same to this share cannot be told apart by these readings. */
const ALIKE = 2e-4;

function weigh(hypothesis: Hypothesis, readings: readonly Reading[], hopeless: number): Posterior | null {
  let best: Posterior | null = null;
  for (const start of hypothesis.severities > 0 ? STARTS : [0]) {
    // Another start is only worth it where the last left something unexplained.
    if (best && best.chiSquare < readings.length + 4) break;
    const p = orUnsolved(() =>
      posterior(
        hypothesis.unknowns,
        readings,
        hypothesis.predict,
        undefined,
        hypothesis.unknowns.map((_, n) => (n === 0 ? start : 0)),
        hopeless,
        ROUNDS,
      ),
    );
    if (p && (!best || p.logEvidence > best.logEvidence)) best = p;
  }
  return best;
}

/** Whether the same fault at two places has the same unknowns: then what one comes to is what the other does. */
const comparable = (a: Hypothesis, b: Hypothesis) =>
  a.fault === b.fault &&
  a.unknowns.length === b.unknowns.length &&
  a.unknowns.every((u, n) => u.id === b.unknowns[n]!.id);

function alike(a: readonly number[] | null, b: readonly number[] | null): boolean {
  if (!a || !b) return false;
  const scale = Math.max(...a.map(Math.abs), ...b.map(Math.abs));
  return a.every((v, n) => Math.abs(v - b[n]!) <= ALIKE * scale);
}
