import type { Circuit } from '@/core/circuit/assemble';
import type { Carry } from './carry';
import { emf, type Mains } from './emf';
import { B as WEIGHTS, C as PLACES, carried, D as ESTIMATE, GAMMA, STAGES } from './esdirk';
import { makeRoom, PLACE, writeRecord, type Records } from './records';
import { SolveError } from './solve-error';
import type { StageSolver } from './stage';
import { LEVELS } from './stage';

const B = Float64Array.from(WEIGHTS);
const C = Float64Array.from(PLACES);
const D = Float64Array.from(ESTIMATE);
const LAST = STAGES - 1;
/**
 * Where a derivative is needed afresh, the stage that yields it is this short, as a share of the period: nothing happens in
 * it, and a choke in it is not yet so stiff that rounding tells how two diodes share its current.
 */
const INSTANT = 1e-6;
/** Against the tolerance of states, where no state tells how far a step may go: nothing averages out. */
const STATELESS_SHARE = 0.1;

export interface RunOptions {
  mains: Mains;
  /** Whether to keep records (added to those already there). */
  record: boolean;
  /** Whether to find how the end moves with the start. */
  carry: boolean;
  /** False while everything has long been running; true when t counts from switch-on. */
  fromRest: boolean;
}

/** One step of the method: its stages, the error they make likely, and what stays of it once it is accepted. */
export interface Step {
  /** States the step starts from; accepting it moves them on. */
  readonly x: Float64Array;
  /** Derivatives of the states where the step starts. */
  readonly lastK: Float64Array;
  /** Derivatives at the stages, one stage after the other. */
  readonly k: Float64Array;
  /** Port currents where the step starts, A. */
  readonly lastPortA: Float64Array;
  /** From now on somebody is told of each odd stage, by its number halved: what stands across waiting diodes there. */
  watch(tell: (which: number) => void): void;
  load(circuit: Circuit): void;
  /** Error allowed in a step: relative to what each state moves through in a cycle, V or A, and to squared current. */
  setTolerance(relative: number, swing: Float64Array, squaredA2s: number): void;
  /** Derivatives at an instant, by a stage so short that nothing happens in it. @throws SolveError */
  derive(t: number, options: RunOptions): void;
  /** Solves the stages of a step of h seconds from t on. @param index its place on the grid of lengths, -1 off it */
  take(t: number, h: number, index: number, options: RunOptions): boolean;
  /** Likely error of the step just taken against what is allowed. */
  error(h: number): number;
  /** Moves on to its end. @returns about the integral of all currents squared over it, A²s */
  accept(h: number, options: RunOptions): number;
  /** What it left stands in the records: it is where the next begins. */
  settle(options: RunOptions, keepPorts: boolean): void;
}

