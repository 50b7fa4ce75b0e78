import { assemble, type Circuit } from '@/core/circuit/assemble';
import { steppedLoad } from '@/core/circuit/case-file';
import { regulatorOutput } from '@/core/circuit/load-law';
import type { Load, Network } from '@/core/circuit/network';
import { figuresOf, sampler, storedEnergy, type Figures } from './figures';
import { RUNNING_MAINS, type Mains } from './emf';
import { integratorFor, releasing, type Integrator } from './integrator';
import { firstGuess } from './first-guess';
import { columnsOf, crossing, extremes, largest, type Column, type Columns, type Timed } from './signals';
import { SolveError } from './solve-error';
import type { DipResult, Solution, Waveforms } from './solution';
import { findCycle, solveSteady } from './steady';

/** Error allowed in a step, relative to the swing of each state: peaks and minima within about 0.02 %. */
const TOLERANCE = 5e-6;
/** A choke passes on what went wrong before, long after. */
const TOLERANCE_CHOKED = 1.2e-6;

/** Most work in a whole run. */
const MOST_WORK = 6e7;
/** What a long run may take more, for every cycle. */
const WORK_A_CYCLE = 4e5;

export interface TransientOptions {
  /** Number of waveform samples in every cycle; none when left out. */
  samples?: number;
  /** `state` of a steady solution of the network before the event. */
  warm?: readonly number[];
  /** The steady solution of that very network, where it is known: then it is not looked for again. */
  standing?: Solution;
  /** Called after every cycle; returning true stops the run with a SolveError. */
  onCycle?: (done: number, of: number) => boolean | void;
}

/** A stretch of time with one kind of mains. */
interface Stretch {
  from: number;
  to: number;
  mains: Mains;
}

interface Journey {
  figures: Figures;
  waveforms?: Waveforms;
  steps: number;
  state: number[];
}

/**
 * Runs a circuit through stretches of time, cycle by cycle. Every stretch of a cycle is shown to `watch`; the last cycle
 * becomes the figures.
 */
function travel(...[network, integrator, ...rest]: Parameters<typeof travelled>): Journey {
  return releasing(integrator, () => travelled(network, integrator, ...rest));
}

function travelled(
  network: Network,
  integrator: Integrator,
  start: Float64Array,
  stretches: readonly Stretch[],
  cycles: number,
  fromRest: boolean,
  watch: (columns: Columns) => void,
  options: TransientOptions,
): Journey {
  const { circuit, records } = integrator;
  const { periodS } = circuit;
  const samples = options.samples ? sampler(circuit, options.samples) : null;
  const x = Float64Array.from(start);
  let steps = 0;
  let storedBefore = 0;
  const mostWork = integrator.work.done + MOST_WORK;
  for (let cycle = 0; cycle < cycles; cycle++) {
    const begin = cycle * periodS;
    const end = (cycle + 1) * periodS;
    records.count = 0;
    if (cycle === cycles - 1) storedBefore = storedEnergy(integrator, x);
    for (const stretch of stretches) {
      const from = Math.max(begin, stretch.from);
      const to = Math.min(end, stretch.to);
      if (to - from < 1e-9 * periodS) continue;
      const first = records.count;
      steps += integrator.run(x, from, to, { mains: stretch.mains, record: true, carry: false, fromRest });
      x.set(integrator.x);
      watch(columnsOf(integrator, first, records.count));
    }
    samples?.take(integrator, end, false);
    if (integrator.work.done > mostWork + WORK_A_CYCLE * cycle)
      throw new SolveError('the run takes too long to calculate');
    if (options.onCycle?.(cycle + 1, cycles)) throw new SolveError('the run was stopped');
  }
  const storedJ = storedEnergy(integrator, x) - storedBefore;
  const figures = figuresOf(network, integrator, columnsOf(integrator), storedJ);
  return {
    figures,
    ...(samples ? { waveforms: samples.waveforms } : {}),
    steps,
    state: Array.from(x),
  };
}

/** Largest diode and winding currents seen so far, A. */
function peakWatch(integrator: Integrator) {
  const { ports, windings } = integrator.circuit;
  const peaks = { peakDiodeA: 0, peakWindingA: 0 };
  return {
    peaks,
    watch(columns: Columns) {
      ports.forEach((port, n) => {
        if (port.diodes.length === 0 || port.law === 'open') return;
        peaks.peakDiodeA = Math.max(peaks.peakDiodeA, largest(columns, columns.portA(n), 1).value);
        if (port.law === 'resistor') {
          peaks.peakDiodeA = Math.max(peaks.peakDiodeA, -largest(columns, columns.portA(n), -1).value);
        }
      });
      for (let w = 0; w < windings.length; w++) {
        const { max, min } = extremes(columns, columns.windingA(w));
        peaks.peakWindingA = Math.max(peaks.peakWindingA, max, -min);
      }
    },
  };
}

