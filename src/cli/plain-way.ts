import { assemble } from '@/core/circuit/assemble';
import type { Network } from '@/core/circuit/network';
import { stageSolver } from '@/core/solve/stage';
import { SolveError } from '@/core/solve/solve-error';

/**
 * The plain way to a steady state, for comparison: fixed-step trapezoidal integration from rest until the mean output of
 * two cycles in a row agrees to a ten-thousandth, in the same language and on the same circuit equations.
 * @returns mean output of the last cycle, V, and the cycles it took
 */
export function plainWay(
  network: Network,
  stepsPerCycle: number,
  mostCycles: number,
): { meanV: number; cycles: number } {
  const circuit = assemble(network);
  const stage = stageSolver(circuit);
  const n = circuit.states;
  const h = circuit.periodS / stepsPerCycle;
  const x = new Float64Array(n);
  const k = new Float64Array(n);
  const out = circuit.rails[0]!.outputNode;
  // One backward step of almost nothing gives the derivatives the trapezoid starts from.
  let last = NaN;
  for (let cycle = 1; cycle <= mostCycles; cycle++) {
    let sum = 0;
    for (let step = 0; step < stepsPerCycle; step++) {
      const t = (step + 1) * h;
      stage.setStep(0, h / 2);
      for (let s = 0; s < n; s++) stage.base[s] = x[s]! + (h / 2) * k[s]!;
      const e = Math.sin(circuit.omega * t);
      const level = circuit.peakV * Math.min(Math.max(e, -circuit.clip), circuit.clip);
      if (!stage.solve(level, Infinity)) throw new SolveError('the plain way found no voltages that fit');
      for (let s = 0; s < n; s++) {
        k[s] = (stage.x[s]! - stage.base[s]!) / (h / 2);
        x[s] = stage.x[s]!;
      }
      stage.spell();
      sum += stage.node[out]!;
    }
    const meanV = sum / stepsPerCycle;
    if (Math.abs(meanV - last) < 1e-4 * Math.abs(meanV)) return { meanV, cycles: cycle };
    last = meanV;
  }
  return { meanV: last, cycles: mostCycles };
}

/**
 * The plain way with a step as large as half a per cent of error in the mean output allows.
 * @returns milliseconds, null when no step up to 1/20000 of a cycle gets there
 */
export function timePlainWay(
  network: Network,
  trueMeanV: number,
): { ms: number; stepsPerCycle: number; cycles: number } | null {
  for (let stepsPerCycle = 100; stepsPerCycle <= 12_800; stepsPerCycle *= 2) {
    let found;
    try {
      found = plainWay(network, stepsPerCycle, 4000);
    } catch (error) {
      if (!(error instanceof SolveError)) throw error;
      continue;
    }
    if (Math.abs(found.meanV / trueMeanV - 1) > 5e-3) continue;
    const times: number[] = [];
    for (let n = 0; n < 5; n++) {
      const start = performance.now();
      plainWay(network, stepsPerCycle, 4000);
      times.push(performance.now() - start);
    }
    return { ms: times.sort((a, b) => a - b)[2]!, stepsPerCycle, cycles: found.cycles };
  }
  return null;
}
