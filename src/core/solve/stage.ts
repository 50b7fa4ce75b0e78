import { fluxAt, inductanceAt, type Circuit } from '@/core/circuit/assemble';
import { invert } from './dense';
import { elimination, LAW, type Work } from './work';
import { portSolver, portTableLength } from './ports';

/**
 * Everything about a circuit that depends on the step size and on the segment of each load alone, as one block of
 * numbers: all that is linear, eliminated, as small dense maps from the stage's starting values (X), the port currents
 * (P), the bent part of the loads (R) and nothing (C).
 *   drives      u = uE*e + uX*base + uC + uR*extra
 *   outcome     y = yX*base + yP*i + yC + yR*extra      (change of the states against base, then rail voltages)
 *   nodes       likewise
 * and behind them the table of the port equations (ports.ts).
 */
type Level = Float64Array;

const LEVELS = 48;
/** Node conductance to ground that keeps a node without capacitor defined, as a share of load current over peak voltage. */
const LEAK_SHARE = 1e-9;

/**
 * Solves one implicit stage of a circuit: each capacitor looks like a source behind ESR + gamma*h/C, each choke like a
 * source behind R + L/(gamma*h), so that what is left is a resistive network with diodes. Everything linear is
 * eliminated beforehand per step size (steps come from a grid of sqrt(2), so few are built); the ports are solved last.
 */
