import { assemble, type Circuit } from '@/core/circuit/assemble';
import type { Network } from '@/core/circuit/network';
import { solveLinear } from './dense';
import { figuresOf, storedEnergy } from './figures';
import { RUNNING_MAINS } from './emf';
import { CLOSE, integratorFor, LOOSE, releasing, TIGHT, type Integrator } from './integrator';
import { firstGuess } from './first-guess';
import { readingOf } from './read-records';
import { sampler } from './samples';
import { mirrorRecords } from './signals';
import { SolveError } from './solve-error';
import type { Solution } from './solution';

export interface SteadyOptions {
  /** `state` of the solution of a similar circuit. */
  warm?: readonly number[];
  /** Whether `warm` is foretold for this very circuit, so that one careful pass is likely to close the cycle. */
  sure?: boolean;
  /** Number of waveform samples over one cycle; none when left out. */
  samples?: number;
}

/** A cycle counts as closed when the correction still due is below this share of each state's own swing. */
const ACCEPT = 3e-4;
/** The same for a foretold cycle that no correction has improved yet: nothing else says how good it is. */
const ACCEPT_FORETOLD = 5e-5;
/**
 * The same where a slow memory makes much of a small miss: what the cycle ends off by, as a share of each state's swing, is
 * what its currents are off by; the correction only moves the level, by this share of it.
 */
const ACCEPT_MISS = 2e-4;
const ACCEPT_LEVEL = 2e-5;
const MOST_PASSES = 60;
/** Share of the squared current that did flow below which what the load would make flow no longer counts. */
const FLOWING = 0.05;
/** Most work in one search. */
const MOST_WORK = 5e7;
/** Cycles the circuit then runs by itself. */
const COASTING_CYCLES = 10;
/** Passes after which a search that has not closed counts as bouncing. */
const BOUNCING = 5;
/** After so many passes without success the search lets the circuit run by itself for a while. */
const PATIENCE = 14;

/** A circuit in its periodic steady state, with the records of one cycle from t = 0: of its first half where the halves mirror. */
export interface Cycle {
  integrator: Integrator;
  /** States at t = 0. */
  start: Float64Array;
  storedJ: number;
  effort: { steps: number; passes: number };
}

/**
 * Finds the states that return to themselves after one period (half a period, roles exchanged, where the arrangement
 * allows it) by Newton's method on the cycle map, from a quasi-static guess, first loosely, then tightly.
 * @throws SolveError when no cycle closes
 */
export function findCycle(circuit: Circuit, warm?: readonly number[], sure = false): Cycle {
  const integrator = integratorFor(circuit);
  try {
    return searched(integrator, circuit, warm, sure);
  } catch (error) {
    integrator.release();
    throw error;
  }
}

/** Room for one pass of a search over so many states; each is written anew before it is read. */
interface Scratch {
  scale: Float64Array;
  image: Float64Array;
  miss: Float64Array;
  step: Float64Array;
  matrix: Float64Array;
}

const rooms: Scratch[] = [];

/** One search at a time: made anew for each, its arrays would be a fortieth of a warm one's time. */
function scratchFor(states: number): Scratch {
  const room = () => new Float64Array(states);
  return (rooms[states] ??= {
    scale: room(),
    image: room(),
    miss: room(),
    step: room(),
    matrix: new Float64Array(states * states),
  });
}

