import type { Network } from '@/core/circuit/network';
import type { Integrator, Moments, Trace } from './integrator';
import { loadCurrent, regulatorOutput } from './load-law';
import { emf, type ReservoirCircuit } from './reservoir-circuit';

export interface RailResult {
  meanV: number;
  minV: number;
  maxV: number;
  ripplePeakToPeakV: number;
  rippleRmsV: number;
  inputMeanV: number;
  inputMinV: number;
  inputMaxV: number;
  inputRipplePeakToPeakV: number;
  loadMeanA: number;
  loadPowerW: number;
  outputMinV?: number;
  outputMaxV?: number;
}

export interface WindingResult {
  rmsA: number;
  meanA: number;
  peakA: number;
  voltAmpere: number;
  copperLossW: number;
}

export interface DiodeResult {
  meanA: number;
  rmsA: number;
  peakA: number;
  peakReverseV: number;
  meanW: number;
  conductionDeg: number;
}

export interface ElementResult {
  kind: 'capacitor';
  rmsA: number;
  meanA: number;
  peakToPeakV: number;
}

export interface EnergyBalance {
  sourceW: number;
  loadW: number;
  copperW: number;
  sharedW?: number;
  diodeW: number;
  filterW: number;
  storedW: number;
  relativeError: number;
}

export interface StartResult {
  peakDiodeA: number;
  peakWindingA: number;
  i2tDiode: number;
  timeTo90PercentS: number | null;
}

/** Uniform samples from the beginning of the recorded time, its end left out. V, A, s. */
export interface Waveforms {
  t: number[];
  sourceV: number[];
  railV: number[];
  /** Current through the rectifier into reservoir and load. */
  rectifierA: number[];
}

export interface Solution {
  id?: string;
  source: { rms: number; sharedLossW?: number };
  rail: RailResult;
  windings: WindingResult[];
  diodes: DiodeResult[];
  elements: ElementResult[];
  start?: StartResult;
  waveforms?: Waveforms;
  energyBalance: EnergyBalance;
  /** Cost of the answer: integration steps and passes over the cycle. */
  effort: { steps: number; passes: number };
  /** Reservoir voltage at t = 0 of the periodic cycle, V: a warm start for a similar circuit. */
  initialV: number;
}

/** RMS of the EMF after clipping at (1-k) of its peak. */
export function clippedRms(peakV: number, clipV: number): number {
  const level = clipV / peakV;
  if (!(level < 1)) return peakV / Math.SQRT2;
  const a = Math.asin(level);
  return peakV * Math.sqrt((2 / Math.PI) * (a / 2 - Math.sin(2 * a) / 4 + (Math.PI / 2 - a) * level * level));
}

/** The continuous solution between accepted steps: cubic Hermite in the state, the loop solved exactly at each instant. */
export function denseLoop(circuit: ReservoirCircuit, integrator: Integrator, trace: Trace, phi: number) {
  function state(n: number, t: number): number {
    const h = trace.t[n + 1]! - trace.t[n]!;
    const s = h > 0 ? (t - trace.t[n]!) / h : 0;
    const y0 = trace.y[n]!,
      y1 = trace.y[n + 1]!;
    const f0 = trace.dydt[n]! * h,
      f1 = trace.dydt[n + 1]! * h;
    const s2 = s * s,
      s3 = s2 * s;
    return y0 * (2 * s3 - 3 * s2 + 1) + f0 * (s3 - 2 * s2 + s) + y1 * (3 * s2 - 2 * s3) + f1 * (s3 - s2);
  }
  function at(n: number, t: number) {
    return integrator.solveLoop(integrator.drive(t, phi), state(n, t), circuit.esrOhm);
  }
  return { state, at };
}

type Pick = (t: number, p: { i: number; v: number }) => number;

