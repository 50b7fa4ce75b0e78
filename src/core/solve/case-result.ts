import type { Network, Run } from '@/core/circuit/network';
import type { Solution } from './solution';
import { solveStart } from './start';
import { solveSteady } from './steady';

/** Calculates whatever run a case asks for. @throws SolveError when it does not converge */
export function solveRun(network: Network, run: Run): Solution {
  return run.kind === 'start' ? solveStart(network, run.cycles, run.switchOnPhaseDeg) : solveSteady(network);
}

/** A solution in the shape of a result file: the one rail in a list, elements per rail, diagnostics under meta. */
export function resultFile(solution: Solution): Record<string, unknown> {
  const { rail, elements, energyBalance, effort, initialV: _initialV, ...rest } = solution;
  void _initialV;
  return { ...rest, rails: [rail], elements: [elements], meta: { energyBalance, ...effort } };
}
