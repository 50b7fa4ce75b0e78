import type { Circuit } from '@/core/circuit/assemble';
import * as esdirk from './esdirk';
import { SolveError } from './solve-error';
import { LEVELS, stageSolver } from './stage';

/** A flat copy of the method's coefficients: module bindings and nested arrays cost more than the arithmetic. */
const { STAGES, GAMMA } = esdirk;
const A = Float64Array.from(
  Array.from({ length: STAGES * STAGES }, (_, n) => esdirk.A[Math.floor(n / STAGES)]![n % STAGES] ?? 0),
);
const B = Float64Array.from(esdirk.B);
const C = Float64Array.from(esdirk.C);
const D = Float64Array.from(esdirk.D);
/** Stages in the order of their instants. */
const IN_TIME = [0, 2, 1, 3, 4, 5];

/** Steps in one run before it counts as hopeless. */
const MOST_STEPS = 6_000;
/** Longest one run (a cycle at most) may take, ms: what needs more is no supply but a puzzle. */
const MOST_MS = 350;
/** The longest step, as a share of the period. */
const LONGEST = 1 / 16;
/** Where a derivative is needed afresh, the stage that yields it is this short, as a share of the period. */
const INSTANT = 1e-7;
/** No step is made shorter than this share of the period for the sake of accuracy. */
const SHORTEST = 1e-8;

/** A current through an inductance has ceased when it is below this share of the load's. */
const CEASED = 1e-6;

/** Relative to the swing of each state: keeps every reported figure within about 0.01 %. */
export const TIGHT = 4e-6;
/** Good enough to aim the next pass of a search. */
export const LOOSE = 2e-4;

/** The mains as the windings see it. */
export interface Mains {
  /** Phase of the sine at t = 0, rad. */
  phase: number;
  /** 1, or 0 while the mains is missing. */
  factor: number;
}

export const RUNNING_MAINS: Mains = { phase: 0, factor: 1 };

/** Common EMF at time t, V. */
export function emf(circuit: Circuit, mains: Mains, t: number): number {
  if (mains.factor === 0) return 0;
  const s = Math.sin(circuit.omega * t + mains.phase);
  const { clip } = circuit;
  return mains.factor * circuit.peakV * (s > clip ? clip : s < -clip ? -clip : s);
}

/** Record buffers of integrators that are done: big enough that fresh ones would cost more than the figures in them. */
const spare: Float64Array[] = [];

/**
 * What a run leaves behind: one record per stage of every accepted step, in the order of time, each holding the instant,
 * its weight in an integral over time, and the whole circuit. Kept flat; the offsets say where what stands.
 */
export interface Records {
  data: Float64Array;
  count: number;
  stride: number;
  emf: number;
  port: number;
  x: number;
  k: number;
  node: number;
  load: number;
  float: number;
}

export interface RunOptions {
  mains: Mains;
  /** Whether to keep records (added to those already there). */
  record: boolean;
  /** Whether to find how the end moves with the start. */
  carry: boolean;
  /** False while everything has long been running; true when t counts from switch-on. */
  fromRest: boolean;
}

