import type { Network } from '@/core/circuit/network';
import { emptyMoments, integratorFor, SolveError } from './integrator';
import { emf, reservoirCircuit } from './reservoir-circuit';
import {
  assemble,
  capacitorEnergy,
  conductionTime,
  denseLoop,
  extremes,
  maximum,
  peakReverse,
  type Solution,
} from './solution';
import { ENERGY_TOLERANCE } from './steady';

/**
 * Switch-on from rest: the reservoir empty, the EMF starting at `switchOnPhaseDeg`, for `cycles` mains cycles.
 * Rail, winding and diode figures are those of the last cycle; `start` looks at the whole run.
 * @throws SolveError when the integration fails
 */
export function solveStart(network: Network, cycles: number, switchOnPhaseDeg: number): Solution {
  const circuit = reservoirCircuit(network);
  const integrator = integratorFor(circuit);
  const phi = (switchOnPhaseDeg * Math.PI) / 180;
  const end = cycles * circuit.periodS;
  const lastCycleFrom = end - circuit.periodS;

  const before = emptyMoments();
  const first = cycles > 1 ? integrator.run(0, 0, lastCycleFrom, phi, true, before) : { y: 0, steps: 0 };
  let peakDiodeA = 0;
  const earlier: { t: number[]; v: number[] } = { t: [], v: [] };
  if (cycles > 1) {
    const trace = integrator.trace();
    const dense = denseLoop(circuit, integrator, trace, phi);
    peakDiodeA = extremes(trace, dense, 0, trace.count - 1).peakA;
    earlier.t = Array.from(trace.t.subarray(0, trace.count));
    earlier.v = Array.from(trace.v.subarray(0, trace.count));
  }

  const moments = emptyMoments();
  const run = integrator.run(first.y, lastCycleFrom, end, phi, true, moments);
  const trace = integrator.trace();
  const dense = denseLoop(circuit, integrator, trace, phi);
  const last = trace.count - 1;
  const { minV, maxV } = extremes(trace, dense, 0, last);
  const peakOf = (sign: number) =>
    maximum(trace, dense, 0, last, (t, p) => (emf(circuit, t, phi) * sign >= 0 ? p.i : 0));
  const peaks: [number, number] = circuit.fullWave
    ? [peakOf(1), peakOf(-1)]
    : [maximum(trace, dense, 0, last, (_t, p) => p.i), 0];
  peakDiodeA = Math.max(peakDiodeA, ...peaks);
  const conduction = ([1, -1] as const).map((sign, p) =>
    !circuit.fullWave && p === 1
      ? 0
      : conductionTime(circuit, integrator, trace, dense, 0, last, phi, 0.01 * peaks[p]!, sign),
  ) as [number, number];
  const figures = assemble(
    network,
    circuit,
    moments,
    {
      minV,
      maxV,
      peakA: peaks,
      conductionS: conduction,
      // While the EMF is negative the diodes of the positive half idle, and the other way round.
      peakReverseV: circuit.fullWave
        ? [
            peakReverse(network, circuit, trace, dense, 0, last, phi, -1),
            peakReverse(network, circuit, trace, dense, 0, last, phi, 1),
          ]
        : [peakReverse(network, circuit, trace, dense, 0, last, phi), 0],
    },
    capacitorEnergy(circuit, run.y) - capacitorEnergy(circuit, first.y),
  );
  if (!(Math.abs(figures.energyBalance.relativeError) <= ENERGY_TOLERANCE) && figures.energyBalance.sourceW > 1e-6) {
    throw new SolveError(
      `the energy of the last cycle does not balance (${(100 * figures.energyBalance.relativeError).toFixed(3)} % off)`,
    );
  }

  const squared = [0, 1].map((p) => before.chargeSquared[p]! + moments.chargeSquared[p]!);
  const target = 0.9 * figures.rail.meanV;
  const times = [...earlier.t, ...Array.from(trace.t.subarray(0, trace.count))];
  const volts = [...earlier.v, ...Array.from(trace.v.subarray(0, trace.count))];
  const reached = volts.findIndex((v) => v >= target);
  let timeTo90PercentS: number | null = null;
  if (reached === 0) timeTo90PercentS = 0;
  else if (reached > 0) {
    const v0 = volts[reached - 1]!,
      v1 = volts[reached]!;
    timeTo90PercentS = times[reached - 1]! + ((target - v0) / (v1 - v0)) * (times[reached]! - times[reached - 1]!);
  }
  return {
    ...figures,
    start: {
      peakDiodeA,
      peakWindingA: peakDiodeA,
      i2tDiode: circuit.fullWave ? Math.max(...squared) : squared[0]!,
      timeTo90PercentS,
    },
    effort: { steps: first.steps + run.steps, passes: 1 },
    initialV: first.y,
  };
}