export function stageSolver(shape: Circuit, work: Work) {
  const { nodes, inputs, ports, states } = shape;
  let { elements, rails } = shape;
  const nP = ports.length;
  const nE = elements.length;
  const nR = rails.length;

  const nX = states;
  const nY = nX + nR;
  const oUX = 0;
  const oUC = oUX + nP * nX;
  const oUR = oUC + nP;
  const oYX = oUR + nP * nR;
  const oYP = oYX + nY * nX;
  const oYC = oYP + nY * nP;
  const oYR = oYC + nY;
  const oNodeX = oYR + nY * nR;
  const oNodeP = oNodeX + nodes * nX;
  const oNodeC = oNodeP + nodes * nP;
  const oNodeR = oNodeC + nodes;
  const oPorts = oNodeR + nodes * nR;
  const solver = portSolver(shape, oPorts, work);
  const portA = solver.i;
  const node = new Float64Array(nodes);
  const y = new Float64Array(nY);
  const x = y.subarray(0, nX);
  const change = new Float64Array(nX);
  /** The stage's starting values: what the states would be if nothing happened during gamma*h. */
  const base = new Float64Array(nX);
  const u = new Float64Array(nP);
  const loadA = new Float64Array(nR);
  const extraA = new Float64Array(nR);
  const lastStep = new Float64Array(nR);
  const damping = new Float64Array(nR);
  const segment = new Int32Array(nR);
  const segmentLow = new Float64Array(nR);
  const segmentHigh = new Float64Array(nR);
  const radix = rails.map((_, r) => rails.slice(0, r).reduce((p, rail) => p * rail.load.offset.length, 1));
  /** Levels by load segments and step size, with the loading of the values each was built from. */
  const cache = new Map<number, { level: (Level | undefined)[]; loading: Int32Array }>();
  let loading = 0;
  const matrix = new Float64Array(nodes * nodes);
  const inverse = new Float64Array(nodes * nodes);
  let leakS = 0;
  let sharedOhm = 0;
  let typicalA = 0;
  const swings = elements
    .map((e, n) => (e.kind === 'inductor' && e.halfAtA !== Infinity ? n : -1))
    .filter((n) => n >= 0);
  const bent = rails.some((r) => r.load.extra !== null);
  const segmented = bent || rails.some((r) => r.load.breakpoints.length > 0);
  /** What a pass has to find: the rail voltages only where a load depends on them by segments. */
  const nOutcome = segmented ? nY : nX;
  /** Current about which each swinging choke is linear at the moment, A. */
  const about = new Float64Array(nE);
  const differential = new Float64Array(nE);
  const flux = new Float64Array(nX);
  const linearOffset = new Float64Array(nE);
  /** EMF of each port per volt of the common one. */
  const uE = new Float64Array(nP);
  // Flat copies: building a level runs over numbers, not over objects.
  const eKind = Uint8Array.from(elements, (e) => (e.kind === 'capacitor' ? 0 : e.kind === 'inductor' ? 1 : 2));
  const ePlus = Int32Array.from(elements, (e) => (e.kind === 'capacitor' ? e.plus : e.from));
  const eMinus = Int32Array.from(elements, (e) => (e.kind === 'capacitor' ? e.minus : e.to));
  const eState = Int32Array.from(elements, (e) => (e.kind === 'resistor' ? -1 : e.state));
  const eFarad = new Float64Array(nE);
  const eOhm = new Float64Array(nE);
  const conductance = new Float64Array(nE);
  const pWinding = Int32Array.from(ports, (p) => p.winding);
  const pShare = Float64Array.from(ports, (p) => p.share);
  /** The nodes each port's path passes between, ground aside, with their signs, one port after the other. */
  const touched = ports.map((p) =>
    p.into.flatMap(({ input, sign }) => {
      const { plus, minus } = inputs[input]!;
      return [{ node: plus, sign }, ...(minus >= 0 ? [{ node: minus, sign: -sign }] : [])];
    }),
  );
  const touchFrom = Int32Array.from({ length: nP + 1 }, (_, p) =>
    touched.slice(0, p).reduce((sum, list) => sum + list.length, 0),
  );
  const touchNode = Int32Array.from(touched.flat(), (t) => t.node);
  const touchSign = Float64Array.from(touched.flat(), (t) => t.sign);
  const wState = Int32Array.from(shape.windings, (w) => w.state);
  const wHenry = new Float64Array(wState.length);
  const wOhm = new Float64Array(wState.length);
  const rOut = Int32Array.from(rails, (r) => r.outputNode);
  /** Work of building a level, and of one pass over it. */
  const buildWork = 3 * elimination(nodes) + (nodes + nY) * (nE + 2 * nP + nR);
  const passWork = nP * (nX + nR) + nOutcome * (nX + nP + nR) + LAW;
  const scratch = newLevel();
  let level = scratch;
  let grid = -1;
  let gammaH = 0;
  load(shape);

  /** Takes over the values of a circuit of the same shape. */
  function load(circuit: Circuit): void {
    ({ elements, rails } = circuit);
    ({ sharedOhm, typicalA } = circuit);
    leakS = (LEAK_SHARE * typicalA) / circuit.peakV;
    for (let n = 0; n < nE; n++) {
      const e = elements[n]!;
      if (e.kind === 'capacitor') {
        eFarad[n] = e.capacitanceF;
        eOhm[n] = e.esrOhm;
      } else {
        eOhm[n] = e.ohm;
        differential[n] = e.kind === 'inductor' ? e.inductanceH : 0;
      }
      about[n] = 0;
    }
    for (let p = 0; p < nP; p++) uE[p] = pShare[p]! * circuit.windings[pWinding[p]!]!.ratio;
    for (let w = 0; w < wState.length; w++) {
      wHenry[w] = circuit.windings[w]!.inductanceH;
      wOhm[w] = circuit.windings[w]!.ownOhm;
    }
    for (let r = 0; r < nR; r++) {
      takeSegment(r, rails[r]!.load.offset.length - 1);
      extraA[r] = 0;
    }
    solver.load(circuit);
    loading++;
    grid = -2;
  }

  function takeSegment(r: number, k: number): void {
    const { breakpoints } = rails[r]!.load;
    segment[r] = k;
    segmentLow[r] = k > 0 ? breakpoints[k - 1]! : -Infinity;
    segmentHigh[r] = k < breakpoints.length ? breakpoints[k]! : Infinity;
  }

  function newLevel(): Level {
    return new Float64Array(oPorts + portTableLength(nP));
  }

  function build(d: Level, g: number): Level {
    work.done += buildWork;
    for (let k = 0; k < nodes * nodes; k++) matrix[k] = 0;
    for (let k = 0; k < nodes; k++) matrix[k * nodes + k] = leakS;
    for (let n = 0; n < nE; n++) {
      const s =
        eKind[n] === 0
          ? 1 / (eOhm[n]! + g / eFarad[n]!)
          : eKind[n] === 1
            ? 1 / (eOhm[n]! + differential[n]! / g)
            : 1 / eOhm[n]!;
      conductance[n] = s;
      const a = ePlus[n]!;
      const b = eMinus[n]!;
      if (a === b) continue;
      matrix[a * nodes + a]! += s;
      if (b >= 0) {
        matrix[b * nodes + b]! += s;
        matrix[a * nodes + b]! -= s;
        matrix[b * nodes + a]! -= s;
      }
    }
    for (let r = 0; r < nR; r++) {
      const out = rOut[r]!;
      matrix[out * nodes + out]! += rails[r]!.load.slope[segment[r]!]!;
    }
    invert(matrix, nodes, inverse);

    // Node voltages.
    for (let k = 0; k < nodes; k++) {
      const row = k * nodes;
      for (let n = 0; n < nE; n++) {
        if (eKind[n] === 2) continue;
        // What the element's own history pushes into its nodes, per unit of state.
        const s = eKind[n] === 0 ? conductance[n]! : (-conductance[n]! * differential[n]!) / g;
        const b = eMinus[n]!;
        d[oNodeX + k * nX + eState[n]!] = s * (inverse[row + ePlus[n]!]! - (b >= 0 ? inverse[row + b]! : 0));
      }
      for (let p = 0; p < nP; p++) {
        let sum = 0;
        for (let q = touchFrom[p]!; q < touchFrom[p + 1]!; q++) sum += touchSign[q]! * inverse[row + touchNode[q]!]!;
        d[oNodeP + k * nP + p] = sum;
      }
      let constant = 0;
      for (let r = 0; r < nR; r++) {
        const ohm = inverse[row + rOut[r]!]!;
        constant -= ohm * rails[r]!.load.offset[segment[r]!]!;
        d[oNodeR + k * nR + r] = -ohm;
      }
      d[oNodeC + k] = constant;
    }
    // Port drives and impedances.
    for (let p = 0; p < nP; p++) {
      const w = pWinding[p]!;
      for (let s = 0; s < nX; s++) d[oUX + p * nX + s] = -along(d, oNodeX, nX, p, s);
      for (let r = 0; r < nR; r++) d[oUR + p * nR + r] = -along(d, oNodeR, nR, p, r);
      d[oUC + p] = -along(d, oNodeC, 1, p, 0);
      if (wState[w]! >= 0) d[oUX + p * nX + wState[w]!]! += (pShare[p]! * wHenry[w]!) / g;
      for (let j = 0; j < nP; j++) {
        let ohm = uE[p]! * uE[j]! * sharedOhm;
        if (pWinding[j] === w) ohm += pShare[p]! * pShare[j]! * (wOhm[w]! + wHenry[w]! / g);
        d[oPorts + p * nP + j] = ohm + along(d, oNodeP, nP, p, j);
      }
    }
    solver.finish(d);
    // States and rail voltages.
    for (let n = 0; n < nE; n++) {
      if (eKind[n] === 2) continue;
      const own = eState[n]!;
      const plus = ePlus[n]!;
      const minus = eMinus[n]!;
      const s = eKind[n] === 0 ? (g / eFarad[n]!) * conductance[n]! : conductance[n]!;
      for (let c = 0; c < nX; c++) d[oYX + own * nX + c] = s * across(d, oNodeX, nX, plus, minus, c);
      for (let p = 0; p < nP; p++) d[oYP + own * nP + p] = s * across(d, oNodeP, nP, plus, minus, p);
      for (let r = 0; r < nR; r++) d[oYR + own * nR + r] = s * across(d, oNodeR, nR, plus, minus, r);
      d[oYC + own] = s * across(d, oNodeC, 1, plus, minus, 0);
      d[oYX + own * nX + own]! += eKind[n] === 0 ? -s : (s * differential[n]!) / g - 1;
    }
    for (let p = 0; p < nP; p++) {
      const state = wState[pWinding[p]!]!;
      if (state < 0) continue;
      d[oYP + state * nP + p] = pShare[p]!;
      d[oYX + state * nX + state] = -1;
    }
    for (let r = 0; r < nR; r++) {
      const out = rOut[r]!;
      for (let c = 0; c < nX; c++) d[oYX + (nX + r) * nX + c] = d[oNodeX + out * nX + c]!;
      for (let p = 0; p < nP; p++) d[oYP + (nX + r) * nP + p] = d[oNodeP + out * nP + p]!;
      for (let q = 0; q < nR; q++) d[oYR + (nX + r) * nR + q] = d[oNodeR + out * nR + q]!;
      d[oYC + nX + r] = d[oNodeC + out]!;
    }
    return d;
  }

  /** What the nodes along a port's path add up to in the map that begins at `from`. */
  function along(d: Level, from: number, width: number, p: number, column: number): number {
    let sum = 0;
    for (let q = touchFrom[p]!; q < touchFrom[p + 1]!; q++) {
      sum += touchSign[q]! * d[from + touchNode[q]! * width + column]!;
    }
    return sum;
  }

  function fetch(): void {
    if (grid < 0 || swings.length > 0) {
      level = build(scratch, gammaH);
      return;
    }
    let key = 0;
    for (let r = 0; r < nR; r++) key += segment[r]! * radix[r]!;
    let row = cache.get(key);
    if (!row) {
      row = { level: new Array<Level | undefined>(LEVELS + 1), loading: new Int32Array(LEVELS + 1) };
      cache.set(key, row);
    }
    level = row.level[grid] ??= newLevel();
    if (row.loading[grid] === loading) return;
    row.loading[grid] = loading;
    build(level, gammaH);
  }

  /** One solution of the linear part and the ports with everything bent held straight. */
  function pass(e: number): boolean {
    work.done += passWork;
    const d = level;
    if (nX === 1 && !bent) {
      const b = base[0]!;
      for (let p = 0; p < nP; p++) u[p] = uE[p]! * e + d[oUC + p]! + d[oUX + p]! * b;
    } else if (nX === 2 && !bent) {
      const b0 = base[0]!;
      const b1 = base[1]!;
      for (let p = 0; p < nP; p++) {
        u[p] = uE[p]! * e + d[oUC + p]! + d[oUX + 2 * p]! * b0 + d[oUX + 2 * p + 1]! * b1;
      }
    } else {
      for (let p = 0; p < nP; p++) {
        let sum = uE[p]! * e + d[oUC + p]!;
        for (let s = 0, at = oUX + p * nX; s < nX; s++) sum += d[at + s]! * base[s]!;
        if (bent) for (let r = 0; r < nR; r++) sum += d[oUR + p * nR + r]! * extraA[r]!;
        u[p] = sum;
      }
    }
    if (!solver.solve(level, u)) return false;
    for (let n = 0; n < nOutcome; n++) {
      let sum = d[oYC + n]!;
      for (let s = 0, at = oYX + n * nX; s < nX; s++) sum += d[at + s]! * base[s]!;
      for (let p = 0, at = oYP + n * nP; p < nP; p++) sum += d[at + p]! * portA[p]!;
      if (bent) for (let r = 0; r < nR; r++) sum += d[oYR + n * nR + r]! * extraA[r]!;
      // States as their change: the difference of two nearly equal numbers would leave little of a short step's slope.
      if (n < nX) {
        change[n] = sum;
        sum += base[n]!;
      }
      y[n] = sum;
    }
    return true;
  }

  /** Whether every rail stands within the segment its load was taken from. */
  function inSegments(): boolean {
    for (let r = 0; r < nR; r++) {
      const v = y[nX + r]!;
      if (v > segmentHigh[r]! + 1e-12 || v < segmentLow[r]! - 1e-12) return false;
    }
    return true;
  }

  /** Moves load segments and bent loads towards where the last pass ended. @returns true when something moved */
  function relinearise(t: number, round: number): boolean {
    let moved = false;
    for (let r = 0; r < nR; r++) {
      const { breakpoints, extra } = rails[r]!.load;
      const v = y[nX + r]!;
      const k = segment[r]!;
      if (round < 12) {
        if (k < breakpoints.length && v > breakpoints[k]! + 1e-12) {
          takeSegment(r, k + 1);
          moved = true;
        } else if (k > 0 && v < breakpoints[k - 1]! - 1e-12) {
          takeSegment(r, k - 1);
          moved = true;
        }
      }
      if (extra) {
        if (round === 0) {
          damping[r] = 1;
          lastStep[r] = 0;
        }
        const wanted = extra(v, t);
        const dv = 1e-6 * (Math.abs(v) + 1e-3);
        const gradient = (extra(v + dv, t) - wanted) / dv;
        const ohm = -level[oYR + (nX + r) * nR + r]!;
        const step = (wanted - extraA[r]!) / Math.max(1 + ohm * gradient, 0.05);
        if (Math.abs(step) > 1e-10 * (Math.abs(wanted) + typicalA)) {
          // Where the load bends sharply the steps can swing about its knee for ever: then each swing is halved.
          damping[r] = step * lastStep[r]! < 0 ? 0.5 * damping[r]! : Math.min(1, 1.2 * damping[r]!);
          lastStep[r] = step;
          extraA[r]! += damping[r]! * step;
          moved = true;
        }
      }
    }
    return moved;
  }

  function solveStraight(e: number, t: number): boolean {
    for (let round = 0; round < 60; round++) {
      if (!pass(e)) return false;
      if (!segmented || (!bent && inSegments()) || !relinearise(t, round)) return true;
      fetch();
    }
    // A bent load that will not settle is one that the supply cannot feed at this instant.
    return false;
  }

  /** As solveStraight, with each swinging choke made linear about its own current until that current stays. */
  function solveSwinging(e: number, t: number): boolean {
    for (const n of swings) flux[stateOf(n)] = base[stateOf(n)]!;
    let settled = false;
    for (let round = 0; round < 40 && !settled; round++) {
      for (const n of swings) {
        const element = elements[n]!;
        if (element.kind !== 'inductor') continue;
        const ld = inductanceAt(element.inductanceH, element.halfAtA, about[n]!);
        differential[n] = ld;
        const offset = (linearOffset[n] = about[n]! - fluxAt(element.inductanceH, element.halfAtA, about[n]!) / ld);
        base[stateOf(n)] = flux[stateOf(n)]! / ld + offset;
      }
      fetch();
      const solved = solveStraight(e, t);
      let worst = 0;
      for (const n of swings) {
        const i = x[stateOf(n)]!;
        worst = Math.max(worst, Math.abs(i - about[n]!));
        about[n] = round < 10 ? i : (i + about[n]!) / 2;
      }
      if (!solved) return false;
      settled = worst < 1e-9 * typicalA;
    }
    // A choke whose current was not found is not passed off as one that was.
    if (!settled) return false;
    for (const n of swings) {
      const s = stateOf(n);
      const element = elements[n]!;
      base[s] = flux[s]!;
      if (element.kind !== 'inductor') continue;
      x[s] = fluxAt(element.inductanceH, element.halfAtA, x[s]!);
      change[s] = x[s]! - base[s]!;
    }
    return true;
  }

  const dPort = new Float64Array(nP * nX);
  const response = new Float64Array(nP * nP);

  function stateOf(n: number): number {
    const element = elements[n]!;
    return element.kind === 'resistor' ? -1 : element.state;
  }

  return {
    base,
    x,
    /** What the stage just solved adds to `base`. */
    change,
    node,
    portA,
    floatV: solver.floatV,
    loadA,
    load,
    /** Chooses the step: `index` on the grid of step sizes (LEVELS: the instant), or -1 for one off it. */
    setStep(index: number, newGammaH: number): void {
      if (index === grid && newGammaH === gammaH) return;
      grid = index;
      gammaH = newGammaH;
      fetch();
    },
    /**
     * Solves the stage whose starting values stand in `base`, with the common EMF at `e` volts, `t` seconds after
     * switch-on (Infinity once everything runs). Leaves `x`, `node`, `portA`, `loadA`.
     * @returns false when it has no solution
     */
    solve(e: number, t: number): boolean {
      return swings.length > 0 ? solveSwinging(e, t) : solveStraight(e, t);
    },
    /** Current in a choke whose state is `value`: the state itself, or what belongs to that flux. */
    chokeCurrent(n: number, value: number): number {
      const element = elements[n]!;
      if (element.kind !== 'inductor' || element.halfAtA === Infinity) return value;
      let i = value / element.inductanceH;
      for (let round = 0; round < 60; round++) {
        const miss = fluxAt(element.inductanceH, element.halfAtA, i) - value;
        const step = miss / inductanceAt(element.inductanceH, element.halfAtA, i);
        i -= step;
        if (Math.abs(step) < 1e-13 * typicalA) break;
      }
      return i;
    },
    /** Flux per ampere of a swinging choke where it now stands, H; 1 for a choke whose state is its current. */
    statePerAmp(state: number): number {
      for (const n of swings) if (stateOf(n) === state) return differential[n]!;
      return 1;
    },
    /** State of a choke that carries a current: the current itself, or the flux that goes with it. */
    stateFor(state: number, current: number): number {
      for (const n of swings) {
        const element = elements[n]!;
        if (element.kind === 'inductor' && element.state === state) {
          return fluxAt(element.inductanceH, element.halfAtA, current);
        }
      }
      return current;
    },
    /** Voltage across a port that carries next to nothing at the stage just solved, V. */
    driveV(port: number): number {
      return solver.drive(level, u, port);
    },
    /** Starts the search for swinging chokes' currents afresh from states. */
    aim(from: Float64Array): void {
      for (const n of swings) about[n] = this.chokeCurrent(n, from[stateOf(n)]!);
    },
    /** d(x)/d(base) of the stage just solved, row by row into `out` from `at` on. */
    sensitivity(out: Float64Array, at: number): void {
      const d = level;
      const only = solver.response(level, response);
      for (let k = 0; k < nX * nX; k++) out[at + k] = d[oYX + k]!;
      for (let n = 0; n < nX; n++) out[at + n * nX + n]! += 1;
      if (only >= 0) {
        for (let n = 0; n < nX; n++) {
          const share = d[oYP + n * nP + only]! * response[only * nP + only]!;
          for (let c = 0; c < nX; c++) out[at + n * nX + c]! += share * d[oUX + only * nX + c]!;
        }
      } else if (only === -2) {
        for (let p = 0; p < nP; p++) {
          for (let c = 0; c < nX; c++) {
            let sum = 0;
            for (let j = 0; j < nP; j++) sum += response[p * nP + j]! * d[oUX + j * nX + c]!;
            dPort[p * nX + c] = sum;
          }
        }
        for (let n = 0; n < nX; n++) {
          for (let p = 0; p < nP; p++) {
            const share = d[oYP + n * nP + p]!;
            if (share !== 0) for (let c = 0; c < nX; c++) out[at + n * nX + c]! += share * dPort[p * nX + c]!;
          }
        }
      }
      // A swinging choke's state is its flux; the maps know its current.
      for (const n of swings) {
        const own = stateOf(n);
        for (let k = 0; k < nX; k++) {
          out[at + own * nX + k]! *= differential[n]!;
          out[at + k * nX + own]! /= differential[n]!;
        }
      }
    },
    /** Fills `node` and `loadA` for the stage just solved. */
    spell(): void {
      const d = level;
      for (let k = 0; k < nodes; k++) {
        let sum = d[oNodeC + k]!;
        for (let s = 0; s < nX; s++) sum += d[oNodeX + k * nX + s]! * (swings.length > 0 ? currentBase(s) : base[s]!);
        for (let p = 0; p < nP; p++) sum += d[oNodeP + k * nP + p]! * portA[p]!;
        if (bent) for (let r = 0; r < nR; r++) sum += d[oNodeR + k * nR + r]! * extraA[r]!;
        node[k] = sum;
      }
      for (let r = 0; r < nR; r++) {
        const { offset, slope } = rails[r]!.load;
        loadA[r] = offset[segment[r]!]! + slope[segment[r]!]! * node[rOut[r]!]! + extraA[r]!;
      }
    },
  };

  /** Starting value of a state as the maps take it: a swinging choke's current instead of its flux. */
  function currentBase(s: number): number {
    for (const n of swings) {
      const element = elements[n]!;
      if (element.kind !== 'inductor' || element.state !== s) continue;
      return base[s]! / differential[n]! + linearOffset[n]!;
    }
    return base[s]!;
  }
}

/** Difference of two nodes' rows in the map that begins at `from`. */
function across(d: Level, from: number, width: number, plus: number, minus: number, column: number): number {
  if (plus < 0) return 0;
  return d[from + plus * width + column]! - (minus >= 0 ? d[from + minus * width + column]! : 0);
}

export type StageSolver = ReturnType<typeof stageSolver>;
export { LEVELS };
