import { assemble } from '@/core/circuit/assemble';
import type { Network } from '@/core/circuit/network';
import { figuresOf } from '@/core/solve/figures';
import { firstGuess } from '@/core/solve/first-guess';
import { readingOf } from '@/core/solve/read-records';
import { findCycle, solveSteady } from '@/core/solve/steady';

/** Where the time of a cold solve goes, µs; the least of many rounds. */
export interface Profile {
  states: number;
  wholeUs: number;
  assembleUs: number;
  guessUs: number;
  cycleUs: number;
  figuresUs: number;
  steps: number;
  passes: number;
}

/** The least of many rounds: what a machine that comes and goes does when it is there. @returns µs */
function least(work: () => unknown, rounds: number): number {
  let best = Infinity;
  for (let n = 0; n < rounds; n++) {
    const start = performance.now();
    work();
    best = Math.min(best, performance.now() - start);
  }
  return 1000 * best;
}

/** Takes a solve apart: the circuit put together, the first guess, the search for its cycle without that guess, the figures. */
export function profileOf(network: Network, rounds = 300): Profile {
  const circuit = assemble(network);
  const wholeUs = least(() => solveSteady(network), rounds);
  const guessUs = least(() => firstGuess(circuit), rounds);
  const cycleUs = least(() => findCycle(circuit).integrator.release(), rounds);
  const { integrator, storedJ, effort } = findCycle(circuit);
  const figuresUs = least(() => figuresOf(network, circuit, readingOf(integrator), storedJ, circuit.mirror), rounds);
  integrator.release();
  return {
    states: circuit.states,
    wholeUs,
    assembleUs: least(() => assemble(network), rounds),
    guessUs,
    cycleUs: Math.max(0, cycleUs - guessUs),
    figuresUs,
    ...effort,
  };
}