export function stepOf(shape: Circuit, stage: StageSolver, records: Records, carry: Carry): Step {
  const nX = shape.states;
  const nP = shape.ports.length;
  const { stride } = records;
  const { base, x: xStage, change, portA } = stage;
  /** Alternating-current loads stand behind the diodes in the list; their sine needs no watching. */
  const watched = nP - shape.acPorts.length;
  /** Where nothing stores charge no state tells how far a step may go: then the current itself does. */
  const stateless = nX === 0;
  const x = new Float64Array(nX);
  const k = new Float64Array(STAGES * nX);
  const lastK = new Float64Array(nX);
  const squares = new Float64Array(STAGES);
  const sums = new Float64Array(STAGES);
  const tolerance = new Float64Array(nX);
  let toleranceSquares = 0;
  let toleranceSums = 0;
  let circuit = shape;
  let lastSquares = 0;
  let lastSum = 0;
  /** Where the step starts: the first stage of the next. */
  const lastRow = new Float64Array(stride);
  const lastPortA = lastRow.subarray(records.port, records.port + nP);
  let origin = 0;
  let tell: ((which: number) => void) | null = null;

  function sumOfSquares(): number {
    let sum = 0;
    for (let n = 0; n < watched; n++) sum += portA[n]! * portA[n]!;
    return sum;
  }

  function sumOfCurrents(): number {
    let sum = 0;
    for (let n = 0; n < watched; n++) sum += portA[n]!;
    return sum;
  }

  function takeStage(s: number, t: number, h: number, options: RunOptions): boolean {
    carried(s, h, k, nX, base);
    for (let n = 0; n < nX; n++) base[n]! += x[n]!;
    const ts = t + C[s]! * h;
    const e = emf(circuit, options.mains, ts);
    if (!stage.solve(e, options.fromRest ? ts : Infinity)) return false;
    const perGammaH = 1 / (GAMMA * h);
    for (let n = 0; n < nX; n++) k[s * nX + n] = change[n]! * perGammaH;
    squares[s] = sumOfSquares();
    if (stateless) sums[s] = sumOfCurrents();
    if (tell && s % 2 === 1) tell(s >> 1);
    if (options.record) writeRecord(records.data, origin + PLACE[s]! * stride, ts, e, stage, k, s * nX);
    if (options.carry) carry.note(s);
    return true;
  }

  return {
    x,
    lastK,
    k,
    lastPortA,
    watch(told) {
      tell = told;
    },
    load(next) {
      circuit = next;
      records.count = 0;
    },
    setTolerance(relative, swing, squaredA2s) {
      for (let n = 0; n < nX; n++) tolerance[n] = relative * swing[n]!;
      toleranceSquares = relative * squaredA2s;
      toleranceSums = STATELESS_SHARE * relative * circuit.typicalA * circuit.periodS;
    },
    derive(t, options) {
      const h = INSTANT * circuit.periodS * GAMMA;
      stage.setStep(LEVELS, h);
      stage.aim(x);
      const e = emf(circuit, options.mains, t);
      const since = options.fromRest ? t : Infinity;
      // A current that does not fit its diodes relaxes within nanoseconds; what counts is the derivative after that.
      for (let round = 0; round < (shape.inductive ? 2 : 1); round++) {
        base.set(x);
        if (!stage.solve(e, since)) throw new SolveError('no voltages were found that fit all parts at one instant');
        if (options.carry) carry.derive(h, shape.inductive);
        for (let n = 0; n < nX; n++) {
          k[n] = lastK[n] = change[n]! / h;
          if (shape.inductive) x[n] = xStage[n]!;
        }
      }
      lastSquares = sumOfSquares();
      if (stateless) lastSum = sumOfCurrents();
      writeRecord(lastRow, 0, t, e, stage, k, 0);
    },
    take(t, h, index, options) {
      stage.setStep(index, GAMMA * h);
      if (options.record) {
        makeRoom(records, STAGES);
        origin = records.count * stride;
      }
      // The first stage is the last one of the step before.
      for (let n = 0; n < nX; n++) k[n] = lastK[n]!;
      squares[0] = lastSquares;
      sums[0] = lastSum;
      if (options.carry) carry.open();
      stage.aim(x);
      for (let s = 1; s < STAGES; s++) if (!takeStage(s, t, h, options)) return false;
      return true;
    },
    error(h) {
      let sum = 0;
      for (let s = 0; s < STAGES; s++) sum += D[s]! * squares[s]!;
      let error = Math.abs(h * sum) / toleranceSquares;
      if (stateless) {
        let charge = 0;
        for (let s = 0; s < STAGES; s++) charge += D[s]! * sums[s]!;
        error = Math.max(error, Math.abs(h * charge) / toleranceSums);
      }
      for (let n = 0; n < nX; n++) {
        let miss = 0;
        for (let s = 0; s < STAGES; s++) miss += D[s]! * k[s * nX + n]!;
        const share = Math.abs(h * miss) / tolerance[n]!;
        if (share > error || share !== share) error = share;
      }
      return error;
    },
    accept(h, options) {
      if (options.carry) carry.accept(h);
      if (options.record) {
        const { data } = records;
        for (let n = 0; n < stride; n++) data[origin + n] = lastRow[n]!;
        for (let s = 0; s < STAGES; s++) data[origin + PLACE[s]! * stride + 1] = h * B[s]!;
        records.count += STAGES;
      }
      for (let n = 0; n < nX; n++) {
        x[n] = xStage[n]!;
        lastK[n] = k[LAST * nX + n]!;
      }
      const flowed = (h / 2) * (squares[0]! + squares[LAST]!);
      lastSquares = squares[LAST]!;
      lastSum = sums[LAST]!;
      return flowed;
    },
    settle(options, keepPorts) {
      if (options.record) {
        const { data } = records;
        for (let n = 0, from = origin + LAST * stride; n < stride; n++) lastRow[n] = data[from + n]!;
      } else if (keepPorts) lastPortA.set(portA);
    },
  };
}
