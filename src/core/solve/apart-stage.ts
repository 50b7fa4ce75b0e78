import type { Level, StageLayout } from './layout';
import { OFF } from './port-law';
import { DIODE, OPEN, type PortState } from './port-state';
import { wrightOmega } from './wright-omega';

/**
 * The usual instant: the same diodes conduct as at the last, and do not pull at each other. Each then stands in a loop of
 * its own, and everything is in closed form. What that takes from the step size stands in one row for each port:
 *   per volt of the common EMF, constant, per unit of what is given, per ampere of each port that bends
 * which is the omega function's argument of a diode, and the current of a load of alternating current.
 */
export interface ApartStage {
  /** Whether circuits of this shape have such instants: diodes alone, every potential tied down. */
  readonly usable: boolean;
  /** Completes a level whose maps stand. @param uE EMF of each port per volt of the common one */
  finish(d: Level, uE: Float64Array): void;
  /**
   * Finds the currents with the common EMF at `e`, and the first `outcomes` of what follows from them.
   * @returns false, and nothing of use, where another port joins or one of them ceases
   */
  solve(d: Level, e: number, given: Float64Array, outcome: Float64Array, outcomes: number): boolean;
  /** Voltage across a port that carries next to nothing at the instant just solved, V. */
  driveV(d: Level, port: number): number;
}

export function apartStage(at: StageLayout, state: PortState): ApartStage {
  const { ports, bends, given: nG, rowWidth } = at;
  const { alive, more, slope, i, theta, saturation, law } = state;
  const outcomesAll = at.states + at.rails;
  /** Argument of each waiting diode's omega function. */
  const waiting = new Float64Array(bends);

  return {
    usable: state.floatV.length === 0 && law.subarray(0, bends).every((l) => l === DIODE || l === OPEN),
    finish(d, uE) {
      for (let p = 0, to = at.row; p < ports; p++, to += rowWidth) {
        d[to] = uE[p]!;
        d[to + 1] = d[at.uC + p]!;
        for (let g = 0; g < nG; g++) d[to + 2 + g] = d[at.u + p * nG + g]!;
      }
      // Loads of alternating current pass on their drive as they were eliminated.
      for (let h = ports - 1; h >= bends; h--) {
        for (let k = 0; k < h; k++) {
          const share = d[at.z + k * ports + h]!;
          for (let c = 0; c < 2 + nG; c++) d[at.row + k * rowWidth + c]! -= share * d[at.row + h * rowWidth + c]!;
        }
      }
      for (let k = 0, to = at.row; k < bends; k++, to += rowWidth) {
        const per = law[k] === OPEN ? 0 : 1 / theta[k]!;
        d[to + 1] = law[k] === OPEN ? -Infinity : (d[to + 1]! + d[at.leak + k]!) * per + d[at.shift + k]!;
        d[to]! *= per;
        for (let g = 0; g < nG; g++) d[to + 2 + g]! *= per;
        for (let j = 0; j < bends; j++) d[to + 2 + nG + j] = -d[at.z + k * ports + j]! * per;
      }
      for (let h = bends, to = at.row + bends * rowWidth; h < ports; h++, to += rowWidth) {
        for (let j = 0; j < bends; j++) {
          d[to + 2 + nG + j] = -d[at.z + h * ports + j]!;
          d[to + 1]! += d[at.z + h * ports + j]! * restA(j);
        }
        for (let j = bends; j < h; j++) {
          const ohm = d[at.z + h * ports + j]!;
          for (let c = 0; c < rowWidth; c++) d[to + c]! -= ohm * d[at.row + j * rowWidth + c]!;
        }
        for (let c = 0; c < rowWidth; c++) d[to + c]! /= d[at.ohm + h]!;
      }
      for (let n = 0; n < outcomesAll; n++) {
        let sum = d[at.yC + n]!;
        for (let p = 0; p < bends; p++) sum -= d[at.yP + n * ports + p]! * restA(p);
        d[at.rest + n] = sum;
      }
    },
    solve(d, e, given, outcome, outcomes) {
      const { count } = state;
      for (let a = 0; a < count; a++) {
        const k = alive[a]!;
        const from = at.row + k * rowWidth;
        let z = d[from]! * e + d[from + 1]!;
        for (let g = 0; g < nG; g++) z += d[from + 2 + g]! * given[g]!;
        if (!(z >= OFF)) return false;
        const w = wrightOmega(z);
        more[k] = w * d[at.perAmp + k]!;
        slope[k] = w / ((1 + w) * d[at.ohm + k]!);
      }
      for (let p = 0, a = 0, from = at.row; p < bends; p++, from += rowWidth) {
        if (a < count && alive[a] === p) {
          a++;
          continue;
        }
        let z = d[from]! * e + d[from + 1]!;
        for (let g = 0; g < nG; g++) z += d[from + 2 + g]! * given[g]!;
        for (let b = 0; b < count; b++) z += d[from + 2 + nG + alive[b]!]! * more[alive[b]!]!;
        if (z > OFF) return false;
        waiting[p] = z;
        i[p] = -restA(p);
      }
      for (let a = 0; a < count; a++) i[alive[a]!] = more[alive[a]!]! - saturation[alive[a]!]!;
      for (let h = bends, from = at.row + bends * rowWidth; h < ports; h++, from += rowWidth) {
        let amps = d[from]! * e + d[from + 1]!;
        for (let g = 0; g < nG; g++) amps += d[from + 2 + g]! * given[g]!;
        for (let b = 0; b < count; b++) amps += d[from + 2 + nG + alive[b]!]! * more[alive[b]!]!;
        i[h] = amps;
      }
      for (let n = 0; n < outcomes; n++) {
        let sum = d[at.rest + n]!;
        for (let g = 0, from = at.y + n * nG; g < nG; g++) sum += d[from + g]! * given[g]!;
        const from = at.yP + n * ports;
        for (let a = 0; a < count; a++) sum += d[from + alive[a]!]! * more[alive[a]!]!;
        for (let h = bends; h < ports; h++) sum += d[from + h]! * i[h]!;
        outcome[n] = sum;
      }
      return true;
    },
    driveV: (d, port) => (waiting[port]! - d[at.shift + port]!) * theta[port]!,
  };

  /** What a port that does not conduct lets through backwards, A. */
  function restA(p: number): number {
    return law[p] === DIODE ? saturation[p]! : 0;
  }
}
