import { assemble, type Circuit } from '@/core/circuit/assemble';
import { regulatorOutput } from '@/core/circuit/load-law';
import type { Network } from '@/core/circuit/network';
import { RUNNING_MAINS, type Mains } from './emf';
import { integratorFor, type Integrator } from './integrator';
import { NOTHING, peakWatch, prepare, spent, travel, type TransientOptions } from './journey';
import { columnsOf, crossing, largest } from './signals';
import type { DipResult, Solution } from './solution';
import { findCycle } from './steady';

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
  const start = new Float64Array(standing.state);
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
