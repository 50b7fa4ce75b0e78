import { solveLinear } from './dense';
import type { Level, StageLayout } from './layout';
import { driveOf, ownCurrent } from './port-law';
import { DIODE, type PortState } from './port-state';
import { elimination, LAW, type Work } from './work';

/** Solves for the currents given the drives, V. @returns false when no solution was found */
export type SolvesPorts = (d: Level, u: Float64Array) => boolean;

/**
 * Ports that see the potential of a winding that floats: a bridge with a fault. The potential is where what flows into
 * the winding flows out again.
 * @param settle finds the currents where every potential is known
 */
export function floatingPorts(at: StageLayout, state: PortState, work: Work, settle: SolvesPorts): SolvesPorts {
  const { bends: n, ports: all } = at;
  const { law, theta, i, live, slope, floatOf, floatSign, floatV } = state;
  const floats = floatV.length;
  const matrix = new Float64Array((n + floats) ** 2);
  const right = new Float64Array(n + floats);
  const shifted = new Float64Array(n);
  const drives = new Float64Array(n);
  const active = new Int32Array(n);
  const solveWork = n * (n + LAW) + elimination(n + floats);

  function shift(u: Float64Array): void {
    for (let k = 0; k < n; k++) {
      shifted[k] = u[k]! + (floatOf[k]! < 0 ? 0 : floatSign[k]! * floatV[floatOf[k]!]!);
    }
  }

  /** Newton's method on the currents that flow and the floating potentials at once, from where they last stood. */
  function together(d: Level, u: Float64Array): boolean {
    const { leakS, typicalA, peakV } = state;
    for (let iteration = 0; iteration < 25; iteration++) {
      work.done += solveWork;
      shift(u);
      let worst = 0;
      let m = 0;
      for (let k = 0; k < n; k++) {
        const drive = driveOf(at, state, d, shifted, k);
        drives[k] = drive;
        const found = ownCurrent(at, state, d, k, drive);
        if (!live[k]) {
          if (Math.abs(found - i[k]!) * d[at.ohm + k]! > 1e-9) worst = Math.max(worst, 2);
          i[k] = found;
          continue;
        }
        right[m] = found - i[k]!;
        active[m++] = k;
        const weight = (Math.abs(found - i[k]!) * d[at.ohm + k]!) / (1e-9 * (law[k] === DIODE ? theta[k]! : 1));
        if (weight > worst) worst = weight;
      }
      const size = m + floats;
      for (let r = 0; r < m; r++) {
        const k = active[r]!;
        for (let c = 0; c < m; c++) matrix[r * size + c] = r === c ? 1 : slope[k]! * d[at.z + k * all + active[c]!]!;
        for (let f = 0; f < floats; f++) matrix[r * size + m + f] = floatOf[k] === f ? -slope[k]! * floatSign[k]! : 0;
      }
      let balanced = worst < 1;
      for (let f = 0; f < floats; f++) {
        const row = (m + f) * size;
        for (let c = 0; c < size; c++) matrix[row + c] = 0;
        let sum = 0;
        for (let k = 0; k < n; k++) {
          if (floatOf[k] !== f) continue;
          sum += floatSign[k]! * (i[k]! + leakS * (drives[k]! - d[at.z + k * all + k]! * i[k]!));
          matrix[row + m + f]! += leakS;
          for (let c = 0; c < m; c++) {
            const j = active[c]!;
            matrix[row + c]! += floatSign[k]! * ((j === k ? 1 : 0) - leakS * d[at.z + k * all + j]!);
          }
        }
        right[m + f] = -sum;
        balanced &&= Math.abs(sum) < 1e-13 * typicalA;
      }
      if (balanced) return true;
      if (!solveLinear(matrix, size, right)) return false;
      let close = true;
      for (let r = 0; r < m; r++) {
        const k = active[r]!;
        i[k]! += right[r]!;
        close &&= Math.abs(right[r]!) * d[at.ohm + k]! < 1e-5 * (law[k] === DIODE ? theta[k]! : 1);
      }
      for (let f = 0; f < floats; f++) {
        floatV[f]! += right[m + f]!;
        close &&= Math.abs(right[m + f]!) < 1e-7 * peakV;
      }
      if (close) return true;
    }
    return false;
  }

  /** Sum of the currents into a floating winding, leaks included; zero where its potential is right. */
  function imbalance(d: Level, u: Float64Array, f: number): number {
    let sum = 0;
    for (let k = 0; k < n; k++) {
      if (floatOf[k] !== f) continue;
      let v = u[k]!;
      for (let j = 0; j < n; j++) v -= d[at.z + k * all + j]! * i[j]!;
      sum += floatSign[k]! * (i[k]! + state.leakS * v);
    }
    return sum;
  }

  /** d(imbalance)/d(potential f), the other potentials held. */
  function imbalanceSlope(d: Level, f: number): number {
    const { leakS } = state;
    for (let k = 0; k < n; k++) {
      for (let j = 0; j < n; j++) matrix[k * n + j] = j === k ? 1 : slope[k]! * d[at.z + k * all + j]!;
      right[k] = floatOf[k] === f ? slope[k]! * floatSign[k]! : 0;
    }
    if (!solveLinear(matrix, n, right)) return 4 * leakS;
    let sum = 0;
    for (let k = 0; k < n; k++) {
      if (floatOf[k] === f) sum += floatSign[k]! * right[k]! + leakS;
    }
    return Math.max(sum, leakS);
  }

  /** The slow and sure way to one potential: the currents into it only grow with it. */
  function oneByOne(d: Level, u: Float64Array, f: number): boolean {
    const { typicalA, peakV } = state;
    let low = -4 * peakV;
    let high = 4 * peakV;
    let x = floatV[f]!;
    for (let iteration = 0; iteration < 100; iteration++) {
      work.done += solveWork;
      floatV[f] = x;
      shift(u);
      if (!settle(d, shifted)) return false;
      const miss = imbalance(d, shifted, f);
      if (Math.abs(miss) < 1e-13 * typicalA || high - low < 1e-13 * peakV) return true;
      if (miss > 0) high = x;
      else low = x;
      let next = x - miss / imbalanceSlope(d, f);
      if (Math.abs(next - x) < 1e-14 * peakV) return true;
      if (!(next > low && next < high) || iteration > 30) next = (low + high) / 2;
      x = next;
    }
    return true;
  }

  return (d, u) => {
    if (together(d, u)) return true;
    for (let round = 0; round < (floats > 1 ? 8 : 1); round++) {
      for (let f = 0; f < floats; f++) if (!oneByOne(d, u, f)) return false;
    }
    return true;
  };
}
