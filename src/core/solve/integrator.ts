import type { Circuit } from '@/core/circuit/assemble';
import * as esdirk from './esdirk';
import { Arena } from './arena';
import { sameShape } from './same-shape';
import { SolveError } from './solve-error';
import { LEVELS, stageSolver, type StageSolver } from './stage';
import { turnOffEvents } from './turn-off';
import { turnOnForesight } from './turn-on';
import type { Work } from './work';

/** A flat copy of the method's coefficients: module bindings and nested arrays cost more than the arithmetic. */
const { STAGES, GAMMA } = esdirk;
const [A10, A20, A21, A30, A31, A32, A40, A41, A42, A43, A50, A52, A53, A54] = [
  ...esdirk.A[1]!,
  ...esdirk.A[2]!,
  ...esdirk.A[3]!,
  ...esdirk.A[4]!,
  esdirk.A[5]![0],
  ...esdirk.A[5]!.slice(2),
] as [number, number, number, number, number, number, number, number, number, number, number, number, number, number];
const B = Float64Array.from(esdirk.B);
const C = Float64Array.from(esdirk.C);
const D = Float64Array.from(esdirk.D);
/** Place of each stage in the order of their instants. */
const PLACE = [0, 2, 1, 3, 4, 5];
const LAST = STAGES - 1;

/** Steps in one run before it counts as hopeless. */
const MOST_STEPS = 6_000;
/** Most work in one run (a cycle at most): what needs more is no supply but a puzzle. */
const MOST_WORK = 2.5e7;
/** The longest step, as a share of the period; behind a choke, where a wave's crest has to be read off a smooth swing. */
const LONGEST = 1 / 16;
const LONGEST_CHOKED = 1 / 32;
/** Nothing smooths what a circuit without storage does, and every instant of it is cheap. */
const LONGEST_STATELESS = 1 / 64;
/** Against the tolerance of states: nothing averages out. */
const STATELESS_SHARE = 0.1;
/** Steps lie on a grid of sqrt(2), so that their maps can be kept: shares of the longest. */
const GRID = Float64Array.from({ length: LEVELS }, (_, l) => 2 ** (-l / 2));
/** Where a derivative is needed afresh, the stage that yields it is this short, as a share of the period. */
const INSTANT = 1e-7;
/** First step into the first charging pulse, as a share of the period. */
const FIRST = 1 / 100;
/** First step where nothing conducts, as a share of the period. */
const QUIET = 1 / 16;
/** No step is made shorter than this share of the period for the sake of accuracy. */
const SHORTEST = 1e-8;

/** Relative to the swing of each state: keeps every reported figure within about 0.01 %. */
export const TIGHT = 5e-6;
/** Good enough to aim the next pass of a search. */
export const LOOSE = 4e-4;
/** Good enough to aim the last pass of a search. */
export const CLOSE = 1.2e-5;

/** The mains as the windings see it. */
export interface Mains {
  /** Phase of the sine at t = 0, rad. */
  phase: number;
  /** EMF at t = 0 against its usual value: 1, or 0 while the mains is missing. */
  factor: number;
  /** How fast the factor grows, 1/s; nothing for a mains that keeps its height. */
  factorPerS?: number;
}

export const RUNNING_MAINS: Mains = { phase: 0, factor: 1 };

/** Common EMF at time t, V. */
export function emf(circuit: Circuit, mains: Mains, t: number): number {
  if (mains.factor === 0) return 0;
  const factor = mains.factorPerS === undefined ? mains.factor : mains.factor + mains.factorPerS * t;
  if (circuit.direct) {
    const { ripple } = circuit;
    return factor * circuit.peakV * (ripple === 0 ? 1 : 1 + 0.5 * ripple * Math.sin(2 * circuit.omega * t));
  }
  const s = Math.sin(circuit.omega * t + mains.phase);
  const { clip } = circuit;
  return factor * circuit.peakV * (s > clip ? clip : s < -clip ? -clip : s);
}

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

