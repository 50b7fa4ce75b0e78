import { solveLinear } from './dense';
import { floatingPorts } from './floating';
import type { Level, StageLayout } from './layout';
import { driveOf, OFF, ownCurrent } from './port-law';
import { DIODE, VALVE, type PortState } from './port-state';
import { elimination, LAW, type Work } from './work';
import { wrightOmega } from './wright-omega';

const MOST_NEWTON = 60;

export interface PortSolver {
  /** Solves for the currents given the drives `u`, V, which it changes. @returns false when no solution was found */
  solve(d: Level, u: Float64Array): boolean;
}

/**
 * Finds the currents of all ports at once: each diode's law is inverted in closed form against its own loop, and where
 * several conduct together Newton's method joins them. The last answer is the starting point of the next.
 */
export function portSolver(at: StageLayout, state: PortState, work: Work): PortSolver {
  const { bends: n, ports: all } = at;
  const { law, theta, saturation, i, live, slope, more, alive } = state;
  const floats = state.floatV.length;
  const was = new Uint8Array(n);
  const matrix = new Float64Array(n * n);
  const right = new Float64Array(n);
  const active = new Int32Array(n);
  /** Work of one round over all ports, and of one that also solves for all of them. */
  const roundWork = n * (n + LAW);
  const solveWork = roundWork + elimination(n);
  const floating = floats > 0 ? floatingPorts(at, state, work, settle) : null;

  function settle(d: Level, u: Float64Array): boolean {
    // Sweeps suffice while what conducts does not pull at each other, as the two rails of a split supply hardly do.
    // What conducted last goes first; the others then see its new current.
    for (let sweep = 0; sweep < 3; sweep++) {
      work.done += roundWork;
      let moved = 0;
      let count = 0;
      let changed = sweep > 0;
      for (let k = 0; k < n; k++) was[k] = live[k]!;
      for (let turn = 1; turn >= 0; turn--) {
        for (let k = 0; k < n; k++) {
          if (was[k] !== turn) continue;
          const amps = ownCurrent(at, state, d, k, driveOf(at, state, d, u, k));
          const change = Math.abs(amps - i[k]!) * d[at.ohm + k]!;
          if (change > moved) moved = change;
          i[k] = amps;
          if (live[k] !== turn) changed = true;
          count += live[k]!;
        }
      }
      if (moved < 1e-11 || n === 1 || (!changed && count < 2)) return found(d);
      if (count > 1 && sweep > 0 && moved > 1e-3) break;
    }
    return newton(d, u);
  }

  /** Takes the solution as found: notes which ports conduct, for the next. */
  function found(d: Level): true {
    let count = 0;
    for (let k = 0; k < n; k++) {
      if (live[k]) alive[count++] = k;
      else if (law[k] === DIODE || law[k] === VALVE) i[k] = -saturation[k]!;
    }
    let apart = true;
    for (let a = 0; a < count && apart; a++) {
      const k = alive[a]!;
      if (law[k] !== DIODE) apart = false;
      for (let b = 0; b < count; b++) if (b !== a && d[at.z + k * all + alive[b]!] !== 0) apart = false;
    }
    state.count = count;
    state.apart = apart;
    return true;
  }

  /**
   * Two diodes that pull at each other: one current is the unknown, the other follows in closed form.
   * @returns false when that does not settle at once, or when another port joins or one of them ceases
   */
  function pair(d: Level, u: Float64Array): boolean {
    const a = alive[0]!;
    const b = alive[1]!;
    if (law[a] !== DIODE || law[b] !== DIODE) return false;
    const zab = d[at.z + a * all + b]!;
    const zba = d[at.z + b * all + a]!;
    const driveA = u[a]! + d[at.leak + a]!;
    const driveB = u[b]! + d[at.leak + b]!;
    let iB = i[b]! + saturation[b]!;
    for (let iteration = 0; iteration < 8; iteration++) {
      const xA = (driveA - zab * iB) / theta[a]! + d[at.shift + a]!;
      if (xA < OFF) return false;
      const wA = wrightOmega(xA);
      const iA = wA * d[at.perAmp + a]!;
      const sA = wA / ((1 + wA) * d[at.ohm + a]!);
      const xB = (driveB - zba * iA) / theta[b]! + d[at.shift + b]!;
      if (xB < OFF) return false;
      const wB = wrightOmega(xB);
      const sB = wB / ((1 + wB) * d[at.ohm + b]!);
      const step = (wB * d[at.perAmp + b]! - iB) / (1 - sA * zab * sB * zba);
      iB += step;
      if (Math.abs(step) * d[at.ohm + b]! < 1e-5 * theta[b]! && iB > 0) {
        more[a] = iA - sA * zab * step;
        more[b] = iB;
        slope[a] = sA;
        slope[b] = sB;
        return othersOff(d, u);
      }
      if (step !== step) return false;
    }
    return false;
  }

  /** Takes the currents in `more` if with them none of the ports that did not conduct begins to. */
  function othersOff(d: Level, u: Float64Array): boolean {
    const { count } = state;
    for (let j = 0; j < n; j++) {
      if (live[j]) continue;
      let drive = u[j]! + d[at.leak + j]!;
      for (let a = 0; a < count; a++) drive -= d[at.z + j * all + alive[a]!]! * more[alive[a]!]!;
      if (drive > d[at.off + j]!) return false;
      slope[j] = 0;
      i[j] = law[j] === DIODE ? -saturation[j]! : 0;
    }
    for (let a = 0; a < count; a++) i[alive[a]!] = more[alive[a]!]! - saturation[alive[a]!]!;
    return true;
  }

  /** What rounding leaves of the terms in the port equations, in the units Newton's misses are weighed in. */
  function roundoff(d: Level, u: Float64Array): number {
    let most = 0;
    for (let k = 0; k < n; k++) {
      let terms = Math.abs(u[k]!);
      for (let j = 0; j < n; j++) terms += Math.abs(d[at.z + k * all + j]! * i[j]!);
      most = Math.max(most, terms / (law[k] === DIODE ? theta[k]! : 1));
    }
    return 1e-4 * most;
  }

  /** Newton's method on the ports that conduct, the others checked until none joins. */
  function newton(d: Level, u: Float64Array): boolean {
    let last = Infinity;
    let damping = 1;
    for (let iteration = 0; iteration < MOST_NEWTON; iteration++) {
      work.done += solveWork;
      let worst = 0;
      let m = 0;
      for (let k = 0; k < n; k++) {
        const drive = driveOf(at, state, d, u, k);
        if ((law[k] === DIODE || law[k] === VALVE) && drive <= d[at.off + k]! && i[k] === -saturation[k]!) {
          live[k] = 0;
          slope[k] = 0;
          continue;
        }
        const miss = i[k]! - ownCurrent(at, state, d, k, drive);
        active[m] = k;
        right[m++] = -miss;
        // In volts, against a fraction of the diode's own: a nanovolt or so.
        const weight = (Math.abs(miss) * d[at.ohm + k]!) / (1e-9 * (law[k] === DIODE ? theta[k]! : 1));
        if (weight > worst) worst = weight;
      }
      // Where large terms cancel, rounding leaves more than that: then it is enough that nothing gets better.
      if (worst < 1 || (worst >= 0.5 * last && worst < 1e3 + roundoff(d, u))) return found(d);
      damping = worst > 0.9 * last ? Math.max(0.2, damping * 0.6) : Math.min(1, damping * 1.5);
      last = worst;
      if (m === 2) {
        const a = active[0]!;
        const b = active[1]!;
        const ab = slope[a]! * d[at.z + a * all + b]!;
        const ba = slope[b]! * d[at.z + b * all + a]!;
        const det = 1 - ab * ba;
        const ra = right[0]!;
        const rb = right[1]!;
        if (det === 0) return false;
        right[0] = (ra - ab * rb) / det;
        right[1] = (rb - ba * ra) / det;
      } else if (m > 2) {
        for (let r = 0; r < m; r++) {
          const k = active[r]!;
          for (let c = 0; c < m; c++) matrix[r * m + c] = r === c ? 1 : slope[k]! * d[at.z + k * all + active[c]!]!;
        }
        if (!solveLinear(matrix, m, right)) return false;
      }
      // The method doubles its digits: after a correction this small there is nothing left to look for.
      let close = damping === 1;
      for (let r = 0; r < m; r++) {
        const k = active[r]!;
        const move = damping * right[r]!;
        i[k]! += move;
        close &&= Math.abs(move) * d[at.ohm + k]! < 1e-5 * (law[k] === DIODE ? theta[k]! : 1);
      }
      if (close) return found(d);
    }
    return false;
  }

  return {
    solve(d, u) {
      for (let h = all - 1; h >= n; h--) {
        for (let k = 0; k < h; k++) u[k]! -= d[at.z + k * all + h]! * u[h]!;
      }
      if (floating) {
        if (!floating(d, u)) return false;
      } else {
        // What conducted together at the last instant most likely still does.
        const solved = state.apart ? settle(d, u) : (state.count === 2 && pair(d, u)) || newton(d, u) || settle(d, u);
        if (!solved) return false;
      }
      for (let h = n; h < all; h++) {
        let drive = u[h]!;
        for (let j = 0; j < h; j++) drive -= d[at.z + h * all + j]! * i[j]!;
        i[h] = drive / d[at.ohm + h]!;
      }
      return true;
    },
  };
}
