import { assemble } from '@/core/circuit/assemble';
import type { Network } from '@/core/circuit/network';
import { stageSolver } from '@/core/solve/stage';
import { SolveError } from '@/core/solve/solve-error';

/** What the plain way is judged by: the figures of the first rail and winding that a design is judged by. */
export interface PlainFigures {
  meanV: number;
  minV: number;
  ripplePeakToPeakV: number;
  windingRmsA: number;
  windingPeakA: number;
}

/**
 * The plain way to a steady state, for comparison: fixed-step trapezoidal integration from rest until the figures of two
 * cycles in a row agree to a ten-thousandth, in the same language and on the same circuit equations.
 * @throws SolveError when a step has no solution
 */
export function plainWay(
  network: Network,
  stepsPerCycle: number,
  mostCycles: number,
): PlainFigures & { cycles: number } {
  const circuit = assemble(network);
  const stage = stageSolver(circuit);
  const n = circuit.states;
  const h = circuit.periodS / stepsPerCycle;
  const x = new Float64Array(n);
  const k = new Float64Array(n);
  const out = circuit.rails[0]!.outputNode;
  const own = circuit.ports.flatMap((p, m) => (p.winding === 0 ? [m] : []));
  let last: PlainFigures = {
    meanV: NaN,
    minV: NaN,
    ripplePeakToPeakV: NaN,
    windingRmsA: NaN,
    windingPeakA: NaN,
  };
  for (let cycle = 1; ; cycle++) {
    let sum = 0;
    let squares = 0;
    let peak = 0;
    let low = Infinity;
    let high = -Infinity;
    for (let step = 0; step < stepsPerCycle; step++) {
      stage.setStep(0, h / 2);
      for (let s = 0; s < n; s++) stage.base[s] = x[s]! + (h / 2) * k[s]!;
      const e = Math.sin(circuit.omega * (step + 1) * h);
      const level = circuit.peakV * Math.min(Math.max(e, -circuit.clip), circuit.clip);
      if (!stage.solve(level, Infinity)) throw new SolveError('the plain way found no voltages that fit');
      for (let s = 0; s < n; s++) {
        k[s] = (stage.x[s]! - stage.base[s]!) / (h / 2);
        x[s] = stage.x[s]!;
      }
      stage.spell();
      const v = stage.node[out]!;
      let i = 0;
      for (const m of own) i += circuit.ports[m]!.share * stage.portA[m]!;
      sum += v;
      squares += i * i;
      peak = Math.max(peak, Math.abs(i));
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    const found = {
      meanV: sum / stepsPerCycle,
      minV: low,
      ripplePeakToPeakV: high - low,
      windingRmsA: Math.sqrt(squares / stepsPerCycle),
      windingPeakA: peak,
    };
    if (apart(found, last) < 1e-4 || cycle === mostCycles) return { ...found, cycles: cycle };
    last = found;
  }
}

/** Largest relative difference of two sets of figures. */
function apart(a: PlainFigures, b: PlainFigures): number {
  const keys = ['meanV', 'minV', 'ripplePeakToPeakV', 'windingRmsA', 'windingPeakA'] as const;
  return Math.max(...keys.map((key) => Math.abs(a[key] / b[key] - 1) || (a[key] === b[key] ? 0 : Infinity)));
}

/**
 * The plain way with a step as large as half a per cent of error allows.
 * @returns milliseconds, null when no step up to 1/25600 of a cycle gets there
 */
export function timePlainWay(
  network: Network,
  truth: PlainFigures,
): { ms: number; stepsPerCycle: number; cycles: number } | null {
  for (let stepsPerCycle = 100; stepsPerCycle <= 25_600; stepsPerCycle *= 2) {
    let found;
    try {
      found = plainWay(network, stepsPerCycle, 600);
    } catch (error) {
      if (!(error instanceof SolveError)) throw error;
      continue;
    }
    if (!(apart(found, truth) <= 5e-3)) continue;
    const times: number[] = [];
    for (let n = 0; n < 3; n++) {
      const start = performance.now();
      plainWay(network, stepsPerCycle, 600);
      times.push(performance.now() - start);
    }
    return { ms: times.sort((a, b) => a - b)[1]!, stepsPerCycle, cycles: found.cycles };
  }
  return null;
}
