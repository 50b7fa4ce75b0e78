import { carried, GAMMA, STAGES } from './esdirk';
import type { StageSolver } from './stage';

const LAST = STAGES - 1;

/** How the end of a run moves with its start, carried along step by step. */
export interface Carry {
  /** d(end)/d(start), row by row. */
  readonly transition: Float64Array;
  /** A run begins: the end is the start. */
  begin(): void;
  /** Takes the derivatives afresh from the instant just solved. @param moves whether it moved the states too */
  derive(h: number, moves: boolean): void;
  /** A step begins with the derivatives the last one ended with. */
  open(): void;
  /** Notes how stage s, just solved, moves with its starting values. */
  note(s: number): void;
  /** Takes the step just accepted. @param h its length, s */
  accept(h: number): void;
}

export function carryOf(stage: StageSolver, states: number): Carry {
  const nX = states;
  const size = nX * nX;
  const transition = new Float64Array(size);
  /** Derivatives at each stage, transposed: one column of the start after the other. */
  const dK = new Float64Array(STAGES * size);
  const lastDK = new Float64Array(size);
  /** d(x - base)/d(base) of each stage: of a short one x hardly moves, and the difference of what moved would be rounding. */
  const sensitivity = new Float64Array(STAGES * size);
  const dBase = new Float64Array(size);
  const dEnd = new Float64Array(size);

  function acceptStage(s: number, h: number): void {
    const perGammaH = 1 / (GAMMA * h);
    const map = s * size;
    carried(s, h, dK, size, dBase);
    for (let c = 0; c < nX; c++) {
      const column = c * nX;
      for (let n = 0; n < nX; n++) dBase[column + n]! += transition[n * nX + c]!;
      for (let n = 0; n < nX; n++) {
        let change = 0;
        for (let m = 0; m < nX; m++) change += sensitivity[map + n * nX + m]! * dBase[column + m]!;
        dK[map + column + n] = change * perGammaH;
        dEnd[column + n] = dBase[column + n]! + change;
      }
    }
  }

  return {
    transition,
    begin() {
      transition.fill(0);
      for (let n = 0; n < nX; n++) transition[n * nX + n] = 1;
    },
    derive(h, moves) {
      stage.sensitivity(sensitivity, 0);
      for (let c = 0; c < nX; c++) {
        for (let n = 0; n < nX; n++) dBase[n] = transition[n * nX + c]!;
        for (let n = 0; n < nX; n++) {
          let change = 0;
          for (let m = 0; m < nX; m++) change += sensitivity[n * nX + m]! * dBase[m]!;
          lastDK[c * nX + n] = change / h;
          if (moves) transition[n * nX + c] = dBase[n]! + change;
        }
      }
    },
    open() {
      for (let m = 0; m < size; m++) dK[m] = lastDK[m]!;
    },
    note: (s) => stage.sensitivity(sensitivity, s * size),
    accept(h) {
      for (let s = 1; s < STAGES; s++) acceptStage(s, h);
      for (let m = 0; m < size; m++) lastDK[m] = dK[LAST * size + m]!;
      for (let c = 0; c < nX; c++) for (let n = 0; n < nX; n++) transition[n * nX + c] = dEnd[c * nX + n]!;
    },
  };
}
