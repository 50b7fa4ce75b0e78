import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import type { Unknown } from '@/core/fit/belief';
import { HOW_COMMON } from '@/core/fit/case-faults';
import { diagnose, EXPLAINED_SIGMAS, type Hypothesis, type Weighed } from '@/core/fit/diagnose';
import { foretell, type Foretold } from '@/core/fit/foretell';
import { expectedGain, type Outlook } from '@/core/fit/gain';
import { orUnsolved } from '@/core/solve/solve-error';
import { formatQuantity as q } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import { DesignModel, SOUND, type Asked, type CircuitEdit, type Throughput } from './design-model';
import { FAULT_WORDS, type BenchFault, type FaultWords } from './fault-words';
import type { Factors } from './factors';
import { movables } from './movables';
import { POWERED, RELIABLE, UNPOWERED, type PoweredQuantity } from './reading-choices';
import { measuredOf, readingSigma, type Measured } from './measured';
import { designFaults } from './design-faults';
import { judgedWhenFed, latestReadings, mainsForReadings } from './readings';
import type { PointId } from './test-point';

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
}

export interface NextReading {
  id: string;
  label: string;
  /** Minutes it costs. */
  minutes: number;
  powered: boolean;
  /** What it teaches on average, bits. */
  gain: number;
}

export interface FaultReport {
  suspects: Suspect[];
  next: NextReading[];
}

/** A reading behind the regulator. */
type Held = Omit<Measured, 'quantity'> & { quantity: PoweredQuantity };

/** A hypothesis that can be asked of places nobody read. */
type Askable = Hypothesis & { over(list: readonly Asked[]): Hypothesis['predict'] };

/** Ahead of the regulator nothing is wrong. */
const AS_IT_IS = () => SOUND;

/** What the outputs' own readings add to what is ahead of them. */
function outputReadings(design: Design): Held[] {
  if (!mainModel(design)) return [];
  const mainsFor = mainsForReadings(design);
  const at = (id: string, label: string, value: number, mainsV: number, load: number): Held => ({
    id,
    label,
    quantity: 'output',
    unit: 'V',
    state: { mainsV, load },
    value,
    sigma: Math.hypot(readingSigma(design, 'reservoir', value), 0.02),
  });
  const latest = latestReadings(design.bench.readings);
  const points = (['output-idle', 'output-loaded'] as const).flatMap((id: PointId) => {
    const reading = latest.get(id);
    const idle = id === 'output-idle';
    return reading && judgedWhenFed(design, reading.fedFrom)
      ? [
          at(
            id,
            idle ? 'output, no load' : 'output, full load',
            reading.value,
            mainsFor(id),
            idle ? 0 : design.demand.outputA,
          ),
        ]
      : [];
  });
  const rows = design.bench.loadLine.flatMap((row, n) =>
    row.outputV === null || !judgedWhenFed(design, row.fedFrom)
      ? []
      : [at(`row-${n}-outputV`, `row ${n + 1}, ${q(row.loadA, 'A')}, output`, row.outputV, row.mainsV, row.loadA)],
  );
  return [...points, ...rows];
}

/** Fewer than so many readings and every fault is as likely as it is common. */
const LEAST_TO_FIND = 2;

/**
 * Weighs what may be wrong with a built supply by everything read of it: every fault an edit of its circuit or of what
 * its regulator lets through, with severity and the parts' tolerances integrated over.
 * @returns a sentence where too little was read
 * @throws SolveError where the sound design has no answer in a state it was read in
 */
export function findFault(design: Design): FaultReport | string {
  const held: Held[] = [...measuredOf(design).filter((m) => m.quantity !== 'sink'), ...outputReadings(design)];
  if (held.length < LEAST_TO_FIND)
    return 'Two readings or more are needed: winding, reservoir, ripple or output. Type them on the power-up page, in its order.';
  const may = movables(design).filter((m) => m.id !== 'sink');
  const model = mainModel(design);
  const { sound, ahead, behind } = designFaults(design);
  const parts: Unknown[] = [
    ...may.map((m) => ({ id: m.id as string, centre: 1, spread: m.spread })),
    ...(model ? [{ id: 'set', centre: model.outputV, spread: Math.max(0.002, 0.5 * model.spread) }] : []),
  ];
  const readings = held.map(({ value, sigma }) => ({ value, sigma }));

  const states = new DesignModel(design);
  const hypothesis = (
    fault: BenchFault,
    part: string,
    prior: number,
    severity: readonly Unknown[],
    edit: (severity: readonly number[]) => CircuitEdit,
    through: Throughput | null,
  ): Askable => {
    const own = severity.length;
    // Each circuit is solved from where it was solved last; what is sound ahead of the regulator is one circuit.
    const solver = edit === AS_IT_IS ? states : new DesignModel(design, states);
    const over = (list: readonly Asked[]) => (values: readonly number[]) => {
      const factors: Factors = Object.fromEntries(may.map((m, n) => [m.id, values[own + n]!]));
      const out = through ? { through, setV: values.at(-1)! } : undefined;
      return solver.predict(list, factors, edit(values.slice(0, own)), out);
    };
    return { fault, part, prior, unknowns: [...severity, ...parts], severities: own, predict: over(held), over };
  };

  const all = [
    ...ahead.map((f) =>
      hypothesis(
        f.fault,
        f.part,
        HOW_COMMON[f.fault] * f.share,
        f.severity,
        f.fault === 'none' ? AS_IT_IS : (s) => (c) => f.edit(c, s),
        sound,
      ),
    ),
    ...behind.map((f) => hypothesis(f.fault, '', f.prior, [], AS_IT_IS, f.through)),
  ];
  const expected = all[0]!.predict(all[0]!.unknowns.map((u) => u.centre));
  const found = diagnose(all, readings, expected, HOW_COMMON.other);
  const names = [...new Set(all.map((h) => h.fault as BenchFault))];
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
        })),
      };
    })
    .concat({
      fault: 'other',
      ...FAULT_WORDS.other,
      where: '',
      probability: found.other,
      figure: beliefFigure('other', found.other, []),
      readings: [],
    })
    .sort((a, b) => b.probability - a.probability);
  return { suspects, next: nextReadings(design, found.weighed, held) };
}

