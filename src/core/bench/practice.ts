import { mainsVolts } from '@/core/circuit/feed';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { judge } from '@/core/judge/judge';
import { studyDesign } from '@/core/study/study';
import { TOUCH_DC_V } from '@/core/parts/touch-limits';
import { dice } from '@/core/quantity/dice';
import { formatQuantity as q } from '@/core/quantity/format';
import type { Unit } from '@/core/quantity/parse';
import { FAULT_WORDS, type BenchFault } from './fault-words';
import { findFault } from './find-fault';
import { readingSigma } from './measured';
import { pointContext } from './point-context';
import { POWERED, RELIABLE, UNPOWERED, type UnpoweredId } from './reading-choices';
import {
  SET,
  type FinderStep,
  type PracticeChoice,
  type PracticeReading,
  type Puzzle,
  type PuzzleHead,
} from './practice-puzzles';
import { faultsToHide, hide, SimulatedBuild, type Hidden } from './simulated-build';

const supplyOf = (name: string): Design => {
  const design = demoDesigns().find((d) => d.name.startsWith(name))!;
  return { ...design, bench: { ...design.bench, readings: [], loadLine: [] } };
};

/** One puzzle in seven has nothing wrong with it: doubt is not proof. */
const NOTHING_WRONG = 7;

/** A puzzle without end: the supply that is open, or one of the school's, with whatever the seed puts into it. */
export function seededPuzzle(seed: number, own: Design | null): Puzzle {
  const roll = dice(seed + 5000);
  const shelf = demoDesigns();
  const design = own
    ? { ...own, bench: { ...own.bench, readings: [], loadLine: [] } }
    : supplyOf(shelf[Math.floor(roll.uniform() * shelf.length)]!.name);
  const faults = faultsToHide(design).filter((f) => f !== 'none');
  const fault = roll.uniform() < 1 / NOTHING_WRONG ? 'none' : faults[Math.floor(roll.uniform() * faults.length)]!;
  return onBench(
    {
      id: `${own ? 'own' : 'seed'}-${seed}`,
      title: own ? `This supply, seed ${seed}` : `${design.name}, seed ${seed}`,
      story: 'Something about it is doubted. Nobody remembers what was done to it.',
    },
    design,
    hide(design, seed, fault),
  );
}

/** @returns null for a name no puzzle has */
export function setPuzzle(id: string): Puzzle | null {
  const found = SET.find((p) => p.id === id);
  if (!found) return null;
  const design = applyPatch(supplyOf(found.supply), found.drawn ?? {});
  return onBench(found, design, hide(design, found.seed, found.fault));
}

/** A puzzle with what is to be named: of a sound build whose design fails, that it was chosen so. */
function onBench({ id, title, story }: PuzzleHead, design: Design, hidden: Hidden): Puzzle {
  const fails = judge(studyDesign(design))
    .filter((v) => v.state === 'fails')
    .map((v) => `${v.title}: ${v.sentence}`);
  const drawnSo = hidden.fault === 'none' && fails.length > 0;
  return { id, title, story, design, hidden, truth: drawnSo ? 'bad-choice' : hidden.fault, fails };
}

/** Minutes it takes to look through what the design says of itself. */
const LOOKING = 2;

/** What may be named of a supply on the bench. */
export const namesOf = (design: Design): BenchFault[] => [...faultsToHide(design), 'bad-choice'];

/** What can be read of a puzzle, unpowered first, each with what it costs and what it risks. */
export function practiceChoices(design: Design): PracticeChoice[] {
  const regulated = mainModel(design) !== null;
  const mains = design.source.kind === 'mains';
  const hot = pointContext(design, () => mainsVolts(design, 'nominal')).idlePeakV > TOUCH_DC_V;
  return [
    ...UNPOWERED.filter((u) => regulated || (u.id !== 'through' && u.id !== 'setting')).map((u) => ({
      id: u.id,
      label: u.label,
      minutes: u.minutes,
      powered: false,
      caution: hot
        ? 'Unplug, discharge through a resistor, and measure that it is discharged before anything is touched.'
        : null,
    })),
    ...POWERED.filter((p) => (p.quantity !== 'output' || regulated) && (p.quantity !== 'winding' || mains)).map(
      (p) => ({
        id: p.id,
        label: p.label,
        minutes: p.minutes,
        powered: true,
        caution:
          p.id === 'secondary-open'
            ? 'Mains at the primary, close by.'
            : hot
              ? 'Hazardous volts: one hand, clips before the plug, eye protection.'
              : null,
      }),
    ),
  ];
}

/** Takes one reading of a puzzle with the person's own meter. @param nth which reading of the puzzle it is: its noise */
export function takeReading(
  { design, hidden }: Pick<Puzzle, 'design' | 'hidden'>,
  id: string,
  nth: number,
): PracticeReading {
  const powered = POWERED.find((p) => p.id === id);
  if (powered) {
    const build = new SimulatedBuild(design, hidden);
    const { quantity, label, minutes } = powered;
    const load = powered.load === 1 ? design.demand.outputA : powered.load;
    const real = build.read(quantity, { mainsV: mainsVolts(design, 'nominal'), load });
    const sigma = readingSigma(design, quantity === 'output' ? 'reservoir' : quantity, real);
    const value = real + 0.5 * sigma * dice(hidden.seed * 31 + nth).normal();
    const unit: Unit = 'V';
    return { id, label, minutes, powered: true, said: q(value, unit), value };
  }
  const check = UNPOWERED.find((u) => u.id === id)!;
  return {
    id,
    label: check.label,
    minutes: check.minutes,
    powered: false,
    said: checked(design, hidden, check.id),
    value: null,
  };
}

