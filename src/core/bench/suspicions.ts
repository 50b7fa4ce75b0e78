import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import type { Unknown } from '@/core/fit/belief';
import type { Hypothesis } from '@/core/fit/diagnose';
import { formatQuantity as q } from '@/core/quantity/format';
import { designFaults } from './design-faults';
import { DesignModel, SOUND, type Asked, type CircuitEdit, type Throughput } from './design-model';
import type { BenchFault } from './fault-words';
import type { Factors } from './factors';
import { measuredOf, readingSigma, type Measured, type MeasuredState } from './measured';
import { movables } from './movables';
import type { PoweredQuantity } from './reading-choices';
import { judgedWhenFed, latestReadings, mainsForReadings } from './readings';
import type { TerraceLine } from './terrace-line';
import type { PointId } from './test-point';

/** A reading faults are held against, one behind the regulator too. */
export type Held = Omit<Measured, 'quantity'> & { quantity: PoweredQuantity };

/** A fault built into the design, that can be asked of places nobody read. */
export interface Suspicion extends Hypothesis {
  fault: Exclude<BenchFault, 'bad-choice' | 'other'>;
  over(list: readonly Asked[]): Hypothesis['predict'];
  /** The terrace of such a supply in a state. @throws SolveError */
  line(state: MeasuredState, values: readonly number[]): TerraceLine;
}

/** Every reading of a design faults are held against. */
export function heldReadings(design: Design): Held[] {
  return [...measuredOf(design).filter((m) => m.quantity !== 'sink'), ...outputReadings(design)];
}

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

/** So many states of many tell soon what is out of question: the lightest load, one between, the heaviest. */
const SAMPLED_STATES = 3;
/** With fewer states than so many a sample saves nothing. */
const MANY_STATES = 6;

/** Numbers of the readings of a few states, spread over the loads; null where there are not many. */
function sampleOf(held: readonly Held[]): number[] | null {
  const amps = ({ load }: MeasuredState) => (typeof load === 'number' ? load : -1);
  const states = [...new Map(held.map((h) => [JSON.stringify(h.state), h.state])).values()].sort(
    (a, b) => amps(a) - amps(b),
  );
  if (states.length < MANY_STATES) return null;
  const few = Array.from({ length: SAMPLED_STATES }, (_, n) =>
    JSON.stringify(states[Math.round((n * (states.length - 1)) / (SAMPLED_STATES - 1))]),
  );
  return held.flatMap((h, n) => (few.includes(JSON.stringify(h.state)) ? [n] : []));
}

/** Ahead of the regulator nothing is wrong. */
const AS_IT_IS = () => SOUND;
/** How common it is that a probe's factor was forgotten. Rule of thumb. */
const FORGOTTEN = 0.02;
/** What a probe of ten to one shows of a ripple where its factor is not counted in. */
const PROBE = 0.1;

/**
 * Everything that may be wrong with a built design, the sound state first, with severity and the parts' tolerances as
 * unknowns.
 * @param held what it is held against
 */
export function suspicions(design: Design, held: readonly Held[]): Suspicion[] {
  const may = movables(design).filter((m) => m.id !== 'sink');
  const model = mainModel(design);
  const { sound, ahead, behind } = designFaults(design);
  const parts: Unknown[] = [
    ...may.map((m) => ({ id: m.id as string, centre: 1, spread: m.spread })),
    ...(model ? [{ id: 'set', centre: model.outputV, spread: Math.max(0.002, 0.5 * model.spread) }] : []),
  ];
  // Where most flows, what is wrong shows most.
  const amps = (h: Held) => (typeof h.state.load === 'number' ? h.state.load : 0);
  const heaviest = held.reduce((a, b) => (amps(b) > amps(a) ? b : a));
  const glanced = held.filter((h) => h.state.load === heaviest.state.load && h.state.mainsV === heaviest.state.mainsV);
  const sampled = sampleOf(held);
  const states = new DesignModel(design);
  const suspicion = (
    { fault, part = '', prior }: Pick<Suspicion, 'fault' | 'prior'> & { part?: string },
    severity: readonly Unknown[],
    edit: (severity: readonly number[]) => CircuitEdit,
    through: Throughput | null,
    shown: (one: Asked, value: number) => number = (_, value) => value,
  ): Suspicion => {
    const own = severity.length;
    // Each circuit is solved from where it was solved last; what is sound ahead of the regulator is one circuit.
    const solver = edit === AS_IT_IS ? states : new DesignModel(design, states);
    const factorsOf = (values: readonly number[]): Factors =>
      Object.fromEntries(may.map((m, n) => [m.id, values[own + n]!]));
    const outOf = (values: readonly number[]) => (through ? { through, setV: values.at(-1)! } : undefined);
    const over = (list: readonly Asked[]) => (values: readonly number[]) =>
      solver
        .predict(list, factorsOf(values), edit(values.slice(0, own)), outOf(values))
        .map((v, n) => shown(list[n]!, v));
    return {
      fault,
      part,
      prior,
      unknowns: [...severity, ...parts],
      severities: own,
      predict: over(held),
      glance: over(glanced),
      ...(sampled ? { sample: { of: sampled, predict: over(sampled.map((n) => held[n]!)) } } : {}),
      over,
      line: (state, values) => solver.line(state, factorsOf(values), edit(values.slice(0, own)), outOf(values)),
    };
  };
  return [
    ...ahead.map((f) => suspicion(f, f.severity, f.fault === 'none' ? AS_IT_IS : (s) => (c) => f.edit(c, s), sound)),
    ...behind.map((f) => suspicion(f, [], AS_IT_IS, f.through)),
    ...(held.some((h) => h.quantity === 'ripple')
      ? [
          suspicion({ fault: 'probe-factor', prior: FORGOTTEN }, [], AS_IT_IS, sound, ({ quantity }, value) =>
            quantity === 'ripple' ? PROBE * value : value,
          ),
        ]
      : []),
  ];
}