/** How a share of belief came about, and how bad the fault would be. */
function beliefFigure(fault: BenchFault, probability: number, of: readonly Weighed[]): Figure {
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

/** 'diode 2' is D3 on the drawing, which counts from one. */
function placeWords(part: string): string {
  const diode = /^diode (\d+)$/.exec(part);
  if (diode) return `D${Number(diode[1]) + 1}`;
  const rail = /^rails\.(\d)/.exec(part);
  if (rail) return rail[1] === '1' ? 'minus rail' : part.includes('filter') ? 'reservoir' : 'rail';
  return '';
}

/** A powered reading counts so many times its minutes: a hand near live parts is trouble of its own. */
const LIVE = 2;
const LEAST_BELIEF = 0.005;
const MOST_NEXT = 4;
const WORTH_BITS = 0.02;

/** What a hypothesis says of places nobody read: together where it can, one by one where one of them has no answer. */
function foretoldAll({ hypothesis, posterior }: Weighed<Askable>, asked: readonly Asked[]): (Foretold | null)[] {
  const of = (list: readonly Asked[]) =>
    orUnsolved(() => foretell(hypothesis.unknowns, posterior!, hypothesis.over(list)));
  return of(asked) ?? asked.map((one) => of([one])?.[0] ?? null);
}

function nextReadings(design: Design, weighed: readonly Weighed<Askable>[], held: readonly Held[]): NextReading[] {
  const likely = weighed.filter((w) => w.probability >= LEAST_BELIEF && w.posterior);
  const mainsV = mainsForReadings(design)('reservoir-loaded');
  const regulated = mainModel(design) !== null;
  const read = new Set(held.map((h) => h.id));
  const open = POWERED.filter(
    (p) =>
      !read.has(p.id) &&
      (p.quantity !== 'output' || regulated) &&
      (p.quantity !== 'winding' || design.source.kind === 'mains'),
  );
  const asked = open.map((p): Asked => ({
    quantity: p.quantity,
    state: { mainsV, load: p.load === 1 ? design.demand.outputA : p.load },
  }));
  const foretold = likely.map((w) => foretoldAll(w, asked));
  const powered = open.map((p, n): NextReading => {
    const outlooks = likely.flatMap((w, k): Outlook[] => {
      const told = foretold[k]![n];
      if (!told) return [];
      const meter = readingSigma(design, p.quantity === 'output' ? 'reservoir' : p.quantity, told.value);
      return [{ probability: w.probability, mean: told.value, sigma: Math.hypot(told.sigma, meter) }];
    });
    return { id: p.id, label: p.label, minutes: p.minutes, powered: true, gain: expectedGain(outlooks) };
  });
  const unpowered = UNPOWERED.map((u): NextReading => {
    const total = likely.reduce((sum, w) => sum + w.probability, 0);
    const shown = likely
      .filter((w) => u.shows.includes(w.hypothesis.fault as BenchFault))
      .reduce((sum, w) => sum + w.probability, 0);
    return {
      id: u.id,
      label: u.label,
      minutes: u.minutes,
      powered: false,
      gain: binaryGain(total > 0 ? shown / total : 0),
    };
  });
  const trouble = (n: NextReading) => n.minutes * (n.powered ? LIVE : 1);
  return [...powered, ...unpowered]
    .filter((n) => n.gain > WORTH_BITS)
    .sort((a, b) => b.gain / trouble(b) - a.gain / trouble(a))
    .slice(0, MOST_NEXT);
}

/** What a check that answers yes or no, and is right so often, teaches of something that is so with a probability; bits. */
function binaryGain(share: number): number {
  const entropy = (p: number) => (p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p));
  return entropy(share * RELIABLE + (1 - share) * (1 - RELIABLE)) - entropy(RELIABLE);
}