/** Extremes and mean of the first rail over a run, V. */
function railWatch() {
  let minV = Infinity;
  let maxV = -Infinity;
  let sum = 0;
  let time = 0;
  return {
    watch(columns: Columns) {
      const v = columns.railV(0);
      const { max, min } = extremes(columns, v);
      minV = Math.min(minV, min);
      maxV = Math.max(maxV, max);
      for (let r = 0; r < columns.count; r++) {
        sum += columns.weight[r]! * v[r]!;
        time += columns.weight[r]!;
      }
    },
    seen: () => ({ minV, maxV, meanV: sum / time }),
  };
}

/**
 * Sets the error a transient run may make: against the swings of an ordinary cycle, and against the currents of an
 * ordinary charging pulse, so that the surge of a start is not resolved finer than it needs.
 */
function prepare(
  integrator: Integrator,
  swing?: ArrayLike<number | undefined>,
  typicalA = integrator.circuit.typicalA,
): void {
  const { circuit } = integrator;
  const guess = firstGuess(circuit);
  const scale = Float64Array.from(guess.swing, (g, n) =>
    Math.min(Math.max(swing?.[n] ?? g, guess.floor[n]!), guess.ceiling[n]!),
  );
  const choked = circuit.elements.some((e) => e.kind === 'inductor');
  integrator.setTolerance(choked ? TOLERANCE_CHOKED : TOLERANCE, scale, 3 * typicalA ** 2 * circuit.periodS);
}

/**
 * Switch-on from rest: everything empty, the EMF starting at `switchOnPhaseDeg`, for `cycles` mains cycles. Rail, winding
 * and diode figures are those of the last cycle; `start` looks at the whole run.
 * @throws SolveError when the integration fails
 */
export function solveStart(
  network: Network,
  cycles: number,
  switchOnPhaseDeg: number,
  options: TransientOptions = {},
): Solution {
  const circuit = assemble(network);
  const integrator = integratorFor(circuit);
  prepare(integrator);
  const peak = peakWatch(integrator);
  const squares = new Float64Array(circuit.ports.length);
  // Only cycles in which the rail rose above all before can hold the instant it reaches nine tenths.
  const rises: (Timed & { v: Column })[] = [];
  let highest = -Infinity;
  const journey = travel(
    network,
    integrator,
    new Float64Array(circuit.states),
    [{ from: 0, to: cycles * circuit.periodS, mains: { phase: (switchOnPhaseDeg * Math.PI) / 180, factor: 1 } }],
    cycles,
    true,
    (columns) => {
      peak.watch(columns);
      for (let n = 0; n < squares.length; n++) {
        if (circuit.ports[n]!.diodes.length === 0) continue;
        const i = columns.portA(n);
        for (let r = 0; r < columns.count; r++) squares[n]! += columns.weight[r]! * i[r]! * i[r]!;
      }
      const v = columns.railV(0);
      let top = -Infinity;
      for (let r = 0; r < columns.count; r++) if (v[r]! > top) top = v[r]!;
      if (top <= highest) return;
      highest = top;
      const { count } = columns;
      rises.push({ t: columns.t.slice(0, count), v: v.slice(0, count), count });
    },
    options,
  );
  const target = 0.9 * journey.figures.rails[0]!.meanV;
  return {
    ...journey.figures,
    start: { ...peak.peaks, i2tDiode: Math.max(...squares), timeTo90PercentS: firstReached(rises, target) },
    ...(journey.waveforms ? { waveforms: journey.waveforms } : {}),
    effort: { steps: journey.steps, passes: 1 },
    state: journey.state,
  };
}

function firstReached(rises: readonly (Timed & { v: Column })[], target: number): number | null {
  for (const rise of rises) {
    const { t, v } = rise;
    const r = v.findIndex((volts) => volts >= target);
    if (r < 0) continue;
    if (r === 0 || t[r]! <= t[r - 1]!) return t[r]!;
    return crossing(rise, v, target, r - 1);
  }
  return null;
}