/** As a capacitance meter shows it, three figures. */
const measuredF = (farads: number) => q(Number(farads.toPrecision(3)), 'F');

/** What an unpowered check shows. */
function checked(design: Design, hidden: Hidden, id: UnpoweredId): string {
  const { fault, part, severity, factors } = hidden;
  switch (id) {
    case 'diodes': {
      const at = Number(/^diode (\d+)$/.exec(part)?.[1] ?? NaN) + 1;
      if (fault === 'diode-open') return `D${at} shows nothing either way; the others one way only.`;
      if (fault === 'diode-short') return `D${at} shows nearly nothing both ways; the others one way only.`;
      return 'Every diode shows its drop one way and nothing the other.';
    }
    case 'reservoir': {
      const farads = design.reservoir.capacitanceF * (factors.capacitance ?? 1);
      if (fault === 'reservoir-open') return 'At the board nothing is measured; at the can’s own pins it is all there.';
      if (fault === 'reservoir-dry')
        return `${measuredF(farads * severity[0]!)}, its ESR ${q(Math.max(1, severity[1]!), '', 2)} times the usual.`;
      return `${measuredF(farads)}, its ESR as usual.`;
    }
    case 'fuse':
      return fault === 'source-dead'
        ? 'Open: nothing from pin to pin.'
        : 'The primary’s ohms, steady; the fuse nearly nothing.';
    case 'path':
      if (fault === 'path-open') return 'Open: nothing from the winding to the rectifier.';
      if (fault === 'winding-open') return `Open: nothing through winding ${Number(part.slice(-1)) + 1}.`;
      return fault === 'source-weak'
        ? `${q(severity[0]!, 'ohm', 2)} more than copper and leads come to, and it moves when a lead is moved.`
        : 'What copper and leads come to, steady.';
    case 'through':
      return fault === 'output-through' ? 'A few ohms, both ways.' : 'Kilohms, as a sound one shows.';
    case 'setting':
      if (fault === 'output-top') return 'Open: nothing joins it to ground.';
      return fault === 'output-bottom'
        ? 'Nearly nothing: it lies on ground.'
        : 'What is printed on the resistor, or a sound joint.';
  }
}

/** The finder is sure from here on. */
const SURE = 0.9;
const MOST_STEPS = 8;
/** What it reads before it can weigh anything. */
const BEGINS: readonly string[] = ['reservoir-idle', 'reservoir-loaded'];

/**
 * How the fault finder itself goes through a puzzle, step by step: what it reads in which order until it is sure, and what it
 * then names.
 * @throws SolveError where the sound design has no answer
 */
export function* finderPath(puzzle: Puzzle): Generator<FinderStep, BenchFault> {
  const { design, hidden } = puzzle;
  const mainsV = mainsVolts(design, 'nominal');
  let known: Design = { ...design, bench: { ...design.bench, readings: [], loadLine: [] } };
  const done = new Set<string>();
  const read = (id: string) => {
    done.add(id);
    const reading = takeReading(puzzle, id, done.size);
    if (reading.value !== null)
      known = {
        ...known,
        bench: {
          ...known.bench,
          readings: [
            ...known.bench.readings,
            {
              point: id,
              value: reading.value,
              mainsV,
              fedFrom: 'mains',
              at: new Date(done.size * 60_000).toISOString(),
            },
          ],
        },
      };
    return reading;
  };
  yield { ...read(BEGINS[0]!), believes: 'nothing yet', share: 0 };
  let reading = read(BEGINS[1]!);
  let report = findFault(known);
  /** What checks without power have spoken against. */
  const ruledOut = new Set<BenchFault>();
  for (let steps = 2; ; steps++) {
    if (typeof report === 'string') return 'other';
    const weighed = report.suspects.map((s) => ({
      ...s,
      probability: s.probability * (ruledOut.has(s.fault) ? 1 - RELIABLE : 1),
    }));
    const all = weighed.reduce((sum, s) => sum + s.probability, 0);
    const top = weighed.reduce((best, s) => (s.probability > best.probability ? s : best));
    yield { ...reading, believes: top.name, share: top.probability / all };
    const next = report.next.find((n) => !done.has(n.id));
    if (top.probability / all >= SURE || !next || steps >= MOST_STEPS) {
      if (top.fault !== 'none') return top.fault;
      // A sound box that does not do what it should was drawn so.
      const [first] = puzzle.fails;
      if (first === undefined) return 'none';
      yield {
        label: 'the design’s own verdicts, each in its worst circumstances',
        said: first,
        powered: false,
        minutes: LOOKING,
        believes: FAULT_WORDS['bad-choice'].name,
        share: 1,
      };
      return 'bad-choice';
    }
    reading = read(next.id);
    if (next.powered) {
      report = findFault(known);
      continue;
    }
    const { shows } = UNPOWERED.find((u) => u.id === next.id)!;
    if (shows.includes(hidden.fault)) {
      yield { ...reading, believes: FAULT_WORDS[hidden.fault].name, share: 1 };
      return hidden.fault;
    }
    shows.forEach((fault) => ruledOut.add(fault));
  }
}