/** Integrators that are done, to be used again for the next circuit of the same shape. */
const idle: Integrator[] = [];
const MOST_IDLE = 8;

/** An integrator for a circuit. It serves all runs over that circuit, until it is released. */
export function integratorFor(circuit: Circuit): Integrator {
  const at = idle.findIndex((other) => sameShape(other.circuit, circuit));
  if (at < 0) return newIntegrator(circuit);
  const [integrator] = idle.splice(at, 1);
  integrator!.load(circuit);
  return integrator!;
}

export interface Integrator {
  /** The circuit whose values are loaded. */
  readonly circuit: Circuit;
  readonly stage: StageSolver;
  readonly records: Records;
  /** What it has done so far, for all circuits together. */
  readonly work: Work;
  /** States at the end of the last run. */
  readonly x: Float64Array;
  /** d(end)/d(start) of the last run that carried it. */
  readonly transition: Float64Array;
  /** Lowest and highest value of each state in the last run. */
  readonly low: Float64Array;
  readonly high: Float64Array;
  /** About the integral of all currents squared over the last run, A²s. */
  readonly flowedA2s: number;
  /** Where columns of the records are put together. */
  readonly arena: Arena;
  /** Takes over the values of a circuit of the same shape. */
  load(circuit: Circuit): void;
  /** Sets the error allowed in a step: relative to what each state moves through in a cycle, V or A. */
  setTolerance(relative: number, swing: Float64Array, squaredA2s: number): void;
  /**
   * Runs from `from` to `to` seconds, starting at the states `start`.
   * @returns the number of steps
   * @throws SolveError when the step size collapses or the step count runs away
   */
  run(start: Float64Array, from: number, to: number, options: RunOptions): number;
  /** Hands the integrator on to the next circuit of its shape; it must not be used afterwards. */
  release(): void;
}

