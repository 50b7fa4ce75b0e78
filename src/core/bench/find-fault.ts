import type { Design } from '@/core/design/design';
import { atOnce } from '@/core/quantity/at-once';
import { HOW_COMMON } from '@/core/fit/case-faults';
import { diagnosing, EXPLAINED_SIGMAS, type Weighed } from '@/core/fit/diagnose';
import { orUnsolved } from '@/core/solve/solve-error';
import type { Figure } from '@/core/study/figure';
import { FAULT_WORDS, placeWords, type BenchFault, type FaultWords } from './fault-words';
import type { Measured, MeasuredState } from './measured';
import { nextReadings, type NextReading } from './next-readings';
import { mainsForReadings } from './readings';
import { heldReadings, suspicions, type Suspicion } from './suspicions';
import type { TerraceLine } from './terrace-line';

/** A reading a fault was held against. */
export interface HeldAgainst {
  label: string;
  unit: Measured['unit'];
  read: number;
  /** What it would be with every part as the design has it. */
  sound: number;
  /** What it would be with this fault, at the severity that fits best. */
  computed: number;
  explained: boolean;
  /** Where on the terrace at full load it stands; null where it was taken in another state, or is no level of it. */
  drawnAt: 'reservoir' | 'output' | null;
}

export interface Suspect extends FaultWords {
  fault: BenchFault;
  /** Where: 'D1 or D3', 'reservoir'; empty where the fault has no place. */
  where: string;
  /** Share of belief, 0 to 1. */
  probability: number;
  /** The same, with its working. */
  figure: Figure;
  readings: HeldAgainst[];
  /** The terrace at full load with this fault as bad as fits best; null where nothing of it stands still to be drawn. */
  line: TerraceLine | null;
}

export interface FaultReport {
  suspects: Suspect[];
  next: NextReading[];
  /** The terrace at full load with every part as the design has it; null where such a supply has no answer. */
  sound: TerraceLine | null;
}

/** How far a search for faults is: so many of all that are possible have been weighed. */
export interface FaultProgress {
  done: number;
  of: number;
}

/** Fewer than so many readings and every fault is as likely as it is common. */
const LEAST_TO_FIND = 2;
/** Less belief than this is drawn by no terrace of its own. */
const DRAWN = 0.005;

/** Weighs what may be wrong with a built supply, all at once. @throws SolveError, as `findingFault` */
export function findFault(design: Design): FaultReport | string {
  return atOnce(findingFault(design));
}

/**
 * Weighs what may be wrong with a built supply by everything read of it: every fault an edit of its circuit, of what its
 * regulator lets through or of how it was read, with severity and the parts' tolerances integrated over. Tells after each
 * how far it is.
 * @returns a sentence where too little was read
 * @throws SolveError where the sound design has no answer in a state it was read in
 */
export function* findingFault(design: Design): Generator<FaultProgress, FaultReport | string> {
  const held = heldReadings(design);
  if (held.length < LEAST_TO_FIND)
    return 'Two readings or more are needed: winding, reservoir, ripple or output. Type them on the power-up page, in its order.';
  const readings = held.map(({ value, sigma }) => ({ value, sigma }));
  const all = suspicions(design, held);
  const healthy = all[0]!;
  const centre = healthy.unknowns.map((u) => u.centre);
  const expected = healthy.predict(centre);
  const found = yield* diagnosing(all, readings, expected, HOW_COMMON.other);
  const state: MeasuredState = {
    mainsV: mainsForReadings(design)('reservoir-loaded'),
    load: design.demand.outputA,
  };
  const names = [...new Set(all.map((h) => h.fault))];
  const suspects = names
    .map((fault): Suspect => {
      const of = found.weighed.filter((w) => w.hypothesis.fault === fault);
      const best = of[0]!;
      const probability = of.reduce((sum, w) => sum + w.probability, 0);
      const alike = of.filter((w) => w.posterior === best.posterior).map((w) => placeWords(w.hypothesis.part));
      return {
        fault,
        ...FAULT_WORDS[fault],
        where: eitherOf([...new Set(alike)].sort()),
        probability,
        figure: beliefFigure(fault, probability, of),
        readings: held.map((h, n) => ({
          label: h.label,
          unit: h.unit,
          read: h.value,
          sound: expected[n]!,
          computed: best.posterior?.computed[n] ?? NaN,
          explained: Math.abs(best.posterior?.sigmas[n] ?? Infinity) <= EXPLAINED_SIGMAS,
          drawnAt:
            h.state.load === state.load && (h.quantity === 'reservoir' || h.quantity === 'output') ? h.quantity : null,
        })),
        line:
          best.posterior && probability >= DRAWN
            ? orUnsolved(() => best.hypothesis.line(state, best.posterior!.values))
            : null,
      };
    })
    .concat({
      fault: 'other',
      ...FAULT_WORDS.other,
      where: '',
      probability: found.other,
      figure: beliefFigure('other', found.other, []),
      readings: [],
      line: null,
    })
    .sort((a, b) => b.probability - a.probability);
  return {
    suspects,
    next: nextReadings(design, found.weighed, held),
    sound: orUnsolved(() => healthy.line(state, centre)),
  };
}

/** How a share of belief came about, and how bad the fault would be. */
function beliefFigure(fault: BenchFault, probability: number, of: readonly Weighed<Suspicion>[]): Figure {
  const best = of[0];
  const severities = best?.posterior
    ? best.hypothesis.unknowns.slice(0, best.hypothesis.severities).map((u, n) => ({
        label: `${u.id}, at best fit`,
        value: best.posterior!.values[n]!,
        unit: '' as const,
        origin: 'simulated' as const,
      }))
    : [];
  const common = of.reduce((sum, w) => sum + w.hypothesis.prior, 0) || HOW_COMMON.other;
  return {
    id: `belief-${fault}`,
    label: FAULT_WORDS[fault].name,
    value: 100 * probability,
    unit: '%',
    origin: 'simulated',
    expression:
      'how common it is × how probable exactly these readings are with it, as a share of all that was weighed',
    inputs: [
      { label: 'common before reading', value: 100 * common, unit: '%', origin: 'rule of thumb' },
      ...severities,
    ],
    source:
      'Every fault solved in this design; tolerances and severity integrated over, taken as normal near the best fit.',
    assumes: [],
  };
}

const eitherOf = (names: readonly string[]) => names.join(', ').replace(/, ([^,]*)$/, ' or $1');