/**
 * From the periodic steady state of one network into another with the same parts but other loads or values, from the
 * rising zero crossing on: a load step, a load removed, a fault that appears.
 * @throws SolveError when either fails
 */
export function solveChange(before: Network, after: Network, cycles: number, options: TransientOptions = {}): Solution {
  const steady = options.standing ?? solveSteady(before, options.warm ? { warm: options.warm } : {});
  const was = assemble(before);
  const circuit = assemble(after);
  if (circuit.states !== steady.state.length)
    throw new SolveError('a change may not add or remove parts that store energy');
  const integrator = integratorFor(circuit);
  // What goes away is no less the measure than what comes: an idle circuit's own currents would be resolved far too finely.
  const swings = [firstGuess(was, true).swing, firstGuess(circuit, true).swing] as const;
  prepare(
    integrator,
    swings[0].map((s, n) => Math.max(s, swings[1][n]!)),
    Math.max(was.typicalA, circuit.typicalA),
  );
  const peak = peakWatch(integrator);
  const rail = railWatch();
  const journey = travel(
    after,
    integrator,
    Float64Array.from(steady.state),
    [{ from: 0, to: cycles * circuit.periodS, mains: RUNNING_MAINS }],
    cycles,
    false,
    (columns) => {
      peak.watch(columns);
      rail.watch(columns);
    },
    options,
  );
  const { meanV: beforeMeanV, minV: beforeMinV, maxV: beforeMaxV } = steady.rails[0]!;
  return {
    ...journey.figures,
    step: { beforeMeanV, beforeMinV, beforeMaxV, ...rail.seen(), ...peak.peaks },
    ...(journey.waveforms ? { waveforms: journey.waveforms } : {}),
    effort: spent(journey, options.standing ? NOTHING : steady.effort),
    state: journey.state,
  };
}

/**
 * From the periodic steady state the mains drifts evenly to `toFactor` times its height within four fifths of `cycles`,
 * and stays there.
 * @param drift toFactor 0.2 to 2, cycles 2 or more
 * @throws SolveError when the integration fails
 */
export function solveDrift(
  network: Network,
  drift: { toFactor: number; cycles: number },
  options: TransientOptions = {},
): Solution {
  const circuit = assemble(network);
  const { start, storedJ: _closed, integrator, effort } = findCycle(circuit, options.warm);
  void _closed;
  const before = columnsOf(integrator);
  const v = before.railV(0);
  const share = circuit.mirror ? circuit.periodS / 2 : circuit.periodS;
  let mean = 0;
  for (let r = 0; r < before.count; r++) mean += (before.weight[r]! * v[r]!) / share;
  const was = {
    beforeMeanV: mean,
    beforeMinV: largest(before, v, -1).value,
    beforeMaxV: largest(before, v, 1).value,
  };
  prepare(integrator);
  const arrived = Math.max(1, Math.floor(0.8 * drift.cycles)) * circuit.periodS;
  const peak = peakWatch(integrator);
  const rail = railWatch();
  const journey = travel(
    network,
    integrator,
    start,
    [
      { from: 0, to: arrived, mains: { phase: 0, factor: 1, factorPerS: (drift.toFactor - 1) / arrived } },
      { from: arrived, to: drift.cycles * circuit.periodS, mains: { phase: 0, factor: drift.toFactor } },
    ],
    drift.cycles,
    false,
    (columns) => {
      peak.watch(columns);
      rail.watch(columns);
    },
    options,
  );
  return {
    ...journey.figures,
    step: { ...was, ...rail.seen(), ...peak.peaks },
    ...(journey.waveforms ? { waveforms: journey.waveforms } : {}),
    effort: { steps: journey.steps + effort.steps, passes: effort.passes },
    state: journey.state,
  };
}

/** A network with the current of its stepped load set. @throws SolveError when no load of the first rail has one */
export function withLoadCurrent(network: Network, currentA: number): Network {
  const [first, ...others] = network.sections;
  const [rail, ...rest] = first!.rails;
  const at = steppedLoad(rail!.load);
  if (at < 0) throw new SolveError('no load of the first rail has a current that could step');
  const load = rail!.load.map((l, n) => (n === at ? ({ ...l, currentA } as Load) : l));
  return { ...network, sections: [{ ...first!, rails: [{ ...rail!, load }, ...rest] }, ...others] };
}

const NOTHING = { steps: 0, passes: 0 };

const spent = (journey: Journey, before: Solution['effort']): Solution['effort'] => ({
  steps: journey.steps + before.steps,
  passes: before.passes,
});