/** Integrates a circuit. One integrator serves all runs over one circuit. */
export function integratorFor(circuit: Circuit) {
  const stage = stageSolver(circuit);
  const { states: nX, periodS } = circuit;
  const nP = circuit.ports.length;
  const nN = circuit.nodes;
  const nR = circuit.rails.length;
  const nF = circuit.floats;
  const { base, x: xStage, node, portA, loadA, floatV } = stage;

  const x = new Float64Array(nX);
  const k = new Float64Array(STAGES * nX);
  const i2 = new Float64Array(STAGES);
  const tolerance = new Float64Array(nX);
  let toleranceI2 = 0;
  const records: Records = layout();
  const stride = records.stride;
  /** The stages of the step in hand, as records. */
  const draft = new Float64Array(STAGES * stride);
  const transition = new Float64Array(nX * nX);
  const dBase = new Float64Array(nX);
  const dx = new Float64Array(nX);
  const dk = new Float64Array(nX * STAGES * nX);
  const dEnd = new Float64Array(nX * nX);
  const longest = LONGEST * periodS;
  const gridH = Float64Array.from({ length: LEVELS }, (_, l) => longest * 2 ** (-l / 2));
  /** What each state moved through in the last run, and the least of it that counts. */
  const lastRow = (STAGES - 1) * stride;
  /** Alternating-current loads stand behind the diodes in the list; their sine needs no watching. */
  const nDiodePorts = nP - circuit.acPorts.length;
  /** The choke that carries all of a port's current, -1 when a capacitor stands before it or there is none. */
  const chokeOf = circuit.ports.map((port) => {
    if (port.input < 0) return -1;
    const { plus } = circuit.inputs[port.input]!;
    const at = circuit.elements.filter((e) => (e.kind === 'capacitor' ? e.plus === plus : e.from === plus));
    const only = at.length === 1 ? at[0]! : undefined;
    return only?.kind === 'inductor' ? only.state : -1;
  });
  /** Ports whose current flows through an inductance and can cease. */
  const eventful = circuit.ports.flatMap((port, n) =>
    port.law === 'diode' && port.floating < 0 && (chokeOf[n]! >= 0 || circuit.windings[port.winding]!.state >= 0)
      ? [n]
      : [],
  );
  const low = new Float64Array(nX);
  const high = new Float64Array(nX);

  function layout(): Records {
    const port = 3;
    const xAt = port + nP;
    const kAt = xAt + nX;
    const nodeAt = kAt + nX;
    const loadAt = nodeAt + nN;
    const floatAt = loadAt + nR;
    const width = floatAt + nF;
    return {
      data: spare.pop() ?? new Float64Array(16_384),
      count: 0,
      stride: width,
      emf: 2,
      port,
      x: xAt,
      k: kAt,
      node: nodeAt,
      load: loadAt,
      float: floatAt,
    };
  }

  /** Sets the error allowed in a step: relative to what each state moves through in a cycle, V or A. */
  function setTolerance(relative: number, swing: Float64Array, squaredA2s: number): void {
    for (let n = 0; n < nX; n++) tolerance[n] = relative * swing[n]!;
    toleranceI2 = relative * squaredA2s;
  }

  /**
   * Instants in (from, to) no step may straddle: the EMF's zero crossings and the clip's edges where it has corners, and
   * its crest, which always lies within the charging pulse, so that not even the shortest pulse falls between two steps.
   */
  function stops(from: number, to: number, mains: Mains): number[] {
    if (mains.factor === 0) return [to];
    const half = periodS / 2;
    const lead = mains.phase / circuit.omega;
    const edge = circuit.clip < 1 ? Math.asin(circuit.clip) / circuit.omega : half;
    const offsets = edge < half ? [0, edge, half - edge] : [0, half / 2];
    const found: number[] = [];
    for (let n = Math.floor((from + lead) / half) - 1; n * half - lead <= to; n++) {
      for (const offset of offsets) {
        const t = n * half - lead + offset;
        if (t > from + 1e-7 * periodS && t < to - 1e-7 * periodS) found.push(t);
      }
    }
    found.push(to);
    return found;
  }

  function write(s: number, t: number, e: number, whole: boolean): void {
    const at = s * stride;
    for (let n = 0; n < nP; n++) draft[at + records.port + n] = portA[n]!;
    if (!whole) return;
    stage.spell();
    draft[at] = t;
    draft[at + 2] = e;
    for (let n = 0; n < nX; n++) draft[at + records.x + n] = xStage[n]!;
    for (let n = 0; n < nX; n++) draft[at + records.k + n] = k[s * nX + n]!;
    for (let n = 0; n < nN; n++) draft[at + records.node + n] = node[n]!;
    for (let n = 0; n < nR; n++) draft[at + records.load + n] = loadA[n]!;
    for (let n = 0; n < nF; n++) draft[at + records.float + n] = floatV[n]!;
  }

  function keep(h: number): void {
    if ((records.count + STAGES) * stride > records.data.length) {
      const bigger = new Float64Array(Math.max(records.data.length * 2, (records.count + STAGES) * stride));
      bigger.set(records.data);
      records.data = bigger;
    }
    for (const s of IN_TIME) {
      const from = s * stride;
      const to = records.count++ * stride;
      for (let n = 0; n < stride; n++) records.data[to + n] = draft[from + n]!;
      records.data[to + 1] = h * B[s]!;
    }
  }

  /** What a rejected step left in the last row belongs to no instant: the step's start stands in the first. */
  function restore(): void {
    for (let n = 0; n < stride; n++) draft[lastRow + n] = draft[n]!;
    for (let n = 0; n < nX; n++) k[(STAGES - 1) * nX + n] = k[n]!;
    i2[STAGES - 1] = i2[0]!;
    for (let c = 0; c < nX; c++) {
      for (let n = 0; n < nX; n++) dk[(c * STAGES + STAGES - 1) * nX + n] = dk[c * STAGES * nX + n]!;
    }
  }

  /**
   * Where in a step of length h a current through an inductance ceases, s; Infinity when none does. The voltage there
   * jumps in no time, so a step has to end just before it: a step across would push the current below zero, and the
   * diode's answer to that would look like a spike as high as the step is short.
   */
  function turnOff(h: number, landing: boolean): number {
    let earliest = Infinity;
    for (const n of eventful) {
      const before = draft[records.port + n]!;
      if (before <= CEASED * circuit.typicalA || portA[n]! > CEASED * circuit.typicalA) continue;
      const port = circuit.ports[n]!;
      const own = circuit.windings[port.winding]!.state;
      const choke = chokeOf[n]!;
      let slope = 0;
      let shared = 0;
      for (const m of eventful) {
        if (m !== n && circuit.ports[m]!.input === port.input && draft[records.port + m]! > CEASED * circuit.typicalA)
          shared++;
      }
      if (own >= 0) slope = port.share * k[own]!;
      if (choke >= 0) {
        const through = k[choke]! / stage.statePerAmp(choke);
        slope = own < 0 ? through : shared === 1 && sharesWinding(n) ? (slope + through) / 2 : slope;
      }
      if (own < 0 && shared > 0) continue;
      const ends = slope < 0 ? (-before / slope) * (1 - 1e-3) : Infinity;
      // A step made to end there has done what it should; one the current still rises in is halved.
      if (landing && ends > 0.98 * h && ends < 1.1 * h) continue;
      earliest = Math.min(earliest, ends < h ? ends : h / 2);
    }
    return earliest;
  }

  /**
   * Takes a current that has just ceased out of the states of its inductances.
   * @returns whether there was one: the derivatives then have to be found anew
   */
  function cut(): boolean {
    let ceased = false;
    for (const n of eventful) {
      if (!(draft[records.port + n]! > CEASED * circuit.typicalA) || portA[n]! > CEASED * circuit.typicalA) continue;
      ceased = true;
      const port = circuit.ports[n]!;
      const own = circuit.windings[port.winding]!.state;
      if (own >= 0) x[own] = 0;
      const choke = chokeOf[n]!;
      let through = 0;
      for (let m = 0; m < nP; m++) {
        if (m === n) continue;
        const other = circuit.ports[m]!;
        if (own >= 0 && other.winding === port.winding) x[own]! += other.share * portA[m]!;
        if (choke >= 0 && other.input === port.input) through += portA[m]!;
      }
      if (choke >= 0) x[choke] = stage.stateFor(choke, through);
    }
    return ceased;
  }

  function sharesWinding(n: number): boolean {
    const { winding } = circuit.ports[n]!;
    return circuit.ports.some((p, m) => m !== n && p.winding === winding && p.input === circuit.ports[n]!.input);
  }

  function sumOfSquares(): number {
    let sum = 0;
    for (let n = 0; n < nDiodePorts; n++) sum += portA[n]! * portA[n]!;
    return sum;
  }

  function fail(words: string): never {
    throw new SolveError(words);
  }

  /** Derivatives at an instant, by a stage so short that nothing happens in it. */
  function derive(t: number, options: RunOptions): void {
    stage.setStep(-1, INSTANT * periodS * GAMMA);
    stage.aim(x);
    const e = emf(circuit, options.mains, t);
    const since = options.fromRest ? t : Infinity;
    // A current that does not fit its diodes relaxes within nanoseconds; what counts is the derivative after that.
    for (let round = 0; round < (circuit.inductive ? 2 : 1); round++) {
      base.set(x);
      if (!stage.solve(e, since)) fail('no voltages were found that fit all parts at one instant');
      if (options.carry) {
        const only = stage.prepareCarry();
        for (let c = 0; c < nX; c++) {
          for (let n = 0; n < nX; n++) dBase[n] = transition[n * nX + c]!;
          stage.carry(only, dBase, dx);
          for (let n = 0; n < nX; n++) {
            dk[(c * STAGES + STAGES - 1) * nX + n] = (dx[n]! - dBase[n]!) / (INSTANT * periodS * GAMMA);
            if (circuit.inductive) transition[n * nX + c] = dx[n]!;
          }
        }
      }
      for (let n = 0; n < nX; n++) {
        k[(STAGES - 1) * nX + n] = (xStage[n]! - base[n]!) / (INSTANT * periodS * GAMMA);
        if (circuit.inductive) x[n] = xStage[n]!;
      }
    }
    i2[STAGES - 1] = sumOfSquares();
    write(STAGES - 1, t, e, options.record);
  }

  /**
   * Runs from `from` to `to` seconds, starting at the states `start`.
   * @returns the number of steps; the end stands in `x`, its derivative with respect to the start in `transition`
   * @throws SolveError when the step size collapses or the step count runs away
   */
  function run(start: Float64Array, from: number, to: number, options: RunOptions): number {
    const { mains, carry } = options;
    x.set(start);
    if (carry) {
      transition.fill(0);
      for (let n = 0; n < nX; n++) transition[n * nX + n] = 1;
    }
    low.set(x);
    high.set(x);
    let t = from;
    let steps = 0;
    const began = performance.now();
    let wanted = periodS / 100;
    let forced = 0;
    /** Steps since the last one that was too long: what made it too long lies just ahead. */
    let calm = 9;
    derive(t, options);
    for (const stop of stops(from, to, mains)) {
      while (t < stop) {
        if (++steps > MOST_STEPS) fail('the integration needs more steps than any real supply would');
        if (steps % 128 === 0 && performance.now() - began > MOST_MS) fail('one cycle takes too long to calculate');
        const left = stop - t;
        let index = Math.min(LEVELS - 1, Math.max(0, Math.ceil(2 * Math.log2(longest / wanted) - 1e-9)));
        let h = gridH[index]!;
        if (forced > 0 && forced < left) {
          h = forced;
          index = -1;
        } else if (left < (calm > 0 ? 1.3 : 1) * h) {
          // A little more rather than a splinter at the end, unless it was just shown to be too much.
          h = left;
          index = -1;
        }
        const landing = forced > 0;
        forced = 0;
        stage.setStep(index, GAMMA * h);
        // The first stage is the last one of the step before.
        for (let n = 0; n < stride; n++) draft[n] = draft[lastRow + n]!;
        for (let n = 0; n < nX; n++) k[n] = k[(STAGES - 1) * nX + n]!;
        i2[0] = i2[STAGES - 1]!;
        if (carry) {
          for (let c = 0; c < nX; c++) {
            for (let n = 0; n < nX; n++) dk[c * STAGES * nX + n] = dk[(c * STAGES + STAGES - 1) * nX + n]!;
          }
        }
        stage.aim(x);
        let solved = true;
        for (let s = 1; s < STAGES && solved; s++) {
          for (let n = 0; n < nX; n++) {
            let sum = 0;
            for (let j = 0; j < s; j++) sum += A[s * STAGES + j]! * k[j * nX + n]!;
            base[n] = x[n]! + h * sum;
          }
          const ts = t + C[s]! * h;
          const e = emf(circuit, mains, ts);
          solved = stage.solve(e, options.fromRest ? ts : Infinity);
          if (!solved) break;
          for (let n = 0; n < nX; n++) k[s * nX + n] = (xStage[n]! - base[n]!) / (GAMMA * h);
          i2[s] = sumOfSquares();
          write(s, ts, e, options.record);
          if (carry) carryStage(s, h);
        }
        let error = 1e3;
        if (solved) {
          let squares = 0;
          for (let s = 0; s < STAGES; s++) squares += D[s]! * i2[s]!;
          error = Math.abs(h * squares) / toleranceI2;
          for (let n = 0; n < nX; n++) {
            let sum = 0;
            for (let s = 0; s < STAGES; s++) sum += D[s]! * k[s * nX + n]!;
            const share = Math.abs(h * sum) / tolerance[n]!;
            if (share > error || share !== share) error = share;
          }
          if (error !== error) fail('the integration left the range of numbers');
        }
        if (error > 1 && h > SHORTEST * periodS) {
          wanted = h * Math.max(0.15, 0.85 * error ** -0.25);
          calm = 0;
          restore();
          continue;
        }
        if (!solved) fail('no voltages were found that fit all parts at one instant');
        if (eventful.length > 0) {
          const ends = turnOff(h, landing);
          if (ends > SHORTEST * periodS && ends < 0.999 * h) {
            forced = ends;
            restore();
            continue;
          }
        }
        if (options.record) keep(h);
        if (carry) transition.set(dEnd);
        t = h === left ? stop : t + h;
        for (let n = 0; n < nX; n++) {
          const value = xStage[n]!;
          x[n] = value;
          if (value < low[n]!) low[n] = value;
          if (value > high[n]!) high[n] = value;
        }
        if (eventful.length > 0 && cut()) derive(t, options);
        wanted = h * Math.min(++calm > 3 ? 4 : 1.42, Math.max(0.2, 0.85 * Math.max(error, 1e-9) ** -0.25));
      }
    }
    return steps;
  }

  function carryStage(s: number, h: number): void {
    const only = stage.prepareCarry();
    for (let c = 0; c < nX; c++) {
      const row = c * STAGES * nX;
      for (let n = 0; n < nX; n++) {
        let sum = 0;
        for (let j = 0; j < s; j++) sum += A[s * STAGES + j]! * dk[row + j * nX + n]!;
        dBase[n] = transition[n * nX + c]! + h * sum;
      }
      stage.carry(only, dBase, dx);
      for (let n = 0; n < nX; n++) {
        dk[row + s * nX + n] = (dx[n]! - dBase[n]!) / (GAMMA * h);
        if (s === STAGES - 1) dEnd[n * nX + c] = dx[n]!;
      }
    }
  }

  return {
    circuit,
    stage,
    records,
    x,
    transition,
    low,
    high,
    setTolerance,
    run,
    /** Hands the record buffer on to the next integrator; this one must not be used afterwards. */
    release(): void {
      if (spare.length < 4) spare.push(records.data);
      records.data = new Float64Array(0);
    },
  };
}

export type Integrator = ReturnType<typeof integratorFor>;
