import { orUnsolved } from '@/core/solve/solve-error';
import { atOnce } from '@/core/quantity/at-once';
import { logNormal, valuesAt, type Reading, type Unknown } from './belief';
import { slopesLike, type KnownSlopes } from './known-slopes';
import { posterior, remembered, type Posterior, type Predict } from './posterior';

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
  /** A few of the readings, soon had: two of the same fault that agree in these agree in all. All of them where left out. */
  glance?: Predict;
  /** Some of the readings and how they alone are foretold, at a share of the work; left out where that would save nothing. */
  sample?: { of: readonly number[]; predict: Predict };
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

interface Found<H extends Hypothesis> {
  hypothesis: H;
  posterior: Posterior | null;
}

/** A reading is explained when it lies within so many of its sigmas. */
export const EXPLAINED_SIGMAS = 2.5;
/** Of what no hypothesis has: readings anywhere within this share of what they should be. */
const ANYWHERE = 0.4;

/** Weighs what may be wrong, all at once: see `diagnosing`. */
export function diagnose<H extends Hypothesis>(...asked: Parameters<typeof diagnosing<H>>): Diagnosis<H> {
  return atOnce(diagnosing(...asked));
}

/**
 * Weighs what may be wrong by how probable exactly these readings are under each, its tolerances and severity integrated
 * over (taken as normal around the most probable ones), times how common it is. Tells after each how many are weighed.
 * @param expected what a sound supply should read: the scale of what none of the hypotheses explains
 * @param otherPrior how common it is that none of them is true
 */
export function* diagnosing<H extends Hypothesis>(
  hypotheses: readonly H[],
  readings: readonly Reading[],
  expected: readonly number[],
  otherPrior: number,
): Generator<{ done: number; of: number }, Diagnosis<H>> {
  // A bridge's diodes cannot be told apart from its rail: one is weighed for all that read alike.
  const kinds: { hypothesis: H; glance: readonly number[] | null; twins: H[] }[] = [];
  for (const hypothesis of hypotheses) {
    const several = hypotheses.filter((h) => comparable(h, hypothesis)).length > 1;
    const at = hypothesis.unknowns.map((u) => u.centre);
    const glance = several ? orUnsolved(() => (hypothesis.glance ?? hypothesis.predict)(at)) : null;
    const twin = kinds.find((k) => comparable(k.hypothesis, hypothesis) && alike(k.glance, glance));
    if (twin) twin.twins.push(hypothesis);
    else kinds.push({ hypothesis, glance, twins: [] });
  }
  // What is nearest at its centres first: against it most of the others are soon out of question.
  const lined = kinds
    .map(({ hypothesis, twins }) => {
      const whole: Looked = { readings, predict: remembered(hypothesis.predict) };
      const { sample } = hypothesis;
      const first: Looked = sample
        ? { readings: sample.of.map((n) => readings[n]!), predict: remembered(sample.predict) }
        : whole;
      const centre = orUnsolved(() => first.predict(hypothesis.unknowns.map((u) => u.centre)));
      return { hypothesis, twins, whole, first, centre, miss: missOf(centre, first.readings) };
    })
    .sort((x, y) => x.miss - y.miss);
  const found: Found<H>[] = [];
  let known: KnownSlopes | null = null;
  let knownFirst: KnownSlopes | null = null;
  let bestSquares = Infinity;
  for (const { hypothesis, twins, whole, first, centre } of lined) {
    const hopeless = bestSquares + HOPELESS_SQUARES;
    let p: Posterior | null = centre && weigh(hypothesis, first, hopeless, knownFirst);
    if (p && first !== whole) {
      knownFirst ??= { unknowns: hypothesis.unknowns, ...p };
      p = widened(hypothesis, whole, p, hopeless, known);
    }
    if (p) known ??= { unknowns: hypothesis.unknowns, ...p };
    if (first === whole) knownFirst = known;
    if (p) bestSquares = Math.min(bestSquares, p.squares);
    for (const h of [hypothesis, ...twins]) {
      found.push({ hypothesis: h, posterior: p });
      yield { done: found.length, of: hypotheses.length };
    }
  }
  const logs = () =>
    found.map(({ hypothesis, posterior: p }) => (p ? Math.log(hypothesis.prior) + p.logEvidence : -Infinity));
  refine(found, readings, Math.max(...logs()) - WORTH_REFINING);
  const anything =
    Math.log(otherPrior) +
    readings.reduce(
      (sum, r, n) => sum + logNormal(r.value, expected[n]!, Math.hypot(r.sigma, ANYWHERE * expected[n]!)),
      0,
    );
  const told = logs();
  const top = Math.max(anything, ...told);
  const total = [...told, anything].reduce((sum, l) => sum + Math.exp(l - top), 0);
  return {
    weighed: found
      .map(({ hypothesis, posterior: p }, n) => ({
        hypothesis,
        posterior: p,
        probability: Math.exp(told[n]! - top) / total,
      }))
      .sort((a, b) => b.probability - a.probability),
    other: Math.exp(anything - top) / total,
  };
}

