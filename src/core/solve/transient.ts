import { assemble } from '@/core/circuit/assemble';
import { steppedLoad } from '@/core/circuit/case-file';
import type { Load, Network } from '@/core/circuit/network';
import { RUNNING_MAINS } from './emf';
import { firstGuess } from './first-guess';
import { integratorFor } from './integrator';
import { NOTHING, peakWatch, prepare, railWatch, spent, travel, type TransientOptions } from './journey';
import { columnsOf, crossing, largest, type Column, type Timed } from './signals';
import { SolveError } from './solve-error';
import type { Solution } from './solution';
import { findCycle, solveSteady } from './steady';

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
    new Float64Array(steady.state),
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
