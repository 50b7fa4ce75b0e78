import type { Network, Run } from '@/core/circuit/network';
import type { ElementResult, Solution, Waveforms } from './solution';
import { solveSteady } from './steady';
import { solveDip } from './dip';
import { solveChange, solveStart, withLoadCurrent } from './transient';

/** Calculates whatever run is asked for. @throws SolveError when it does not converge */
export function solveRun(network: Network, run: Run, samples?: number): Solution {
  const options = samples ? { samples } : {};
  switch (run.kind) {
    case 'steady':
      return solveSteady(network, options);
    case 'start':
      return solveStart(network, run.cycles, run.switchOnPhaseDeg, options);
    case 'step':
      return solveChange(withLoadCurrent(network, run.fromA), withLoadCurrent(network, run.toA), run.cycles, options);
    case 'dip':
      return solveDip(network, run, options);
  }
}

/** A solution in the shape of a result file, diagnostics under meta. */
export function resultFile(solution: Solution): Record<string, unknown> {
  const {
    energyBalance,
    effort,
    state: _state,
    elements,
    doublerLowerCapacitor,
    cans: _cans,
    primary: _primary,
    waveforms,
    railV: _railV,
    ...rest
  } = solution;
  void [_state, _cans, _primary, _railV];
  return {
    ...rest,
    elements: elements.map((rail) => rail.map(element)),
    ...(doublerLowerCapacitor ? { doublerLowerCapacitor: element(doublerLowerCapacitor) } : {}),
    ...(waveforms ? { waveforms: scoped(waveforms) } : {}),
    meta: { energyBalance, ...effort },
  };
}

function element({ kind, rmsA, meanA, peakToPeakV }: ElementResult) {
  return { kind, rmsA, meanA, peakToPeakV };
}

function scoped({ t, sourceV, railV, inputV, windingA, diodeA }: Waveforms) {
  return { t, sourceV, railV, inputV, windingA, diodeA };
}
