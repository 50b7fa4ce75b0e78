import { assemble, type Circuit } from '@/core/circuit/assemble';
import { rectifies } from '@/core/circuit/port';
import type { Network } from '@/core/circuit/network';
import { solveLinear } from '@/core/solve/dense';
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
 * The plain way to a steady state, for comparison: modified nodal analysis with companion models, Newton's method with
 * limited junctions at every step, fixed-step trapezoidal integration from rest until the figures of two cycles in a row
 * agree to a ten-thousandth. In the same language, and apart from the solver: of that it uses the list of parts alone.
 * @throws SolveError when a step has no solution
 */
export function plainWay(
  network: Network,
  stepsPerCycle: number,
  mostCycles: number,
): PlainFigures & { cycles: number } {
  const circuit = assemble(network);
  const h = circuit.periodS / stepsPerCycle;
  const matrices = nodal(circuit, h);
  const out = circuit.rails[0]!.outputNode;
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
      const e = Math.sin(circuit.omega * (step + 1) * h);
      matrices.step(circuit.peakV * Math.min(Math.max(e, -circuit.clip), circuit.clip));
      const v = matrices.nodeV(out);
      const i = matrices.windingA(0);
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

/** Newton's method has to end within this many rounds. */
const MOST_ROUNDS = 100;

/** The circuit's equations at one step size: unknowns are node voltages, junction voltages and floating potentials. */
function nodal(circuit: Circuit, h: number) {
  const { nodes, ports, elements, windings, rails, inputs, floats } = circuit;
  const size = nodes + ports.length + floats;
  const z = new Float64Array(size);
  const matrix = new Float64Array(size * size);
  const residual = new Float64Array(size);
  /** Capacitor voltages and choke currents, and what drove them at the last step. */
  const state = new Float64Array(elements.length);
  const slope = new Float64Array(elements.length);
  const windingA = new Float64Array(windings.length);
  const windingSlope = new Float64Array(windings.length);
  const amps = new Float64Array(ports.length);
  const gain = new Float64Array(ports.length);
  const flow = new Float64Array(windings.length);

  /** Current of a junction and its derivative; Newton's own iterate is limited where the exponential would run away. */
  function junction(k: number, v: number): void {
    const port = ports[k]!;
    if (port.law === 'resistor') {
      amps[k] = v / port.ohm;
      gain[k] = 1 / port.ohm;
    } else if (port.law === 'open') {
      amps[k] = 1e-12 * v;
      gain[k] = 1e-12;
    } else if (port.law === 'valve') {
      const root = Math.sqrt(Math.max(0, v));
      amps[k] = port.perveance * root ** 3 + 1e-12 * v;
      gain[k] = 1.5 * port.perveance * root + 1e-12;
    } else {
      const x = Math.exp(Math.min(v / port.thetaV, 300));
      amps[k] = port.saturationA * (x - 1) + 1e-12 * v;
      gain[k] = (port.saturationA * x) / port.thetaV + 1e-12;
    }
  }

  function step(e: number): void {
    for (let round = 0; round < MOST_ROUNDS; round++) {
      matrix.fill(0);
      residual.fill(0);
      elements.forEach((element, n) => {
        const a = element.kind === 'capacitor' ? element.plus : element.from;
        const b = element.kind === 'capacitor' ? element.minus : element.to;
        const v = z[a]! - (b >= 0 ? z[b]! : 0);
        let g: number;
        let i: number;
        if (element.kind === 'resistor') {
          g = 1 / element.ohm;
          i = g * v;
        } else if (element.kind === 'capacitor') {
          g = 1 / (element.esrOhm + h / (2 * element.capacitanceF));
          i = g * (v - state[n]! - (h / 2) * slope[n]!);
        } else {
          const ahead = state[n]! + (h / 2) * slope[n]!;
          g = 1 / (element.ohm + (2 * element.inductanceH) / h);
          i = g * (v + ((2 * element.inductanceH) / h) * ahead);
        }
        residual[a]! += i;
        matrix[a * size + a]! += g;
        if (b < 0) return;
        residual[b]! -= i;
        matrix[b * size + b]! += g;
        matrix[a * size + b]! -= g;
        matrix[b * size + a]! -= g;
      });
      for (const rail of rails) {
        const at = rail.outputNode;
        const v = z[at]!;
        const dv = 1e-6 * (Math.abs(v) + 1e-3);
        const i = rail.load.current(v, Infinity);
        residual[at]! += i;
        matrix[at * size + at]! += (rail.load.current(v + dv, Infinity) - i) / dv;
      }
      flow.fill(0);
      ports.forEach((port, k) => {
        junction(k, z[nodes + k]!);
        flow[port.winding]! += port.share * amps[k]!;
      });
      let primary = 0;
      windings.forEach((winding, w) => (primary += winding.ratio * flow[w]!));
      ports.forEach((port, k) => {
        const row = nodes + k;
        const winding = windings[port.winding]!;
        const reach = winding.ownOhm + (2 * winding.inductanceH) / h;
        const history = winding.inductanceH * ((2 / h) * windingA[port.winding]! + windingSlope[port.winding]!);
        for (const { input, sign } of port.into) {
          const { plus, minus } = inputs[input]!;
          for (const [node, s] of [
            [plus, sign],
            [minus, -sign],
          ] as const) {
            if (node < 0) continue;
            residual[node]! -= s * amps[k]!;
            matrix[node * size + row]! -= s * gain[k]!;
            matrix[row * size + node]! -= s;
            residual[row]! -= s * z[node]!;
          }
        }
        if (port.floating >= 0) {
          const f = nodes + ports.length + port.floating;
          residual[row]! += port.floatSign * z[f]!;
          matrix[row * size + f]! += port.floatSign;
          residual[f]! += port.floatSign * amps[k]!;
          matrix[f * size + row]! += port.floatSign * gain[k]!;
        }
        residual[row]! +=
          port.share * (winding.ratio * (e - circuit.sharedOhm * primary) - reach * flow[port.winding]! + history);
        for (let j = 0; j < ports.length; j++) {
          const other = ports[j]!;
          let ohm = winding.ratio * circuit.sharedOhm * windings[other.winding]!.ratio * other.share;
          if (other.winding === port.winding) ohm += reach * other.share;
          matrix[row * size + nodes + j]! -= port.share * ohm * gain[j]!;
        }
        // A resistor's own drop is its unknown; a diode has its series resistance besides.
        const series = rectifies(port) ? port.ohm : 0;
        residual[row]! -= z[row]! + series * amps[k]!;
        matrix[row * size + row]! -= 1 + series * gain[k]!;
      });
      for (let f = nodes + ports.length; f < size; f++) matrix[f * size + f]! += 1e-12;
      if (!solveLinear(matrix, size, residual)) throw new SolveError('the plain way found no voltages that fit');
      let moved = 0;
      for (let k = 0; k < size; k++) {
        let change = -residual[k]!;
        const port = k >= nodes && k < nodes + ports.length ? ports[k - nodes]! : undefined;
        if (port?.law === 'diode' && change > 2 * port.thetaV && z[k]! + change > 20 * port.thetaV) {
          const from = Math.max(z[k]!, 20 * port.thetaV);
          change = from - z[k]! + port.thetaV * Math.log1p(Math.max(0, z[k]! + change - from) / port.thetaV);
        }
        z[k]! += change;
        moved = Math.max(moved, Math.abs(change) / (1e-3 + Math.abs(z[k]!)));
      }
      if (moved < 1e-7) return remember();
    }
    throw new SolveError('the plain way found no voltages that fit');
  }

  /** Takes the step as done. */
  function remember(): void {
    elements.forEach((element, n) => {
      const a = element.kind === 'capacitor' ? element.plus : element.from;
      const b = element.kind === 'capacitor' ? element.minus : element.to;
      const v = z[a]! - (b >= 0 ? z[b]! : 0);
      if (element.kind === 'capacitor') {
        const i = (v - state[n]! - (h / 2) * slope[n]!) / (element.esrOhm + h / (2 * element.capacitanceF));
        state[n]! += (h / 2) * (slope[n]! + i / element.capacitanceF);
        slope[n] = i / element.capacitanceF;
      } else if (element.kind === 'inductor') {
        const ahead = state[n]! + (h / 2) * slope[n]!;
        const i = (v + ((2 * element.inductanceH) / h) * ahead) / (element.ohm + (2 * element.inductanceH) / h);
        slope[n] = (2 / h) * (i - state[n]!) - slope[n]!;
        state[n] = i;
      }
    });
    windings.forEach((_, w) => {
      let i = 0;
      ports.forEach((port, k) => port.winding === w && (junction(k, z[nodes + k]!), (i += port.share * amps[k]!)));
      windingSlope[w] = (2 / h) * (i - windingA[w]!) - windingSlope[w]!;
      windingA[w] = i;
    });
  }

  return { step, nodeV: (n: number) => z[n]!, windingA: (w: number) => windingA[w]! };
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
