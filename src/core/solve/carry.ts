import { carried, GAMMA, STAGES } from './esdirk';
import { PLACE, type Records } from './records';
import type { StageSolver } from './stage';

const LAST = STAGES - 1;

/** How the end of a run moves with its start, carried along step by step; and, where wanted, how every record does. */
export interface Carry {
  /** d(end)/d(start), row by row. */
  readonly transition: Float64Array;
  /** A run begins: the end is the start. @param rows whether the records are followed too */
  begin(rows: boolean): void;
  /** Takes the derivatives afresh from the instant just solved. @param moves whether it moved the states too */
  derive(h: number, moves: boolean): void;
  /** A step begins with the derivatives the last one ended with. */
  open(): void;
  /** Notes how stage s, just solved, moves with its starting values. */
  note(s: number): void;
  /** Takes the step just accepted, before its records are counted. @param h its length, s */
  accept(h: number): void;
  /** Moves every record, to first order, as the start is moved by `by`. */
  mend(by: Float64Array): void;
}

export function carryOf(stage: StageSolver, states: number, records: Records): Carry {
  const nX = states;
  const size = nX * nX;
  const transition = new Float64Array(size);
  /** Derivatives at each stage, transposed: one column of the start after the other. */
  const dK = new Float64Array(STAGES * size);
  const lastDK = new Float64Array(size);
  /** d(x)/d(base) of each stage. */
  const sensitivity = new Float64Array(STAGES * size);
  const dBase = new Float64Array(size);
  const dEnd = new Float64Array(size);
  const { stride } = records;
  /** What a record holds beside time and states: port currents, then nodes and loads. */
  const nP = records.x - records.port;
  const nRow = nP + records.float - records.node;
  const rowSize = nRow * nX;
  /** d(record)/d(base) of each stage. */
  const ofBase = new Float64Array(STAGES * rowSize);
  /** d(record)/d(start): for each record one row for each state of the start. */
  let moves = new Float64Array(0);
  const lastMoves = new Float64Array(stride * nX);
  let rows = false;

  /** Writes how a record moves with the start into `into` from `at` on, `dBase` and the stage's own maps known. */
  function writeMoves(into: Float64Array, at: number, s: number, ends: Float64Array, kFrom: number, k: Float64Array): void {
    const map = s * rowSize;
    for (let c = 0; c < nX; c++, at += stride) {
      for (let r = 0; r < nRow; r++) {
        let sum = 0;
        for (let m = 0; m < nX; m++) sum += ofBase[map + r * nX + m]! * dBase[c * nX + m]!;
        into[at + (r < nP ? records.port + r : records.node + r - nP)] = sum;
      }
      for (let n = 0; n < nX; n++) {
        into[at + records.x + n] = ends[c * nX + n]!;
        into[at + records.k + n] = k[kFrom + c * nX + n]!;
      }
    }
  }

  function acceptStage(s: number, h: number): void {
    const perGammaH = 1 / (GAMMA * h);
    const map = s * size;
    carried(s, h, dK, size, dBase);
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
    if (rows) writeMoves(moves, (records.count + PLACE[s]!) * stride * nX, s, dEnd, map, dK);
  }

  return {
    transition,
    begin(withRows) {
      rows = withRows && stage.straight;
      transition.fill(0);
      for (let n = 0; n < nX; n++) transition[n * nX + n] = 1;
    },
    derive(h, moved) {
      stage.sensitivity(sensitivity, 0);
      if (rows) stage.rowSensitivity(ofBase, 0);
      for (let c = 0; c < nX; c++) {
        const column = c * nX;
        for (let n = 0; n < nX; n++) dBase[column + n] = transition[n * nX + c]!;
        for (let n = 0; n < nX; n++) {
          let dx = 0;
          for (let m = 0; m < nX; m++) dx += sensitivity[n * nX + m]! * dBase[column + m]!;
          lastDK[column + n] = (dx - dBase[column + n]!) / h;
          dEnd[column + n] = dx;
          if (moved) transition[n * nX + c] = dx;
        }
      }
      if (rows) writeMoves(lastMoves, 0, 0, dEnd, 0, lastDK);
    },
    open() {
      for (let m = 0; m < size; m++) dK[m] = lastDK[m]!;
    },
    note(s) {
      stage.sensitivity(sensitivity, s * size);
      if (rows) stage.rowSensitivity(ofBase, s * rowSize);
    },
    accept(h) {
      const from = records.count * stride * nX;
      const width = stride * nX;
      if (rows && from + STAGES * width > moves.length) {
        const bigger = new Float64Array(Math.max(2 * moves.length, from + STAGES * width, 128 * width));
        bigger.set(moves);
        moves = bigger;
      }
      if (rows) for (let n = 0; n < width; n++) moves[from + n] = lastMoves[n]!;
      for (let s = 1; s < STAGES; s++) acceptStage(s, h);
      for (let m = 0; m < size; m++) lastDK[m] = dK[LAST * size + m]!;
      for (let c = 0; c < nX; c++) for (let n = 0; n < nX; n++) transition[n * nX + c] = dEnd[c * nX + n]!;
      if (rows) for (let n = 0; n < width; n++) lastMoves[n] = moves[from + LAST * width + n]!;
    },
    mend(by) {
      const { data, count } = records;
      for (let r = 0, at = 0; r < count; r++) {
        for (let c = 0; c < nX; c++, at += stride) {
          const delta = by[c]!;
          for (let n = records.port; n < stride; n++) data[r * stride + n]! += delta * moves[at + n]!;
        }
      }
    },
  };
}
