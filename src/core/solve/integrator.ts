import * as esdirk from './esdirk';
import { emf, loopSolver, type ReservoirCircuit } from './reservoir-circuit';
import { loadCurrent } from './load-law';

/** Integrals over a stretch of time, per polarity of the EMF where the two halves of a rectifier take turns. */
export interface Moments {
  durationS: number;
  /** Integral of i, i^2, and (drop of one diode)*i, [EMF positive, EMF negative]. */
  chargeC: [number, number];
  chargeSquared: [number, number];
  diodeJ: [number, number];
  railVs: number;
  railV2s: number;
  loadC: number;
  loadJ: number;
  capacitorA2s: number;
  sourceJ: number;
}

/** One accepted step's end. `sign` is the polarity of the EMF in the step that ends here. */
export interface Trace {
  count: number;
  t: Float64Array;
  y: Float64Array;
  dydt: Float64Array;
  i: Float64Array;
  v: Float64Array;
  sign: Int8Array;
}

export class SolveError extends Error {
  override readonly name = 'SolveError';
}

const MOST_STEPS = 60_000;

/** A flat copy of the method's coefficients: module bindings and nested arrays cost more than the arithmetic. */
const TABLEAU = {
  STAGES: esdirk.STAGES,
  GAMMA: esdirk.GAMMA,
  A: Float64Array.from(
    Array.from(
      { length: esdirk.STAGES * esdirk.STAGES },
      (_, n) => esdirk.A[Math.floor(n / esdirk.STAGES)]![n % esdirk.STAGES] ?? 0,
    ),
  ),
  B: Float64Array.from(esdirk.B),
  C: Float64Array.from(esdirk.C),
  D: Float64Array.from(esdirk.D),
};

export function emptyMoments(): Moments {
  return {
    durationS: 0,
    chargeC: [0, 0],
    chargeSquared: [0, 0],
    diodeJ: [0, 0],
    railVs: 0,
    railV2s: 0,
    loadC: 0,
    loadJ: 0,
    capacitorA2s: 0,
    sourceJ: 0,
  };
}

/** Relative to the ripple one expects: keeps every reported figure within about 0.01 %. */
export const TIGHT = 3e-6;
/** Good enough to aim the next pass of a search. */
export const LOOSE = 3e-4;

