import { assemble, type Circuit } from '@/core/circuit/assemble';
import type { Network } from '@/core/circuit/network';
import { CycleSearch, type Cycle } from './cycle-search';
import { figuresOf } from './figures';
import { integratorFor, releasing, type Integrator } from './integrator';
import { readingOf } from './read-records';
import { readiedForHalves, railSamples, sampler } from './samples';
import type { Solution, Waveforms } from './solution';

export interface SteadyOptions {
  /** `state` of the solution of a similar circuit. */
  warm?: readonly number[];
  /** Whether `warm` is foretold for this very circuit, so that one careful pass is likely to close the cycle. */
  sure?: boolean;
  /** Number of waveform samples over one cycle; none when left out. */
  samples?: number;
  /** The same of the rails alone. */
  railSamples?: number;
}

/**
 * Finds the states that return to themselves after one period (half a period, roles exchanged, where the arrangement
 * allows it) by Newton's method on the cycle map, from a quasi-static guess, first loosely, then tightly.
 * @throws SolveError when no cycle closes
 */
export function findCycle(circuit: Circuit, warm?: readonly number[], sure = false): Cycle {
  const integrator = integratorFor(circuit);
  try {
    return new CycleSearch(integrator, warm, sure).found();
  } catch (error) {
    integrator.release();
    throw error;
  }
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
    if (options.railSamples) solution.railV = railSamples(circuit, integrator, options.railSamples);
    if (options.samples) solution.waveforms = waveformsOf(circuit, integrator, options.samples);
    return solution;
  });
}

/**
 * Everything a scope could show of a cycle that is known.
 * @param state of its solution
 * @throws SolveError when it does not close from there
 */
export function cycleSamples(network: Network, state: readonly number[], perCycle: number): Waveforms {
  const circuit = assemble(network);
  const { integrator } = findCycle(circuit, state, true);
  return releasing(integrator, () => waveformsOf(circuit, integrator, perCycle));
}

function waveformsOf(circuit: Circuit, integrator: Integrator, perCycle: number): Waveforms {
  const samples = sampler(circuit, perCycle);
  const halves = readiedForHalves(circuit, integrator, perCycle);
  samples.take(integrator, halves ? circuit.periodS / 2 : circuit.periodS, halves);
  return samples.waveforms;
}
