import type { Circuit } from '@/core/circuit/assemble';
import { invert, solveLinear } from './dense';
import { elimination, LAW, type Work } from './work';
import { wrightOmega } from './wright-omega';

/** Below this argument of the omega function a diode carries its saturation current and nothing else. */
const OFF = -40;
const MOST_NEWTON = 60;
/** How a port's law is told in the loops below. */
const LAWS = ['diode', 'resistor', 'open', 'valve'];

/**
 * Length of the table of the port equations: what they take from the step size alone, in this order.
 *   z       impedance between ports, ohm: v[k] = u[k] - sum of z[k][j]*i[j]
 *   ohm     own impedance and series resistance of each port, ohm
 *   shift   where the omega function's argument starts: ln of the scaled saturation current
 *   perAmp  theta/ohm, A per unit of omega
 *   leakV   what the saturation currents of all other ports add to a port's drive, V
 *   offV    below this drive a port carries its saturation current and nothing else, V
 */
export function portTableLength(ports: number): number {
  return ports * ports + 5 * ports;
}

/**
 * Finds the currents of all ports at once: each diode's law is inverted in closed form against its own loop (Wright
 * omega), and where several conduct together Newton's method joins them. While at most one conducts no iteration is
 * needed. `i` holds the last answer and is the starting point of the next.
 */