/** Where else a search may begin than with its severity as believed, in its spreads: it may have two places that fit. */
const MILDER = -1.5;
const WORSE = 1.5;
/** A sum of squares so much above the best one is a share of belief of 5e-5: how it ends is of no interest. */
const HOPELESS_SQUARES = 20;
/** A search that ended with so many times that will not come down to it from elsewhere either. */
const FAR_OFF = 10;
/** Rounds of a search: how probable a fault is is known long before its last figure is. */
const ROUNDS = 5;
/** What is less probable than the first by more than e to this is left as the first look found it. */
const WORTH_REFINING = 2;
/** Two hypotheses that read the same to this share cannot be told apart by these readings. */
const ALIKE = 2e-4;

/** What a hypothesis is held against: all the readings, or a sample of them. */
interface Looked {
  readings: readonly Reading[];
  predict: Predict;
}

/**
 * From a sample of the readings to all of them. More readings only add squares: what the sample leaves beyond hope is summed
 * up where it stands.
 */
function widened(
  { unknowns, severities }: Hypothesis,
  { readings, predict }: Looked,
  sampled: Posterior,
  hopeless: number,
  elsewhere: KnownSlopes | null,
): Posterior | null {
  return orUnsolved(() => {
    const from = sampled.z;
    if (sampled.squares > hopeless) {
      const slopes = readings.map(() => unknowns.map(() => 0));
      return posterior(unknowns, readings, predict, { from, rounds: 0, slopes });
    }
    const slopes = slopesLike(unknowns, severities, predict, from, elsewhere);
    return posterior(unknowns, readings, predict, { from, hopeless, rounds: ROUNDS, slopes });
  });
}

function weigh(
  { unknowns, severities }: Hypothesis,
  { readings, predict }: Looked,
  hopeless: number,
  elsewhere: KnownSlopes | null,
): Posterior | null {
  const starting = (start: number) => {
    const from = unknowns.map((_, n) => (n === 0 ? start : 0));
    return {
      from,
      miss: missOf(
        orUnsolved(() => predict(valuesAt(unknowns, from))),
        readings,
      ),
    };
  };
  let best: Posterior | null = null;
  let known = elsewhere;
  // The nearer of two first.
  const starts = (severities > 0 ? [0, MILDER] : [0]).map(starting).sort((x, y) => x.miss - y.miss);
  for (let n = 0; n < starts.length; n++) {
    const { from, miss } = starts[n]!;
    if (miss === Infinity) continue;
    const p = orUnsolved(() => {
      const slopes = slopesLike(unknowns, severities, predict, from, known);
      return posterior(unknowns, readings, predict, { from, hopeless, rounds: ROUNDS, slopes });
    });
    if (p) known = { unknowns, ...p };
    if (p && (!best || p.logEvidence > best.logEvidence)) best = p;
    // Another start is only worth it where the last left something unexplained, and came near enough.
    if (best && (best.chiSquare < readings.length + 4 || best.squares > FAR_OFF * hopeless)) break;
    if (n === 1) starts.push(starting(WORSE));
  }
  return best;
}

/** Sum of the squared misses in sigmas; infinite where there is no answer. */
const missOf = (computed: readonly number[] | null, readings: readonly Reading[]): number =>
  computed ? readings.reduce((sum, r, n) => sum + ((computed[n]! - r.value) / r.sigma) ** 2, 0) : Infinity;

/** Looks once more, with slopes of its own where the first look ended, at all whose share of belief is worth a figure. */
function refine<H extends Hypothesis>(found: Found<H>[], readings: readonly Reading[], least: number): void {
  const anew = new Map<Posterior, Posterior>();
  const belief = ({ hypothesis, posterior: p }: Found<H>) =>
    p ? Math.log(hypothesis.prior) + p.logEvidence : -Infinity;
  const worth = found.filter((f) => belief(f) >= least).sort((a, b) => belief(b) - belief(a));
  // The likeliest has the tolerances' slopes solved for where it ended; the others, near it, take theirs from it.
  let known: KnownSlopes | null = null;
  for (const f of worth) {
    const rough = f.posterior!;
    const { unknowns, severities, predict } = f.hypothesis;
    const fine =
      anew.get(rough) ??
      orUnsolved(() => {
        const from = rough.z;
        const slopes = slopesLike(unknowns, severities, predict, from, known);
        return posterior(unknowns, readings, predict, { from, rounds: ROUNDS, slopes });
      });
    if (!fine) continue;
    known ??= { unknowns, ...fine };
    anew.set(rough, fine);
    f.posterior = fine;
  }
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