/** Largest value of a quantity of the continuous solution over trace entries first..last: coarse over the steps, then golden section. */
export function maximum(
  trace: Trace,
  dense: ReturnType<typeof denseLoop>,
  first: number,
  last: number,
  pick: Pick,
): number {
  let best = -Infinity;
  let at = first;
  for (let n = first; n <= last; n++) {
    const value = pick(trace.t[n]!, { i: trace.i[n]!, v: trace.v[n]! });
    if (value > best) {
      best = value;
      at = n;
    }
  }
  const ratio = 0.6180339887498949;
  for (const k of [at - 1, at]) {
    if (k < first || k >= last || trace.t[k + 1]! <= trace.t[k]!) continue;
    let a = trace.t[k]!,
      b = trace.t[k + 1]!;
    let c = b - ratio * (b - a),
      d = a + ratio * (b - a);
    let fc = pick(c, dense.at(k, c)),
      fd = pick(d, dense.at(k, d));
    for (let n = 0; n < 14; n++) {
      if (fc > fd) {
        b = d;
        d = c;
        fd = fc;
        c = b - ratio * (b - a);
        fc = pick(c, dense.at(k, c));
      } else {
        a = c;
        c = d;
        fc = fd;
        d = a + ratio * (b - a);
        fd = pick(d, dense.at(k, d));
      }
    }
    best = Math.max(best, fc, fd);
  }
  return best;
}

/** Extremes of the continuous rail voltage and rectifier current over trace entries first..last. */
export function extremes(trace: Trace, dense: ReturnType<typeof denseLoop>, first: number, last: number) {
  return {
    minV: -maximum(trace, dense, first, last, (_t, p) => -p.v),
    maxV: maximum(trace, dense, first, last, (_t, p) => p.v),
    peakA: maximum(trace, dense, first, last, (_t, p) => p.i),
  };
}

/**
 * Time during which the current of one polarity exceeds `thresholdA`. Crossings are found on the smooth drive
 * voltage rather than on the current, whose knee at turn-on is too sharp to interpolate.
 */
export function conductionTime(
  circuit: ReservoirCircuit,
  integrator: Integrator,
  trace: Trace,
  dense: ReturnType<typeof denseLoop>,
  first: number,
  last: number,
  phi: number,
  thresholdA: number,
  sign: number,
): number {
  const neededV = circuit.loopOhm * thresholdA + circuit.thetaV * Math.log(1 + thresholdA / circuit.saturationA);
  const surplus = (n: number, t: number) => {
    const y = dense.state(n, t);
    const v = y + circuit.esrOhm * (thresholdA - loadCurrent(circuit.load, y));
    return integrator.drive(t, phi) - v - neededV;
  };
  let total = 0;
  for (let n = first; n < last; n++) {
    let t0 = trace.t[n]!,
      t1 = trace.t[n + 1]!;
    if (t1 <= t0 || (circuit.fullWave && trace.sign[n + 1] !== sign)) continue;
    let s0 = surplus(n, t0);
    const s1 = surplus(n, t1);
    if (s0 > 0 && s1 > 0) total += t1 - t0;
    else if (s0 > 0 !== s1 > 0) {
      const rising = s1 > 0;
      const start = t0,
        end = t1;
      for (let k = 0; k < 30; k++) {
        const middle = (t0 + t1) / 2;
        const s = surplus(n, middle);
        if (s > 0 === s0 > 0) {
          t0 = middle;
          s0 = s;
        } else t1 = middle;
      }
      total += rising ? end - t1 : t1 - start;
    }
  }
  return total;
}

/** What the continuous cycle showed, per polarity where the halves take turns. */
export interface CycleShape {
  minV: number;
  maxV: number;
  peakA: [number, number];
  conductionS: [number, number];
  peakReverseV: [number, number];
}