export function portSolver(shape: Circuit, from: number, work: Work) {
  const { ports, floats } = shape;
  const all = ports.length;
  /** Alternating-current loads stand last; being linear they are eliminated with the rest of what is linear. */
  const n = all - shape.acPorts.length;
  const oZ = from;
  const oOhm = oZ + all * all;
  const oShift = oOhm + all;
  const oPerAmp = oShift + all;
  const oLeak = oPerAmp + all;
  const oOff = oLeak + all;
  const i = new Float64Array(all);

  const live = new Uint8Array(n);
  const was = new Uint8Array(n);
  const drives = new Float64Array(n);
  /** d(i)/d(drive) of each port against its own loop, S. */
  const slope = new Float64Array(n);
  const law = Uint8Array.from(ports, (p) => LAWS.indexOf(p.law));
  const theta = new Float64Array(all);
  const saturation = new Float64Array(all);
  const perveance = new Float64Array(all);
  const series = new Float64Array(all);
  const matrix = new Float64Array((n + floats) ** 2);
  const right = new Float64Array(n + floats);
  const floatV = new Float64Array(floats);
  const floatOf = Int32Array.from(ports, (p) => p.floating);
  const floatSign = Float64Array.from(ports, (p) => p.floatSign);
  const shifted = new Float64Array(n);
  const active = new Int32Array(n);
  const inverse = new Float64Array(matrix.length);
  let leakS = 0;
  let typicalA = 0;
  let peakV = 0;
  let value = 0;
  /** The ports that conducted at the last instant, and whether they do so without pulling at each other. */
  const alive = new Int32Array(n);
  let count = 0;
  let apart = false;
  /** Current above the saturation current, A. */
  const more = new Float64Array(n);
  /** Work of one round over all ports, and of one that also solves for all of them. */
  const roundWork = n * (n + LAW);
  const solveWork = roundWork + elimination(n + floats);

  /** Current of port k alone, given what the others carry. Leaves its slope in `slope` and whether it conducts in `live`. */
  function own(table: Float64Array, k: number, drive: number): number {
    if (law[k] === 1) {
      live[k] = 1;
      slope[k] = 1 / table[oOhm + k]!;
      return drive / table[oOhm + k]!;
    }
    if (law[k] === 2) {
      live[k] = 0;
      slope[k] = 0;
      return 0;
    }
    if (law[k] === 3) return spaceCharge(table[oOhm + k]!, k, drive);
    const x = drive / theta[k]! + table[oShift + k]!;
    if (x < OFF) {
      live[k] = 0;
      slope[k] = 0;
      return -saturation[k]!;
    }
    const w = wrightOmega(x);
    live[k] = 1;
    slope[k] = w / ((1 + w) * table[oOhm + k]!);
    return w * table[oPerAmp + k]! - saturation[k]!;
  }

  /**
   * Current of a valve against its own loop: s = sqrt(v) solves ohm*K*s^3 + s^2 = drive. Newton's method from above, where
   * the cubic bends one way only, never overshoots.
   */
  function spaceCharge(ohm: number, k: number, drive: number): number {
    if (drive <= 0) {
      live[k] = 0;
      slope[k] = 0;
      return 0;
    }
    const cubic = ohm * perveance[k]!;
    let s = Math.min(Math.sqrt(drive), Math.cbrt(drive / cubic));
    for (let round = 0; round < 40; round++) {
      const step = ((cubic * s + 1) * s * s - drive) / ((3 * cubic * s + 2) * s);
      s -= step;
      if (!(step > 1e-15 * s)) break;
    }
    const gain = 1.5 * perveance[k]! * s;
    live[k] = 1;
    slope[k] = gain / (1 + ohm * gain);
    return perveance[k]! * s * s * s;
  }

  function driveOf(table: Float64Array, u: Float64Array, k: number): number {
    let drive = u[k]!;
    const row = k * all;
    for (let j = 0; j < n; j++) if (j !== k) drive -= table[oZ + row + j]! * i[j]!;
    return drive;
  }

  function settle(table: Float64Array, u: Float64Array): boolean {
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
          value = own(table, k, driveOf(table, u, k));
          const change = Math.abs(value - i[k]!) * table[oOhm + k]!;
          if (change > moved) moved = change;
          i[k] = value;
          if (live[k] !== turn) changed = true;
          count += live[k]!;
        }
      }
      if (moved < 1e-11 || n === 1 || (!changed && count < 2)) return found(table);
      if (count > 1 && sweep > 0 && moved > 1e-3) break;
    }
    return newton(table, u);
  }

  /** Takes the solution as found: notes which ports conduct, for the next. */
  function found(table: Float64Array): true {
    count = 0;
    for (let k = 0; k < n; k++) {
      if (live[k]) alive[count++] = k;
      else if (law[k] === 0 || law[k] === 3) i[k] = -saturation[k]!;
    }
    apart = true;
    for (let a = 0; a < count && apart; a++) {
      const k = alive[a]!;
      if (law[k] !== 0) apart = false;
      for (let b = 0; b < count; b++) if (b !== a && table[oZ + k * all + alive[b]!] !== 0) apart = false;
    }
    return true;
  }

  /**
   * The usual instant: the same ports conduct as at the last, and do not pull at each other. No iteration, and only a
   * comparison for each of the others. @returns false when that is not how it is
   */
  function asBefore(table: Float64Array, u: Float64Array): boolean {
    for (let a = 0; a < count; a++) {
      const k = alive[a]!;
      const drive = u[k]! + table[oLeak + k]!;
      const x = drive / theta[k]! + table[oShift + k]!;
      if (x < OFF) return false;
      const w = wrightOmega(x);
      more[k] = w * table[oPerAmp + k]!;
      slope[k] = w / ((1 + w) * table[oOhm + k]!);
    }
    return othersOff(table, u);
  }

  /** Takes the currents in `more` if with them none of the ports that did not conduct begins to. */
  function othersOff(table: Float64Array, u: Float64Array): boolean {
    for (let j = 0; j < n; j++) {
      if (live[j]) continue;
      let drive = u[j]! + table[oLeak + j]!;
      for (let a = 0; a < count; a++) drive -= table[oZ + j * all + alive[a]!]! * more[alive[a]!]!;
      if (drive > table[oOff + j]!) return false;
      slope[j] = 0;
      i[j] = law[j] === 0 ? -saturation[j]! : 0;
    }
    for (let a = 0; a < count; a++) {
      const k = alive[a]!;
      i[k] = more[k]! - saturation[k]!;
    }
    return true;
  }

  /**
   * Two ports that pull at each other: one current is the unknown, the other follows in closed form.
   * @returns false when that does not settle at once, or when another port joins or one of them ceases
   */
  function pair(table: Float64Array, u: Float64Array): boolean {
    const a = alive[0]!;
    const b = alive[1]!;
    if (law[a] !== 0 || law[b] !== 0) return false;
    const zab = table[oZ + a * all + b]!;
    const zba = table[oZ + b * all + a]!;
    const driveA = u[a]! + table[oLeak + a]!;
    const driveB = u[b]! + table[oLeak + b]!;
    let iB = i[b]! + saturation[b]!;
    for (let iteration = 0; iteration < 8; iteration++) {
      const xA = (driveA - zab * iB) / theta[a]! + table[oShift + a]!;
      if (xA < OFF) return false;
      const wA = wrightOmega(xA);
      const iA = wA * table[oPerAmp + a]!;
      const sA = wA / ((1 + wA) * table[oOhm + a]!);
      const xB = (driveB - zba * iA) / theta[b]! + table[oShift + b]!;
      if (xB < OFF) return false;
      const wB = wrightOmega(xB);
      const sB = wB / ((1 + wB) * table[oOhm + b]!);
      const step = (wB * table[oPerAmp + b]! - iB) / (1 - sA * zab * sB * zba);
      iB += step;
      if (Math.abs(step) * table[oOhm + b]! < 1e-5 * theta[b]! && iB > 0) {
        more[a] = iA - sA * zab * step;
        more[b] = iB;
        slope[a] = sA;
        slope[b] = sB;
        return othersOff(table, u);
      }
      if (step !== step) return false;
    }
    return false;
  }

  /** What rounding leaves of the terms in the port equations, in the units Newton's misses are weighed in. */
  function roundoff(table: Float64Array, u: Float64Array): number {
    let most = 0;
    for (let k = 0; k < n; k++) {
      let terms = Math.abs(u[k]!);
      for (let j = 0; j < n; j++) terms += Math.abs(table[oZ + k * all + j]! * i[j]!);
      most = Math.max(most, terms / (law[k] === 0 ? theta[k]! : 1));
    }
    return 1e-4 * most;
  }

  /** Newton's method on the ports that conduct, the others checked until none joins. */
  function newton(table: Float64Array, u: Float64Array): boolean {
    let last = Infinity;
    let damping = 1;
    for (let iteration = 0; iteration < MOST_NEWTON; iteration++) {
      work.done += solveWork;
      let worst = 0;
      let m = 0;
      for (let k = 0; k < n; k++) {
        const drive = driveOf(table, u, k);
        if ((law[k] === 0 || law[k] === 3) && drive <= table[oOff + k]! && i[k] === -saturation[k]!) {
          live[k] = 0;
          slope[k] = 0;
          continue;
        }
        const miss = i[k]! - own(table, k, drive);
        active[m] = k;
        right[m++] = -miss;
        // In volts, against a fraction of the diode's own: a nanovolt or so.
        const weight = (Math.abs(miss) * table[oOhm + k]!) / (1e-9 * (law[k] === 0 ? theta[k]! : 1));
        if (weight > worst) worst = weight;
      }
      // Where large terms cancel, rounding leaves more than that: then it is enough that nothing gets better.
      if (worst < 1 || (worst >= 0.5 * last && worst < 1e3 + roundoff(table, u))) return found(table);
      damping = worst > 0.9 * last ? Math.max(0.2, damping * 0.6) : Math.min(1, damping * 1.5);
      last = worst;
      if (m === 2) {
        const a = active[0]!;
        const b = active[1]!;
        const ab = slope[a]! * table[oZ + a * all + b]!;
        const ba = slope[b]! * table[oZ + b * all + a]!;
        const det = 1 - ab * ba;
        const ra = right[0]!;
        const rb = right[1]!;
        if (det === 0) return false;
        right[0] = (ra - ab * rb) / det;
        right[1] = (rb - ba * ra) / det;
      } else if (m > 2) {
        for (let r = 0; r < m; r++) {
          const k = active[r]!;
          for (let c = 0; c < m; c++) matrix[r * m + c] = r === c ? 1 : slope[k]! * table[oZ + k * all + active[c]!]!;
        }
        if (!solveLinear(matrix, m, right)) return false;
      }
      // The method doubles its digits: after a correction this small there is nothing left to look for.
      let close = damping === 1;
      for (let r = 0; r < m; r++) {
        const k = active[r]!;
        const move = damping * right[r]!;
        i[k]! += move;
        close &&= Math.abs(move) * table[oOhm + k]! < 1e-5 * (law[k] === 0 ? theta[k]! : 1);
      }
      if (close) return found(table);
    }
    return false;
  }

  /** Sum of the currents into a floating winding, leaks included; zero where its potential is right. */
  function imbalance(table: Float64Array, u: Float64Array, f: number): number {
    let sum = 0;
    for (let k = 0; k < n; k++) {
      if (floatOf[k] !== f) continue;
      let v = u[k]!;
      for (let j = 0; j < n; j++) v -= table[oZ + k * all + j]! * i[j]!;
      sum += floatSign[k]! * (i[k]! + leakS * v);
    }
    return sum;
  }

  /** d(i)/d(potential f), the other potentials held, into `right`. */
  function imbalanceSlope(table: Float64Array, f: number): number {
    for (let k = 0; k < n; k++) {
      for (let j = 0; j < n; j++) matrix[k * n + j] = j === k ? 1 : slope[k]! * table[oZ + k * all + j]!;
      right[k] = floatOf[k] === f ? slope[k]! * floatSign[k]! : 0;
    }
    if (!solveLinear(matrix, n, right)) return 4 * leakS;
    let sum = 0;
    for (let k = 0; k < n; k++) {
      if (floatOf[k] === f) sum += floatSign[k]! * right[k]! + leakS;
    }
    return Math.max(sum, leakS);
  }

  /** The slow and sure way to a floating potential: the currents into it only grow with it. */
  function float(table: Float64Array, u: Float64Array, f: number): boolean {
    let low = -4 * peakV;
    let high = 4 * peakV;
    let x = floatV[f]!;
    for (let iteration = 0; iteration < 100; iteration++) {
      work.done += solveWork;
      floatV[f] = x;
      applyFloats(u);
      if (!settle(table, shifted)) return false;
      const miss = imbalance(table, shifted, f);
      if (Math.abs(miss) < 1e-13 * typicalA || high - low < 1e-13 * peakV) return true;
      if (miss > 0) high = x;
      else low = x;
      let next = x - miss / imbalanceSlope(table, f);
      if (Math.abs(next - x) < 1e-14 * peakV) return true;
      if (!(next > low && next < high) || iteration > 30) next = (low + high) / 2;
      x = next;
    }
    return true;
  }

  /** Newton's method on the currents that flow and the floating potentials at once, from where they last stood. */
  function floatTogether(table: Float64Array, u: Float64Array): boolean {
    for (let iteration = 0; iteration < 25; iteration++) {
      work.done += solveWork;
      applyFloats(u);
      let worst = 0;
      let m = 0;
      for (let k = 0; k < n; k++) {
        const drive = driveOf(table, shifted, k);
        drives[k] = drive;
        const found = own(table, k, drive);
        if (!live[k]) {
          if (Math.abs(found - i[k]!) * table[oOhm + k]! > 1e-9) worst = Math.max(worst, 2);
          i[k] = found;
          continue;
        }
        right[m] = found - i[k]!;
        active[m++] = k;
        const weight = (Math.abs(found - i[k]!) * table[oOhm + k]!) / (1e-9 * (law[k] === 0 ? theta[k]! : 1));
        if (weight > worst) worst = weight;
      }
      const size = m + floats;
      for (let r = 0; r < m; r++) {
        const k = active[r]!;
        for (let c = 0; c < m; c++) matrix[r * size + c] = r === c ? 1 : slope[k]! * table[oZ + k * all + active[c]!]!;
        for (let f = 0; f < floats; f++) matrix[r * size + m + f] = floatOf[k] === f ? -slope[k]! * floatSign[k]! : 0;
      }
      let balanced = worst < 1;
      for (let f = 0; f < floats; f++) {
        const row = (m + f) * size;
        for (let c = 0; c < size; c++) matrix[row + c] = 0;
        let sum = 0;
        for (let k = 0; k < n; k++) {
          if (floatOf[k] !== f) continue;
          sum += floatSign[k]! * (i[k]! + leakS * (drives[k]! - table[oZ + k * all + k]! * i[k]!));
          matrix[row + m + f]! += leakS;
          for (let c = 0; c < m; c++) {
            const j = active[c]!;
            matrix[row + c]! += floatSign[k]! * ((j === k ? 1 : 0) - leakS * table[oZ + k * all + j]!);
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
        close &&= Math.abs(right[r]!) * table[oOhm + k]! < 1e-5 * (law[k] === 0 ? theta[k]! : 1);
      }
      for (let f = 0; f < floats; f++) {
        floatV[f]! += right[m + f]!;
        close &&= Math.abs(right[m + f]!) < 1e-7 * peakV;
      }
      if (close) return true;
    }
    return false;
  }

  function floating(table: Float64Array, u: Float64Array): boolean {
    if (floatTogether(table, u)) return true;
    for (let round = 0; round < (floats > 1 ? 8 : 1); round++) {
      for (let f = 0; f < floats; f++) if (!float(table, u, f)) return false;
    }
    return true;
  }

  function applyFloats(u: Float64Array) {
    for (let k = 0; k < n; k++) {
      shifted[k] = u[k]! + (floatOf[k]! < 0 ? 0 : floatSign[k]! * floatV[floatOf[k]!]!);
    }
  }

  /** Takes over the values of a circuit of the same shape. */
  function load(circuit: Circuit): void {
    ({ typicalA, peakV } = circuit);
    leakS = (1e-7 * typicalA) / peakV;
    for (let k = 0; k < all; k++) {
      const port = circuit.ports[k]!;
      theta[k] = port.thetaV;
      saturation[k] = port.saturationA;
      perveance[k] = port.perveance;
      series[k] = port.ohm;
      i[k] = 0;
    }
    floatV.fill(0);
    live.fill(0);
    count = 0;
    apart = true;
  }

  return {
    i,
    load,
    /** Voltage a port would have with the others' currents as they are and none of its own. */
    drive: driveOf,
    /** Completes a table whose impedances have been filled in. */
    finish(table: Float64Array): void {
      for (let h = all - 1; h >= n; h--) {
        const ohm = table[oZ + h * all + h]! + series[h]!;
        table[oOhm + h] = ohm;
        for (let k = 0; k < h; k++) {
          const share = table[oZ + k * all + h]! / ohm;
          for (let j = 0; j < h; j++) table[oZ + k * all + j]! -= share * table[oZ + h * all + j]!;
          // The column is done with: what it passes on of the eliminated drive stands there from now on.
          table[oZ + k * all + h] = share;
        }
      }
      for (let k = 0; k < n; k++) {
        // The closed form divides by this; a micro-ohm lies far below any real winding.
        const ohm = Math.max(1e-6, table[oZ + k * all + k]! + series[k]!);
        table[oOhm + k] = ohm;
        let leak = 0;
        for (let j = 0; j < n; j++) if (j !== k && law[j] === 0) leak += table[oZ + k * all + j]! * saturation[j]!;
        table[oLeak + k] = leak;
        table[oOff + k] = law[k] === 2 ? Infinity : law[k] === 3 ? 0 : -Infinity;
        if (law[k] !== 0) continue;
        const x = (ohm * saturation[k]!) / theta[k]!;
        table[oShift + k] = x + Math.log(x);
        table[oPerAmp + k] = theta[k]! / ohm;
        table[oOff + k] = (OFF - table[oShift + k]!) * theta[k]!;
      }
    },
    floatV,
    /** Solves for `i` given the drives `u`, V. @returns false when no solution was found */
    solve(table: Float64Array, u: Float64Array): boolean {
      if (n < all) {
        for (let h = all - 1; h >= n; h--) {
          for (let k = 0; k < h; k++) u[k]! -= table[oZ + k * all + h]! * u[h]!;
        }
      }
      if (floats === 0) {
        // What conducted together at the last instant most likely still does.
        const solved = apart
          ? asBefore(table, u) || settle(table, u)
          : (count === 2 && pair(table, u)) || newton(table, u) || settle(table, u);
        if (!solved) return false;
      } else if (!floating(table, u)) return false;
      for (let h = n; h < all; h++) {
        let drive = u[h]!;
        for (let j = 0; j < h; j++) drive -= table[oZ + h * all + j]! * i[j]!;
        i[h] = drive / table[oOhm + h]!;
      }
      return true;
    },
    /**
     * d(i)/d(u) of the diode ports at the last solution into `out` (all ports square; no state drives an AC load).
     * @returns the only live port, -1 when there is none, -2 when there are several
     */
    response(table: Float64Array, out: Float64Array): number {
      if (floats === 0) {
        if (count === 0) return -1;
        if (count === 1) {
          const only = alive[0]!;
          out[only * all + only] = slope[only]!;
          return only;
        }
        if (count === 2) {
          for (let k = 0; k < all * all; k++) out[k] = 0;
          const a = alive[0]!;
          const b = alive[1]!;
          const ab = slope[a]! * table[oZ + a * all + b]!;
          const ba = slope[b]! * table[oZ + b * all + a]!;
          const det = 1 - ab * ba;
          out[a * all + a] = slope[a]! / det;
          out[b * all + b] = slope[b]! / det;
          out[a * all + b] = (-ab * slope[b]!) / det;
          out[b * all + a] = (-ba * slope[a]!) / det;
          return -2;
        }
      }
      const size = n + floats;
      for (let k = 0; k < size * size; k++) matrix[k] = 0;
      for (let k = 0; k < n; k++) {
        for (let j = 0; j < n; j++) matrix[k * size + j] = j === k ? 1 : slope[k]! * table[oZ + k * all + j]!;
        const f = floatOf[k]!;
        if (f >= 0) {
          matrix[k * size + n + f] = -slope[k]! * floatSign[k]!;
          matrix[(n + f) * size + k] = floatSign[k]!;
          matrix[(n + f) * size + n + f]! += leakS;
        }
      }
      if (!invert(matrix, size, inverse)) {
        out.fill(0);
        return -2;
      }
      for (let k = 0; k < n; k++) for (let j = 0; j < n; j++) out[k * all + j] = inverse[k * size + j]! * slope[j]!;
      return -2;
    },
  };
}