function searched(integrator: Integrator, circuit: Circuit, warm: readonly number[] | undefined, sure: boolean): Cycle {
  const n = circuit.states;
  const { mirror, periodS } = circuit;
  const span = mirror ? periodS / 2 : periodS;
  const fits = warm?.length === n && warm.every((v) => Number.isFinite(v));
  let guess = firstGuess(circuit, fits);
  let start = fits ? new Float64Array(warm) : guess.state;
  const swing = guess.swing.slice();
  const floor = guess.floor;
  const expected = 3 * circuit.typicalA ** 2 * periodS * (mirror ? 0.5 : 1);
  /** What an error in a step's squared current is measured by: where a shorted diode lets a hundred times the load flow, by that. */
  let squares = expected;
  const { scale, image, miss, step, matrix } = scratchFor(n);
  const { records } = integrator;
  const options = { mains: RUNNING_MAINS, record: false, carry: true, fromRest: false };

  const mostWork = integrator.work.done + MOST_WORK;
  // From a guess a few careless passes come first; the last are careful, and use what is known of the cycle map.
  let precision = !fits ? LOOSE : sure ? TIGHT : CLOSE;
  /** Whether the map has to be found anew: the last correction was large, or corrections no longer help. */
  let far = true;
  let anew = false;
  let steps = 0;
  let passes = 0;
  let since = 0;
  let lastSize = Infinity;
  let damping = 1;
  /** A slow filter makes much of the step control's noise: where the search bounces in it, the steps get finer. */
  let finer = 1;
  // With one state the map is monotone: what is known of it brackets the answer.
  let low = -Infinity;
  let high = Infinity;
  for (;;) {
    if (++passes > MOST_PASSES || integrator.work.done > mostWork) {
      throw new SolveError('no cycle was found that repeats itself');
    }
    for (let s = 0; s < n; s++) scale[s] = Math.min(swing[s]!, guess.ceiling[s]!);
    const tight = precision === TIGHT;
    integrator.setTolerance(tight ? TIGHT * finer : precision, scale, squares);
    records.count = 0;
    options.record = tight;
    options.carry = anew || far;
    steps += integrator.run(start, 0, span, options);
    squares = Math.max(expected, FLOWING * integrator.flowedA2s);
    for (let s = 0; s < n; s++) {
      const to = mirror ? mirror.states[s]! : s;
      image[to] = (mirror ? mirror.stateSigns[s]! : 1) * integrator.x[s]!;
      swing[s] = Math.max(integrator.high[s]! - integrator.low[s]!, floor[s]!);
    }
    if (mirror) for (let s = 0; s < n; s++) swing[s] = Math.max(swing[s]!, swing[mirror.states[s]!]!);
    let missSize = 0;
    for (let s = 0; s < n; s++) {
      miss[s] = image[s]! - start[s]!;
      missSize = Math.max(missSize, Math.abs(miss[s]!) / swing[s]!);
    }
    for (let row = 0; row < n; row++) {
      const to = mirror ? mirror.states[row]! : row;
      const sign = mirror ? mirror.stateSigns[row]! : 1;
      for (let c = 0; c < n; c++) matrix[to * n + c] = (to === c ? 1 : 0) - sign * integrator.transition[row * n + c]!;
      step[row] = miss[row]!;
    }
    // Too slow a memory to be resolved: the correction would divide by nothing.
    for (let s = 0; s < n; s++) matrix[s * n + s]! += 1e-10;
    const regular = solveLinear(matrix, n, step);
    let size = 0;
    let levelOff = 0;
    for (let s = 0; s < n; s++) {
      size = Math.max(size, Math.abs(step[s]!) / swing[s]!);
      levelOff = Math.max(levelOff, Math.abs(step[s]!) / Math.max(Math.abs(start[s]!), swing[s]!));
    }
    if (!regular || !Number.isFinite(size)) {
      step.set(miss);
      size = missSize;
      levelOff = Infinity;
    }
    // Closed; or off by a level that is nothing beside it; or as closed as the step control's own noise allows.
    const accept = sure && passes === 1 ? ACCEPT_FORETOLD : ACCEPT;
    const level = missSize < (ACCEPT_MISS / ACCEPT) * accept && levelOff < ACCEPT_LEVEL;
    const stuck = missSize < 0.2 * accept && size > 0.3 * lastSize;
    if (tight && (size < accept || level || stuck)) break;

    if (n === 1) {
      if (miss[0]! > 0) low = Math.max(low, start[0]!);
      else high = Math.min(high, start[0]!);
    }
    if (fits && passes === 1 && size > 1) {
      // Too far off to be of use: start as if there had been nothing.
      precision = LOOSE;
      guess = firstGuess(circuit);
      start = guess.state;
      swing.set(guess.swing);
      far = true;
      continue;
    }
    anew = since > 0 && size > 0.3 * lastSize;
    far = size > 0.1;
    const near = precision === LOOSE ? 1 : 0.1;
    if (!tight && (size < near || missSize < 0.1 * near || since >= BOUNCING || passes >= 3 * PATIENCE)) {
      precision = precision === LOOSE ? CLOSE : TIGHT;
      since = 0;
      low = -Infinity;
      high = Infinity;
      size = Infinity;
      damping = 1;
    } else if (++since >= PATIENCE) {
      since = 0;
      start = coast(integrator, start, COASTING_CYCLES, () => integrator.work.done < mostWork);
      lastSize = Infinity;
      damping = 1;
      anew = true;
      continue;
    }
    if (size < Infinity) damping = size > 0.7 * lastSize ? Math.max(0.25, damping * 0.6) : Math.min(1, damping * 1.6);
    if (tight && since > 0 && since % BOUNCING === 0) finer = Math.max(1e-2, finer * 0.2);
    lastSize = size;
    const next = new Float64Array(n);
    for (let s = 0; s < n; s++) {
      const move = Math.min(Math.max(damping * step[s]!, -guess.reach[s]!), guess.reach[s]!);
      next[s] = Math.min(Math.max(start[s]! + move, guess.least[s]!), guess.most[s]!);
    }
    if (n === 1 && low > -Infinity && high < Infinity && !(next[0]! > low && next[0]! < high)) {
      next[0] = (low + high) / 2;
      if (high - low < 1e-9 * circuit.peakV) {
        if (tight) break;
        precision = TIGHT;
        low = -Infinity;
        high = Infinity;
      }
    }
    start = next;
  }
  const storedJ = storedEnergy(integrator, integrator.x) - storedEnergy(integrator, start);
  return { integrator, start, storedJ: mirror ? 2 * storedJ : storedJ, effort: { steps, passes } };
}

/** Lets the circuit run by itself for some cycles, or as long as there is time, and returns where it then stands. */
function coast(integrator: Integrator, from: Float64Array, cycles: number, inTime: () => boolean): Float64Array {
  let x = from;
  for (let cycle = 0; cycle < cycles && inTime(); cycle++) {
    integrator.run(x, 0, integrator.circuit.periodS, {
      mains: RUNNING_MAINS,
      record: false,
      carry: false,
      fromRest: false,
    });
    x = integrator.x.slice();
  }
  return x;
}

/**
 * The periodic steady state of a network.
 * @param network validated, SI
 * @throws SolveError when no cycle closes or the energy does not balance to 1e-4
 */
export function solveSteady(network: Network, options: SteadyOptions = {}): Solution {
  const circuit = assemble(network);
  const { integrator, start, storedJ, effort } = findCycle(circuit, options.warm, options.sure);
  return releasing(integrator, () => {
    const figures = figuresOf(network, circuit, readingOf(integrator), storedJ, circuit.mirror);
    const solution: Solution = Object.assign(figures, { effort, state: Array.from(start) });
    if (options.samples) {
      const samples = sampler(circuit, options.samples);
      const halves = circuit.mirror !== null && options.samples % 2 === 0;
      // An odd number of samples has none where the halves meet.
      if (circuit.mirror && !halves) mirrorRecords(circuit, integrator.records);
      samples.take(integrator, halves ? circuit.periodS / 2 : circuit.periodS, halves);
      solution.waveforms = samples.waveforms;
    }
    return solution;
  });
}
