import type { Network } from '@/core/circuit/network';
import type { Mains } from './emf';
import { figuresOf, storedEnergy, type Figures } from './figures';
import { firstGuess } from './first-guess';
import { releasing, type Integrator } from './integrator';
import { readingOf } from './read-records';
import { sampler } from './samples';
import { columnsOf, extremes, largest, type Columns } from './signals';
import { SolveError } from './solve-error';
import type { Solution, Waveforms } from './solution';

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

export interface Journey {
  figures: Figures;
  waveforms?: Waveforms;
  steps: number;
  state: number[];
}

/**
 * Runs a circuit through stretches of time, cycle by cycle. Every stretch of a cycle is shown to `watch`; the last cycle
 * becomes the figures.
 */
export function travel(...[network, integrator, ...rest]: Parameters<typeof travelled>): Journey {
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
  const mainsAt = (t: number) => (stretches.find((s) => t < s.to) ?? stretches[stretches.length - 1]!).mains;
  const samples = options.samples ? sampler(circuit, options.samples, mainsAt) : null;
  const x = start.slice();
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
  const figures = figuresOf(network, circuit, readingOf(integrator), storedJ);
  return {
    figures,
    ...(samples ? { waveforms: samples.waveforms } : {}),
    steps,
    state: Array.from(x),
  };
}

/** Largest diode and winding currents seen so far, A. */
export function peakWatch(integrator: Integrator) {
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
export function railWatch() {
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
export function prepare(
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

/** Effort where nothing had to be looked for. */
export const NOTHING = { steps: 0, passes: 0 };

/** What a run took, and what it took to find where it begins. */
export const spent = (journey: Journey, before: Solution['effort']): Solution['effort'] => ({
  steps: journey.steps + before.steps,
  passes: before.passes,
});
