import type { Network } from '@/core/circuit/network';
import { emptyMoments, integratorFor, LOOSE, SolveError, TIGHT, type Integrator } from './integrator';
import { emf, reservoirCircuit, type ReservoirCircuit } from './reservoir-circuit';
import {
  assemble,
  capacitorEnergy,
  conductionTime,
  denseLoop,
  extremes,
  peakReverse,
  type Solution,
  type Waveforms,
} from './solution';

export interface SteadyOptions {
  /** Reservoir voltage at the zero crossing of a similar circuit's cycle, V. */
  warmV?: number;
  /** Number of waveform samples over one cycle; none when left out. */
  samples?: number;
}

/** A cycle counts as closed when the correction still due is below this share of the ripple. */
const ACCEPT = 1e-4;

/** Largest energy error that still counts as a solution, as a fraction of the power handled. */
export const ENERGY_TOLERANCE = 1e-4;

/**
 * Finds the periodic steady state directly: the reservoir voltage that returns to itself after one period (half a
 * period full-wave) is sought by Newton's method on the cycle map, kept inside a bracket, from a quasi-static guess.
 * The map of one state is monotone, so the bracket always holds the answer.
 * @param network validated, SI
 * @throws SolveError when no cycle closes or the energy does not balance to 1e-4
 */
export function solveSteady(network: Network, options: SteadyOptions = {}): Solution {
  const circuit = reservoirCircuit(network);
  const integrator = integratorFor(circuit);
  const span = circuit.fullWave ? circuit.periodS / 2 : circuit.periodS;
  const swing = Math.min(integrator.expectedRipple, circuit.peakV);
  let low = 0;
  let high = circuit.peakV;
  let y = Math.min(high, Math.max(low, options.warmV ?? quasiStatic(circuit, integrator)));
  let passes = 0;
  let steps = 0;
  let moments = emptyMoments();
  let tight = false;
  let storedJ = 0;
  let lastMiss = 0;
  for (;;) {
    if (++passes > 80) throw new SolveError('no cycle was found that repeats itself');
    if (tight) moments = emptyMoments();
    integrator.setTolerance(tight ? TIGHT : LOOSE);
    const pass = integrator.run(y, 0, span, 0, tight, tight ? moments : undefined);
    steps += pass.steps;
    const miss = pass.y - y;
    const correction = miss / Math.max(1 - pass.sensitivity, 1e-9);
    if (tight) {
      storedJ = capacitorEnergy(circuit, pass.y) - capacitorEnergy(circuit, y);
      // Either nothing is left to correct, or charge in and out agree: a large reservoir forgets so slowly that the
      // correction divides by almost nothing, while its level hangs on the charge balance alone.
      const closed =
        Math.abs(correction) < ACCEPT * swing + 1e-9 * circuit.peakV || Math.abs(miss) < 0.5 * ACCEPT * swing;
      if (closed || high - low < ACCEPT * swing) break;
    }
    if (miss > 0) low = y;
    else high = y;
    let next = y + correction;
    // Newton may bounce between two sides of a kink or of the step control's own noise: then the bracket is halved.
    const bouncing = miss * lastMiss < 0 && Math.abs(miss) > 0.5 * Math.abs(lastMiss);
    if (!(next > low && next < high) || bouncing) next = (low + high) / 2;
    lastMiss = miss;
    y = next;
    if (
      !tight &&
      (Math.abs(correction) < 1e-2 * swing + 1e-6 * circuit.peakV || Math.abs(miss) < 3e-3 * swing || passes >= 12)
    ) {
      // The loose cycle has closed as far as it can; its bracket is no better, so the tight search opens its own.
      tight = true;
      low = 0;
      high = circuit.peakV;
      lastMiss = 0;
    }
  }

  const trace = integrator.trace();
  const dense = denseLoop(circuit, integrator, trace, 0);
  const last = trace.count - 1;
  const { minV, maxV, peakA } = extremes(trace, dense, 0, last);
  const reverseV = peakReverse(network, circuit, trace, dense, 0, last, 0);
  const conduction = conductionTime(circuit, integrator, trace, dense, 0, last, 0, 0.01 * peakA, 1);
  if (circuit.fullWave) {
    // The other half cycle is this one with the windings' roles exchanged.
    moments.durationS *= 2;
    for (const key of ['railVs', 'railV2s', 'loadC', 'loadJ', 'capacitorA2s', 'sourceJ'] as const) moments[key] *= 2;
    moments.chargeC[1] = moments.chargeC[0];
    moments.chargeSquared[1] = moments.chargeSquared[0];
    moments.diodeJ[1] = moments.diodeJ[0];
  }
  const figures = assemble(
    network,
    circuit,
    moments,
    {
      minV,
      maxV,
      peakA: [peakA, circuit.fullWave ? peakA : 0],
      conductionS: [conduction, circuit.fullWave ? conduction : 0],
      peakReverseV: [reverseV, reverseV],
    },
    circuit.fullWave ? 2 * storedJ : storedJ,
  );
  if (!(Math.abs(figures.energyBalance.relativeError) <= ENERGY_TOLERANCE) && figures.energyBalance.sourceW > 1e-6) {
    throw new SolveError(
      `the energy of the cycle does not balance (${(100 * figures.energyBalance.relativeError).toFixed(3)} % off)`,
    );
  }
  return {
    ...figures,
    ...(options.samples ? { waveforms: sampleCycle(circuit, dense, trace.t, trace.count, options.samples) } : {}),
    effort: { steps, passes },
    initialV: y,
  };
}

/** A reservoir held at a constant voltage that just takes in what the load draws: where the search starts. */
function quasiStatic(circuit: ReservoirCircuit, integrator: Integrator): number {
  const points = 16;
  const span = circuit.fullWave ? Math.PI : 2 * Math.PI;
  let low = 0;
  let high = circuit.peakV;
  let loadA = 0;
  const resolution = Math.max(0.05 * integrator.expectedRipple, 1e-7 * circuit.peakV);
  while (high - low > Math.min(resolution, 0.01 * circuit.peakV)) {
    const v = (low + high) / 2;
    let sum = 0;
    for (let k = 0; k < points; k++) {
      const p = integrator.solveLoop(
        integrator.drive((((k + 0.5) / points) * span) / circuit.omega, 0),
        v,
        circuit.esrOhm,
      );
      sum += p.i - p.loadA;
      loadA = p.loadA;
    }
    if (sum > 0) low = v;
    else high = v;
  }
  // At the EMF's zero crossing the reservoir is about halfway down its discharge.
  return Math.max(
    0,
    (low + high) / 2 - (0.1 * loadA * circuit.periodS) / (circuit.capacitanceF * (circuit.fullWave ? 2 : 1)),
  );
}

function sampleCycle(
  circuit: ReservoirCircuit,
  dense: ReturnType<typeof denseLoop>,
  times: Float64Array,
  count: number,
  samples: number,
): Waveforms {
  const waveforms: Waveforms = { t: [], sourceV: [], railV: [], rectifierA: [] };
  const half = circuit.periodS / 2;
  let n = 0;
  for (let k = 0; k < samples; k++) {
    const t = (k / samples) * circuit.periodS;
    const folded = circuit.fullWave && t >= half ? t - half : t;
    if (folded < times[n]!) n = 0;
    while (n < count - 2 && times[n + 1]! <= folded) n++;
    const p = dense.at(n, folded);
    waveforms.t.push(t);
    waveforms.sourceV.push(emf(circuit, t, 0));
    waveforms.railV.push(p.v);
    waveforms.rectifierA.push(p.i);
  }
  return waveforms;
}