function newIntegrator(shape: Circuit): Integrator {
  const work: Work = { done: 0 };
  const stage = stageSolver(shape, work);
  /** Work of a step beside its stages. */
  const stepWork = 8 * STAGES * (shape.states + shape.ports.length + shape.nodes);
  let circuit = shape;
  let { periodS } = shape;
  const longest =
    shape.states === 0
      ? LONGEST_STATELESS
      : shape.elements.some((e) => e.kind === 'inductor')
        ? LONGEST_CHOKED
        : LONGEST;
  const nX = shape.states;
  const nP = shape.ports.length;
  const nN = shape.nodes;
  const nR = shape.rails.length;
  const nF = shape.floats;
  const { base, x: xStage, change, portA, node, loadA, floatV } = stage;

  const x = new Float64Array(nX);
  const k = new Float64Array(STAGES * nX);
  const kEnd = k.subarray(LAST * nX);
  const i2 = new Float64Array(STAGES);
  /** Where nothing stores charge no state tells how far a step may go: then the current itself does. */
  const stateless = nX === 0;
  const i1 = new Float64Array(STAGES);
  const tolerance = new Float64Array(nX);
  let toleranceI2 = 0;
  let flowed = 0;
  let toleranceI1 = 0;
  /** What the tolerance in force does to the length of a step, against the loosest. */
  let tolerated = 1;
  /** First step into a charging pulse at the loosest tolerance, s: what the last one turned out to need. */
  let first = 0;
  const records = layout();
  const stride = records.stride;
  /** The stages of the step in hand where no records are kept. */
  const draft = new Float64Array(STAGES * stride);
  let sheet: Float64Array = draft;
  let origin = 0;
  /** Where the last accepted step ended: the first stage of the next. */
  const lastRow = new Float64Array(stride);
  const lastK = new Float64Array(nX);
  let lastI2 = 0;
  let lastI1 = 0;
  const transition = new Float64Array(nX * nX);
  const dK = new Float64Array(STAGES * nX * nX);
  const lastDK = new Float64Array(nX * nX);
  /** d(x)/d(base) of each stage. */
  const sensitivity = new Float64Array(STAGES * nX * nX);
  const dBase = new Float64Array(nX * nX);
  const dEnd = new Float64Array(nX * nX);
  const gridH = new Float64Array(LEVELS);
  /** Alternating-current loads stand behind the diodes in the list; their sine needs no watching. */
  const nDiodePorts = nP - shape.acPorts.length;
  const events = turnOffEvents(shape, stage, lastRow.subarray(records.port, records.port + nP), x);
  const eventful = events.any;
  const foresight = turnOnForesight(shape, stage);
  /** Whether diodes can join others that conduct, at a bend worth foreseeing: behind a capacitor it is gentle. */
  const several = events.choked && foresight.several;
  const low = new Float64Array(nX);
  const high = new Float64Array(nX);
  load(shape);

  function load(next: Circuit): void {
    circuit = next;
    ({ periodS } = next);
    for (let l = 0; l < LEVELS; l++) gridH[l] = longest * periodS * GRID[l]!;
    events.load(next);
    foresight.load(next);
    first = FIRST * periodS;
    records.count = 0;
  }

  function layout(): Records {
    const port = 3;
    const xAt = port + nP;
    const kAt = xAt + nX;
    const nodeAt = kAt + nX;
    const loadAt = nodeAt + nN;
    const floatAt = loadAt + nR;
    return {
      data: new Float64Array(512 * (floatAt + nF)),
      count: 0,
      stride: floatAt + nF,
      emf: 2,
      port,
      x: xAt,
      k: kAt,
      node: nodeAt,
      load: loadAt,
      float: floatAt,
    };
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
    const offsets = edge < half ? [edge, half - edge] : [half / 2];
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

  /** Writes the circuit as it stands into a record that begins at `at`. */
  function write(into: Float64Array, at: number, t: number, e: number, kAt: number): void {
    stage.spell();
    into[at] = t;
    into[at + 2] = e;
    at += 3;
    for (let n = 0; n < nP; n++) into[at++] = portA[n]!;
    for (let n = 0; n < nX; n++) into[at++] = xStage[n]!;
    for (let n = 0; n < nX; n++) into[at++] = k[kAt + n]!;
    for (let n = 0; n < nN; n++) into[at++] = node[n]!;
    for (let n = 0; n < nR; n++) into[at++] = loadA[n]!;
    for (let n = 0; n < nF; n++) into[at++] = floatV[n]!;
  }

  /** Makes room for one more step in the records and points the sheet at it. */
  function open(): void {
    if ((records.count + STAGES) * stride > records.data.length) {
      const bigger = new Float64Array(records.data.length * 2);
      bigger.set(records.data);
      records.data = bigger;
    }
    sheet = records.data;
    origin = records.count * stride;
  }

  function sumOfSquares(): number {
    let sum = 0;
    for (let n = 0; n < nDiodePorts; n++) sum += portA[n]! * portA[n]!;
    return sum;
  }

  function sumOfCurrents(): number {
    let sum = 0;
    for (let n = 0; n < nDiodePorts; n++) sum += portA[n]!;
    return sum;
  }

  function fail(words: string): never {
    throw new SolveError(words);
  }

  /** Derivatives at an instant, by a stage so short that nothing happens in it. */
  function derive(t: number, options: RunOptions): void {
    const h = INSTANT * periodS * GAMMA;
    stage.setStep(LEVELS, h);
    stage.aim(x);
    const e = emf(circuit, options.mains, t);
    const since = options.fromRest ? t : Infinity;
    // A current that does not fit its diodes relaxes within nanoseconds; what counts is the derivative after that.
    for (let round = 0; round < (shape.inductive ? 2 : 1); round++) {
      base.set(x);
      if (!stage.solve(e, since)) fail('no voltages were found that fit all parts at one instant');
      if (options.carry) {
        stage.sensitivity(sensitivity, 0);
        for (let c = 0; c < nX; c++) {
          for (let n = 0; n < nX; n++) dBase[n] = transition[n * nX + c]!;
          for (let n = 0; n < nX; n++) {
            let dx = 0;
            for (let m = 0; m < nX; m++) dx += sensitivity[n * nX + m]! * dBase[m]!;
            lastDK[c * nX + n] = (dx - dBase[n]!) / h;
            if (shape.inductive) transition[n * nX + c] = dx;
          }
        }
      }
      for (let n = 0; n < nX; n++) {
        k[n] = lastK[n] = change[n]! / h;
        if (shape.inductive) x[n] = xStage[n]!;
      }
    }
    lastI2 = sumOfSquares();
    if (stateless) lastI1 = sumOfCurrents();
    write(lastRow, 0, t, e, 0);
  }

  function run(start: Float64Array, from: number, to: number, options: RunOptions): number {
    const { mains, carry, record } = options;
    x.set(start);
    if (carry) {
      transition.fill(0);
      for (let n = 0; n < nX; n++) transition[n * nX + n] = 1;
    }
    low.set(x);
    high.set(x);
    flowed = 0;
    let t = from;
    let steps = 0;
    const mostWork = work.done + MOST_WORK;
    let wanted = periodS / 100;
    let forced = 0;
    /** The last step that no event cut short, s: what follows an event runs as smoothly as what came before it. */
    let usual = wanted;
    /** Steps since the last one that was too long: what made it too long lies just ahead. */
    let calm = 9;
    derive(t, options);
    sheet = draft;
    origin = 0;
    const emfAt = (at: number) => emf(circuit, mains, at);
    let quiet = foresight.quiet(Infinity);
    if (quiet) wanted = QUIET * periodS;
    let starting = false;
    let afterStart = false;
    let joining = false;
    let lastH = 0;
    foresight.forget();
    for (const stop of stops(from, to, mains)) {
      while (t < stop) {
        if (++steps > MOST_STEPS) fail('the integration needs more steps than any real supply would');
        work.done += stepWork;
        if (work.done > mostWork) fail('one cycle takes too long to calculate');
        const left = stop - t;
        let index = Math.min(LEVELS - 1, Math.max(0, Math.ceil(2 * Math.log2((longest * periodS) / wanted) - 1e-9)));
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
        if (quiet && !landing) {
          const ends = foresight.within(t, h, emfAt);
          if (ends > 1e-4 * h && ends < h) {
            h = ends;
            index = -1;
            starting = true;
          }
          quiet = false;
        } else if (several && !landing && lastH > 0) {
          const ends = foresight.joins(h, lastH);
          if (ends > 1e-3 * h && ends < h) {
            h = ends;
            index = -1;
            joining = true;
          }
        }
        let capped = false;
        if (eventful && !landing) {
          const most = events.limit(lastK);
          if (most < h && most > SHORTEST * periodS) {
            h = most;
            index = -1;
            capped = true;
          }
        }
        stage.setStep(index, GAMMA * h);
        if (record) open();
        // The first stage is the last one of the step before.
        for (let n = 0; n < nX; n++) k[n] = lastK[n]!;
        i2[0] = lastI2;
        i1[0] = lastI1;
        if (carry) for (let n = 0; n < nX * nX; n++) dK[n] = lastDK[n]!;
        stage.aim(x);
        const solved = takeStages(t, h, options);
        let error = 1e3;
        if (solved) {
          let squares = 0;
          for (let s = 0; s < STAGES; s++) squares += D[s]! * i2[s]!;
          error = Math.abs(h * squares) / toleranceI2;
          if (stateless) {
            let charge = 0;
            for (let s = 0; s < STAGES; s++) charge += D[s]! * i1[s]!;
            error = Math.max(error, Math.abs(h * charge) / toleranceI1);
          }
          for (let n = 0; n < nX; n++) {
            let sum = 0;
            for (let s = 0; s < STAGES; s++) sum += D[s]! * k[s * nX + n]!;
            const share = Math.abs(h * sum) / tolerance[n]!;
            if (share > error || share !== share) error = share;
          }
          if (error !== error) fail('the integration left the range of numbers');
        }
        if (error > 1 && h > SHORTEST * periodS) {
          wanted = h * Math.max(0.15, 0.9 * Math.sqrt(1 / Math.sqrt(error)));
          calm = 0;
          joining = false;
          continue;
        }
        if (!solved) fail('no voltages were found that fit all parts at one instant');
        if (eventful) {
          const ends = events.next(h, landing, k);
          if (ends > SHORTEST * periodS && ends < 0.999 * h) {
            forced = ends;
            joining = false;
            continue;
          }
        }
        if (carry) carryStep(h);
        if (record) {
          for (let n = 0; n < stride; n++) sheet[origin + n] = lastRow[n]!;
          for (let s = 0; s < STAGES; s++) sheet[origin + PLACE[s]! * stride + 1] = h * B[s]!;
          records.count += STAGES;
        }
        t = h === left ? stop : t + h;
        for (let n = 0; n < nX; n++) {
          const value = xStage[n]!;
          x[n] = value;
          lastK[n] = kEnd[n]!;
          if (value < low[n]!) low[n] = value;
          if (value > high[n]!) high[n] = value;
        }
        flowed += (h / 2) * (i2[0]! + i2[LAST]!);
        lastI2 = i2[LAST]!;
        lastI1 = i1[LAST]!;
        const ceased = eventful && events.cut();
        if (ceased) derive(t, options);
        else if (record) for (let n = 0, at = origin + LAST * stride; n < stride; n++) lastRow[n] = sheet[at + n]!;
        else if (eventful) for (let n = 0; n < nP; n++) lastRow[records.port + n] = portA[n]!;
        quiet = foresight.quiet(h);
        wanted =
          h *
          Math.min(
            ++calm > 3 || quiet ? 4 : 1.42,
            Math.max(0.2, 0.9 * Math.sqrt(1 / Math.sqrt(Math.max(error, 1e-9)))),
          );
        // Where a pulse begins nothing that went before says how long a step may be.
        if (starting) wanted = Math.min(wanted, first * tolerated);
        else if (afterStart) first = wanted / tolerated / 1.2;
        if (joining) wanted = Math.min(wanted, first * tolerated);
        afterStart = starting;
        starting = false;
        joining = false;
        lastH = ceased ? 0 : h;
        if (ceased) wanted = Math.max(wanted, usual, quiet ? QUIET * periodS : 0);
        else if (!landing && !capped && index >= 0) usual = Math.max(h, 0.8 * usual);
      }
    }
    return steps;
  }

  /** Solves the stages of one step from t on. @returns false when one has no solution */
  function takeStages(t: number, h: number, options: RunOptions): boolean {
    const [n2, n3, n4] = [2 * nX, 3 * nX, 4 * nX];
    for (let n = 0; n < nX; n++) base[n] = x[n]! + h * A10 * k[n]!;
    if (!takeStage(1, t, h, options)) return false;
    for (let n = 0; n < nX; n++) base[n] = x[n]! + h * (A20 * k[n]! + A21 * k[nX + n]!);
    if (!takeStage(2, t, h, options)) return false;
    for (let n = 0; n < nX; n++) base[n] = x[n]! + h * (A30 * k[n]! + A31 * k[nX + n]! + A32 * k[n2 + n]!);
    if (!takeStage(3, t, h, options)) return false;
    for (let n = 0; n < nX; n++) {
      base[n] = x[n]! + h * (A40 * k[n]! + A41 * k[nX + n]! + A42 * k[n2 + n]! + A43 * k[n3 + n]!);
    }
    if (!takeStage(4, t, h, options)) return false;
    for (let n = 0; n < nX; n++) {
      base[n] = x[n]! + h * (A50 * k[n]! + A52 * k[n2 + n]! + A53 * k[n3 + n]! + A54 * k[n4 + n]!);
    }
    return takeStage(5, t, h, options);
  }

  function takeStage(s: number, t: number, h: number, options: RunOptions): boolean {
    const ts = t + C[s]! * h;
    const e = emf(circuit, options.mains, ts);
    if (!stage.solve(e, options.fromRest ? ts : Infinity)) return false;
    const perGammaH = 1 / (GAMMA * h);
    for (let n = 0; n < nX; n++) k[s * nX + n] = change[n]! * perGammaH;
    i2[s] = sumOfSquares();
    if (stateless) i1[s] = sumOfCurrents();
    if (several && s % 2 === 1) foresight.tell(s >> 1);
    if (options.record) write(sheet, origin + PLACE[s]! * stride, ts, e, s * nX);
    if (options.carry) stage.sensitivity(sensitivity, s * nX * nX);
    return true;
  }

  /** Carries the sensitivity to the start across the step just accepted: the stages' matrices, one after the other. */
  function carryStep(h: number): void {
    const size = nX * nX;
    const [s1, s2, s3, s4] = [size, 2 * size, 3 * size, 4 * size];
    // The derivatives stand transposed: one column of the start after the other.
    for (let m = 0; m < size; m++) dBase[m] = h * A10 * dK[m]!;
    carryStage(1, h);
    for (let m = 0; m < size; m++) dBase[m] = h * (A20 * dK[m]! + A21 * dK[s1 + m]!);
    carryStage(2, h);
    for (let m = 0; m < size; m++) dBase[m] = h * (A30 * dK[m]! + A31 * dK[s1 + m]! + A32 * dK[s2 + m]!);
    carryStage(3, h);
    for (let m = 0; m < size; m++) {
      dBase[m] = h * (A40 * dK[m]! + A41 * dK[s1 + m]! + A42 * dK[s2 + m]! + A43 * dK[s3 + m]!);
    }
    carryStage(4, h);
    for (let m = 0; m < size; m++) {
      dBase[m] = h * (A50 * dK[m]! + A52 * dK[s2 + m]! + A53 * dK[s3 + m]! + A54 * dK[s4 + m]!);
    }
    carryStage(5, h);
    for (let m = 0; m < size; m++) lastDK[m] = dK[LAST * size + m]!;
    for (let c = 0; c < nX; c++) for (let n = 0; n < nX; n++) transition[n * nX + c] = dEnd[c * nX + n]!;
  }

  function carryStage(s: number, h: number): void {
    const size = nX * nX;
    const perGammaH = 1 / (GAMMA * h);
    const map = s * size;
    for (let c = 0; c < nX; c++) {
      const column = c * nX;
      for (let n = 0; n < nX; n++) dBase[column + n]! += transition[n * nX + c]!;
      for (let n = 0; n < nX; n++) {
        let dx = 0;
        for (let m = 0; m < nX; m++) dx += sensitivity[map + n * nX + m]! * dBase[column + m]!;
        dK[map + column + n] = (dx - dBase[column + n]!) * perGammaH;
        dEnd[column + n] = dx;
      }
    }
  }

  const integrator: Integrator = {
    get circuit() {
      return circuit;
    },
    stage,
    records,
    work,
    x,
    transition,
    low,
    high,
    get flowedA2s() {
      return flowed;
    },
    arena: new Arena(),
    load(next) {
      load(next);
      stage.load(next);
    },
    setTolerance(relative, swing, squaredA2s) {
      for (let n = 0; n < nX; n++) tolerance[n] = relative * swing[n]!;
      toleranceI2 = relative * squaredA2s;
      toleranceI1 = STATELESS_SHARE * relative * circuit.typicalA * periodS;
      tolerated = (relative / LOOSE) ** 0.25;
    },
    run,
    release() {
      if (idle.length >= MOST_IDLE) idle.shift();
      idle.push(integrator);
    },
  };
  return integrator;
}