/** Turns moments and shape of one full cycle into the figures of every winding, diode and capacitor. */
export function assemble(
  network: Network,
  circuit: ReservoirCircuit,
  moments: Moments,
  shape: CycleShape,
  storedJ: number,
): Omit<Solution, 'effort' | 'initialV'> {
  const T = moments.durationS;
  const { source, rectifier, rail } = network;
  const rms = clippedRms(circuit.peakV, circuit.clipV);
  const meanV = moments.railVs / T;
  const rippleRmsV = Math.sqrt(Math.max(0, moments.railV2s / T - meanV * meanV));
  const regulator = rail.load.find((l) => l.kind === 'regulator');
  const [qp, qn] = moments.chargeC;
  const [ap, an] = moments.chargeSquared;

  const winding = (meanA: number, square: number, peakA: number): WindingResult => {
    const rmsA = Math.sqrt(square / T);
    return { rmsA, meanA, peakA, voltAmpere: rms * rmsA, copperLossW: source.resistanceOhm * rmsA * rmsA };
  };
  const diode = (p: 0 | 1): DiodeResult => ({
    meanA: moments.chargeC[p] / T,
    rmsA: Math.sqrt(moments.chargeSquared[p] / T),
    peakA: shape.peakA[p],
    peakReverseV: shape.peakReverseV[p],
    meanW: moments.diodeJ[p] / T,
    conductionDeg: (360 * shape.conductionS[p]) / circuit.periodS,
  });

  let windings: WindingResult[];
  let diodes: DiodeResult[];
  if (rectifier.kind === 'half-wave') {
    windings = [winding(qp / T, ap, shape.peakA[0])];
    diodes = [diode(0)];
  } else if (rectifier.kind === 'centre-tap') {
    windings = [winding(qp / T, ap, shape.peakA[0]), winding(qn / T, an, shape.peakA[1])];
    diodes = [diode(0), diode(1)];
  } else {
    windings = [winding((qp - qn) / T, ap + an, Math.max(...shape.peakA))];
    diodes = [diode(0), diode(0), diode(1), diode(1)];
  }

  const copperW = windings.reduce((sum, w) => sum + w.copperLossW, 0);
  const sharedW = (circuit.sharedOhm * (ap + an)) / T;
  const diodeW = diodes.reduce((sum, d) => sum + d.meanW, 0);
  const loadW = moments.loadJ / T;
  const sourceW = moments.sourceJ / T;
  const filterW = (circuit.esrOhm * moments.capacitorA2s) / T;
  const storedW = storedJ / T;
  const scale = Math.max(Math.abs(sourceW), Math.abs(loadW), 1e-12);
  const capacitorRmsA = Math.sqrt(moments.capacitorA2s / T);

  return {
    ...(network.id === undefined ? {} : { id: network.id }),
    source: { rms, ...(circuit.sharedOhm > 0 ? { sharedLossW: sharedW } : {}) },
    rail: {
      meanV,
      minV: shape.minV,
      maxV: shape.maxV,
      ripplePeakToPeakV: shape.maxV - shape.minV,
      rippleRmsV,
      inputMeanV: meanV,
      inputMinV: shape.minV,
      inputMaxV: shape.maxV,
      inputRipplePeakToPeakV: shape.maxV - shape.minV,
      loadMeanA: moments.loadC / T,
      loadPowerW: loadW,
      ...(regulator
        ? { outputMinV: regulatorOutput(regulator, shape.minV), outputMaxV: regulatorOutput(regulator, shape.maxV) }
        : {}),
    },
    windings,
    diodes,
    elements: rail.filter.map(() => ({
      kind: 'capacitor' as const,
      rmsA: capacitorRmsA,
      meanA: (qp + qn - moments.loadC) / T,
      peakToPeakV: shape.maxV - shape.minV,
    })),
    energyBalance: {
      sourceW,
      loadW,
      copperW,
      ...(circuit.sharedOhm > 0 ? { sharedW } : {}),
      diodeW,
      filterW,
      storedW,
      relativeError: (sourceW - loadW - copperW - sharedW - diodeW - filterW - storedW) / scale,
    },
  };
}

/**
 * Largest cathode-to-anode voltage of the diodes that idle while the EMF has polarity `sign`.
 * Half-wave: the reservoir against the winding. Centre tap: against the other half, which the shared resistance pulls
 * down. Bridge: an idle diode stands between the rail and the winding end one conducting diode below ground.
 */
export function peakReverse(
  network: Network,
  circuit: ReservoirCircuit,
  trace: Trace,
  dense: ReturnType<typeof denseLoop>,
  first: number,
  last: number,
  phi: number,
  sign = 0,
): number {
  const kind = network.rectifier.kind;
  const across: Pick = (t, { i, v }) => {
    const e = emf(circuit, t, phi);
    if (sign !== 0 && e * sign < 0) return 0;
    if (kind === 'half-wave') return v - e + circuit.windingOhm * i;
    if (kind === 'centre-tap') return v + Math.abs(e) - circuit.sharedOhm * i;
    return v + (Math.abs(e) - circuit.windingOhm * i - v) / 2;
  };
  return Math.max(0, maximum(trace, dense, first, last, across));
}

export function capacitorEnergy(circuit: ReservoirCircuit, y: number): number {
  return 0.5 * circuit.capacitanceF * y * y;
}