/** Integrates a reservoir circuit. Reusable: one integrator serves all passes over one circuit. */
export function integratorFor(circuit: ReservoirCircuit) {
  const solveLoop = loopSolver(circuit);
  const { STAGES, GAMMA, A, B, C, D } = TABLEAU;
  const { capacitanceF, esrOhm, periodS, fullWave, windingOhm, diodesInPath } = circuit;
  const k = new Float64Array(STAGES);
  const iAt = new Float64Array(STAGES);
  const vAt = new Float64Array(STAGES);
  const loadAt = new Float64Array(STAGES);
  const driveAt = new Float64Array(STAGES);

  const typicalA = Math.max(loadCurrent(circuit.load, 0.9 * circuit.peakV), 1e-6);
  const expectedRipple = (typicalA / (capacitanceF * (fullWave ? 2 : 1))) * periodS;
  // An idling supply ripples by microvolts; nothing is gained by resolving them finer than a thousandth of the peak would ask.
  const scaleV = Math.min(
    Math.max(Math.min(expectedRipple, 20 * circuit.loopOhm * typicalA), 1e-3 * expectedRipple, 1e-3 * circuit.peakV),
    0.2 * circuit.peakV,
  );
  let toleranceV = 0;
  let toleranceI2 = 0;
  setTolerance(TIGHT);

  let trace = newTrace(160);

  function setTolerance(tolerance: number) {
    toleranceV = Math.max(tolerance * scaleV, 1e-12 * circuit.peakV);
    toleranceI2 = tolerance * 3 * typicalA * typicalA * periodS;
  }

  function drive(t: number, phi: number): number {
    const e = emf(circuit, t, phi);
    return fullWave ? Math.abs(e) : e;
  }

  /**
   * Times in (from, to) no step may straddle: the drive's corners (zero crossings, the clip's edges), and its crest,
   * which always lies within the charging pulse, so that not even the shortest pulse falls between two steps.
   */
  function stops(from: number, to: number, phi: number): number[] {
    const half = periodS / 2;
    const lead = phi / circuit.omega;
    const edge = circuit.clipV < circuit.peakV ? Math.asin(circuit.clipV / circuit.peakV) / circuit.omega : half;
    const found: number[] = [];
    for (let n = Math.floor((from + lead) / half) - 1; n * half - lead <= to; n++) {
      for (const offset of edge < half ? [0, edge, half - edge] : [0, half / 2]) {
        const t = n * half - lead + offset;
        if (t > from + 1e-9 * periodS && t < to - 1e-9 * periodS) found.push(t);
      }
    }
    found.push(to);
    return found;
  }

  /**
   * Runs from `from` to `to` seconds, starting at `y0` volts in the capacitor.
   * @param moments filled from `measureFrom` on when given
   * @param record whether to keep the trace (starting afresh)
   * @returns voltage at the end, and how it moves with y0
   * @throws SolveError when the step size collapses or the step count runs away
   */
  function run(
    y0: number,
    from: number,
    to: number,
    phi: number,
    record: boolean,
    moments?: Moments,
    measureFrom = -Infinity,
  ) {
    let y = y0;
    let t = from;
    let logSensitivity = 0;
    let h = periodS / 200;
    let steps = 0;
    if (record) trace.count = 0;

    for (const stop of stops(from, to, phi)) {
      const middle = (t + stop) / 2;
      const sign = Math.sin(circuit.omega * middle + phi) >= 0 ? 1 : -1;
      const polarity = sign > 0 || !fullWave ? 0 : 1;
      const longest = Math.max((stop - t) / 5, periodS / 400);
      let first = solveLoop(drive(t, phi), y, esrOhm);
      if (record) push(t, y, (first.i - first.loadA) / capacitanceF, first.i, first.v, sign);
      let rate = slopeOfRate(first.i, first.loadS);
      let i0 = first.i,
        v0 = first.v,
        load0 = first.loadA;

      while (t < stop) {
        if (++steps > MOST_STEPS) throw new SolveError('the integration needs more steps than any real supply would');
        h = Math.min(h, longest);
        if (t + h * 1.0001 >= stop) h = stop - t;
        else if (t + 2 * h > stop) h = (stop - t) / 2;
        const z = (GAMMA * h) / capacitanceF + esrOhm;
        k[0] = (i0 - load0) / capacitanceF;
        iAt[0] = i0;
        vAt[0] = v0;
        loadAt[0] = load0;
        driveAt[0] = drive(t, phi);
        let yEnd = y;
        for (let s = 1; s < STAGES; s++) {
          const row = s * STAGES;
          let sum = 0;
          for (let j = 0; j < s; j++) sum += A[row + j]! * k[j]!;
          const base = y + h * sum;
          const d = drive(t + C[s]! * h, phi);
          const p = solveLoop(d, base, z);
          const ic = p.i - p.loadA;
          k[s] = ic / capacitanceF;
          iAt[s] = p.i;
          vAt[s] = p.v;
          loadAt[s] = p.loadA;
          driveAt[s] = d;
          yEnd = base + GAMMA * h * k[s]!;
        }
        let errorV = 0;
        let errorI2 = 0;
        for (let s = 0; s < STAGES; s++) {
          errorV += D[s]! * k[s]!;
          errorI2 += D[s]! * iAt[s]! * iAt[s]!;
        }
        const error = Math.max(Math.abs(h * errorV) / toleranceV, Math.abs(h * errorI2) / toleranceI2);
        if (!Number.isFinite(yEnd)) throw new SolveError('the integration left the range of numbers');
        if (error > 1 && h > 1e-9 * periodS) {
          h *= Math.max(0.15, 0.9 * error ** -0.25);
          continue;
        }

        if (moments && t >= measureFrom - 1e-9 * periodS) {
          moments.durationS += h;
          for (let s = 0; s < STAGES; s++) {
            const w = h * B[s]!;
            if (w === 0) continue;
            const i = iAt[s]!;
            const v = vAt[s]!;
            const ic = i - loadAt[s]!;
            moments.chargeC[polarity] += w * i;
            moments.chargeSquared[polarity] += w * i * i;
            moments.diodeJ[polarity] += (w * i * (driveAt[s]! - v - windingOhm * i)) / diodesInPath;
            moments.railVs += w * v;
            moments.railV2s += w * v * v;
            moments.loadC += w * loadAt[s]!;
            moments.loadJ += w * v * loadAt[s]!;
            moments.capacitorA2s += w * ic * ic;
            moments.sourceJ += w * i * driveAt[s]!;
          }
        }

        const rateBefore = rate;
        t = h === stop - t ? stop : t + h;
        y = yEnd;
        first = solveLoop(drive(t, phi), y, esrOhm);
        i0 = first.i;
        v0 = first.v;
        load0 = first.loadA;
        rate = slopeOfRate(i0, first.loadS);
        logSensitivity += (h * (rateBefore + rate)) / 2;
        if (record) push(t, y, (i0 - load0) / capacitanceF, i0, v0, sign);
        h *= Math.min(3, Math.max(0.2, 0.9 * Math.max(error, 1e-6) ** -0.25));
      }
    }
    return { y, sensitivity: Math.exp(Math.max(-60, logSensitivity)), steps };
  }

  /** d(dy/dt)/dy at a point of the loop, 1/s: how fast a disturbance of the reservoir dies out. */
  function slopeOfRate(i: number, loadS: number): number {
    const gv = 1 / (1 + esrOhm * loadS);
    const didy = -gv / (circuit.loopOhm + circuit.thetaV / Math.max(i + circuit.saturationA, 1e-300) + gv * esrOhm);
    const dvdy = gv * (1 + esrOhm * didy);
    return (didy - loadS * dvdy) / capacitanceF;
  }

  function push(t: number, y: number, dydt: number, i: number, v: number, sign: number) {
    if (trace.count === trace.t.length) trace = grow(trace);
    const n = trace.count++;
    trace.t[n] = t;
    trace.y[n] = y;
    trace.dydt[n] = dydt;
    trace.i[n] = i;
    trace.v[n] = v;
    trace.sign[n] = sign;
  }

  return {
    run,
    drive,
    solveLoop,
    setTolerance,
    expectedRipple,
    trace: () => trace,
  };
}

export type Integrator = ReturnType<typeof integratorFor>;

function newTrace(size: number): Trace {
  return {
    count: 0,
    t: new Float64Array(size),
    y: new Float64Array(size),
    dydt: new Float64Array(size),
    i: new Float64Array(size),
    v: new Float64Array(size),
    sign: new Int8Array(size),
  };
}

function grow(old: Trace): Trace {
  const bigger = newTrace(old.t.length * 2);
  bigger.count = old.count;
  bigger.t.set(old.t);
  bigger.y.set(old.y);
  bigger.dydt.set(old.dydt);
  bigger.i.set(old.i);
  bigger.v.set(old.v);
  bigger.sign.set(old.sign);
  return bigger;
}