/** The cycle a dip begins in. */
interface Standing {
  integrator: Integrator;
  start: Float64Array;
  /** What each state moves through in it, where that is known. */
  swing: ArrayLike<number | undefined>;
  beforeMinV: number;
  effort: Solution['effort'];
}

function foundBefore(circuit: Circuit, warm: readonly number[] | undefined): Standing {
  const { integrator, start, effort } = findCycle(circuit, warm);
  const columns = columnsOf(integrator);
  return {
    integrator,
    start,
    swing: Float64Array.from(integrator.high, (h, n) => h - integrator.low[n]!),
    beforeMinV: largest(columns, columns.railV(0), -1).value,
    effort,
  };
}

function stoodIn(circuit: Circuit, standing: Solution): Standing {
  const swing = new Array<number | undefined>(circuit.states);
  circuit.rails.forEach((rail, r) =>
    rail.elements.forEach((n, position) => {
      const element = circuit.elements[n]!;
      const { minA, maxA, peakToPeakV } = standing.elements[r]![position]!;
      if (element.kind === 'capacitor') swing[element.state] = peakToPeakV;
      else if (element.kind === 'inductor' && element.halfAtA === Infinity) swing[element.state] = maxA - minA;
    }),
  );
  const start = Float64Array.from(standing.state);
  return { integrator: integratorFor(circuit), start, swing, beforeMinV: standing.rails[0]!.minV, effort: NOTHING };
}

/**
 * The mains fails for `missingCycles` from `atCycle` on and returns in phase; meanwhile the windings stay connected as
 * shorts through their resistance and inductance.
 * @throws SolveError when the integration fails
 */
export function solveDip(
  network: Network,
  dip: { missingCycles: number; cycles: number; atCycle: number },
  options: TransientOptions = {},
): Solution {
  const { integrator, start, swing, beforeMinV, effort } = options.standing
    ? stoodIn(assemble(network), options.standing)
    : foundBefore(assemble(network), options.warm);
  const { circuit } = integrator;
  prepare(integrator, swing);
  const T = circuit.periodS;
  const gone = dip.atCycle * T;
  const back = (dip.atCycle + dip.missingCycles) * T;
  const end = dip.cycles * T;
  const missing: Mains = { phase: 0, factor: 0 };
  const peak = peakWatch(integrator);
  const lowest = { value: Infinity, t: 0 };
  let maxV = -Infinity;
  const threshold = 0.99 * beforeMinV;
  /** Since when, after the return, the rail has stood above the threshold; null while it is below. */
  let above: number | null = null;
  let recovered: number | null = null;
  const journey = travel(
    network,
    integrator,
    start,
    [
      { from: 0, to: gone, mains: RUNNING_MAINS },
      { from: gone, to: back, mains: missing },
      { from: back, to: end, mains: RUNNING_MAINS },
    ],
    dip.cycles,
    false,
    (columns) => {
      const { t, count } = columns;
      if (t[0]! < gone - 1e-6 * T) return;
      peak.watch(columns);
      const v = columns.railV(0);
      const low = largest(columns, v, -1);
      if (low.value < lowest.value) {
        lowest.value = low.value;
        lowest.t = low.t;
      }
      maxV = Math.max(maxV, largest(columns, v, 1).value);
      if (t[0]! < back - 1e-6 * T || recovered !== null) return;
      if (above === null && v[0]! >= threshold) above = t[0]!;
      for (let r = 0; r + 1 < count && recovered === null; r++) {
        if (above !== null && t[r + 1]! >= above + T) recovered = above;
        else if (v[r]! >= threshold !== v[r + 1]! >= threshold && t[r + 1]! > t[r]!) {
          above = v[r]! >= threshold ? null : crossing(columns, v, threshold, r);
        }
      }
    },
    options,
  );
  if (recovered === null && above !== null && above + T <= end * (1 + 1e-12)) recovered = above;
  const regulator = circuit.rails[0]!.load.regulator;
  const result: DipResult = {
    beforeMinV,
    minV: lowest.value,
    timeToMinS: lowest.t - gone,
    maxV,
    ...peak.peaks,
    recoveredWithinS: recovered === null ? null : recovered - back,
    ...(regulator ? { outputMinV: regulatorOutput(regulator, lowest.value) } : {}),
  };
  return {
    ...journey.figures,
    dip: result,
    ...(journey.waveforms ? { waveforms: journey.waveforms } : {}),
    effort: spent(journey, effort),
    state: journey.state,
  };
}
