import { fluxAt, inductanceAt, type Circuit } from '@/core/circuit/assemble';
import { invert } from './dense';
import { finishPortTable, newPortTable, portSolver, type PortTable } from './ports';

/**
 * Everything about a circuit that depends on the step size and on the segment of each load alone: all that is linear,
 * eliminated, as small dense maps from the stage's starting values (X), the port currents (P) and nothing (C).
 */
interface Level {
  /** Drive of each port: u = uE*e + uX*base + uC (+ uR*extra load currents). */
  uX: Float64Array;
  uC: Float64Array;
  uR: Float64Array;
  /** States and rail voltages after the stage: y = yX*base + yP*i + yC (+ yR*extra load currents). */
  yX: Float64Array;
  yP: Float64Array;
  yC: Float64Array;
  yR: Float64Array;
  /** Node voltages, likewise. */
  nodeX: Float64Array;
  nodeP: Float64Array;
  nodeC: Float64Array;
  nodeR: Float64Array;
  ports: PortTable;
}

const LEVELS = 48;
/** Node conductance to ground that keeps a node without capacitor defined, as a share of load current over peak voltage. */
const LEAK_SHARE = 1e-9;

/**
 * Solves one implicit stage of a circuit: each capacitor looks like a source behind ESR + gamma*h/C, each choke like a
 * source behind R + L/(gamma*h), so that what is left is a resistive network with diodes. Everything linear is
 * eliminated beforehand per step size (steps come from a grid of sqrt(2), so few are built); the ports are solved last.
 */
export function stageSolver(circuit: Circuit) {
  const { elements, nodes, inputs, ports, windings, rails, states } = circuit;
  const nP = ports.length;
  const nE = elements.length;
  const nR = rails.length;
  const solver = portSolver(circuit);
  const portA = solver.i;

  const nX = states;
  const nY = nX + nR;
  const node = new Float64Array(nodes);
  const y = new Float64Array(nY);
  const x = y.subarray(0, nX);
  /** The stage's starting values: what the states would be if nothing happened during gamma*h. */
  const base = new Float64Array(nX);
  const u = new Float64Array(nP);
  const loadA = new Float64Array(nR);
  const extraA = new Float64Array(nR);
  const segment = new Int32Array(nR);
  const radix = rails.map((_, r) => rails.slice(0, r).reduce((p, rail) => p * rail.load.offset.length, 1));
  const cache = new Map<number, (Level | undefined)[]>();
  const matrix = new Float64Array(nodes * nodes);
  const inverse = new Float64Array(nodes * nodes);
  const leakS = (LEAK_SHARE * circuit.typicalA) / circuit.peakV;
  const swings = elements
    .map((e, n) => (e.kind === 'inductor' && e.halfAtA !== Infinity ? n : -1))
    .filter((n) => n >= 0);
  const bent = rails.some((r) => r.load.extra !== null);
  /** Current about which each swinging choke is linear at the moment, A. */
  const about = new Float64Array(nE);
  const differential = Float64Array.from(elements, (e) => (e.kind === 'inductor' ? e.inductanceH : 0));
  const flux = new Float64Array(nX);
  const linearOffset = new Float64Array(nE);
  /** EMF of each port per volt of the common one. */
  const uE = Float64Array.from(ports, (p) => p.share * windings[p.winding]!.ratio);
  const scratch = newLevel();
  let level = scratch;
  let grid = -1;
  let gammaH = 0;

  rails.forEach((rail, r) => (segment[r] = rail.load.offset.length - 1));

  function newLevel(): Level {
    const all = new Float64Array((nP + nY + nodes) * (nX + nR + 1) + (nY + nodes + 6) * nP + nP * nP);
    let used = 0;
    const take = (length: number) => all.subarray(used, (used += length));
    return {
      uX: take(nP * nX),
      uC: take(nP),
      uR: take(nP * nR),
      yX: take(nY * nX),
      yP: take(nY * nP),
      yC: take(nY),
      yR: take(nY * nR),
      nodeX: take(nodes * nX),
      nodeP: take(nodes * nP),
      nodeC: take(nodes),
      nodeR: take(nodes * nR),
      ports: newPortTable(nP, take),
    };
  }

  function build(into: Level, g: number): Level {
    for (let k = 0; k < nodes * nodes; k++) matrix[k] = 0;
    for (let k = 0; k < nodes; k++) matrix[k * nodes + k] = leakS;
    for (let n = 0; n < nE; n++) {
      const element = elements[n]!;
      const s =
        element.kind === 'capacitor'
          ? 1 / (element.esrOhm + g / element.capacitanceF)
          : element.kind === 'inductor'
            ? 1 / (element.ohm + differential[n]! / g)
            : 1 / element.ohm;
      const a = element.kind === 'capacitor' ? element.plus : element.from;
      const b = element.kind === 'capacitor' ? element.minus : element.to;
      if (a === b) continue;
      matrix[a * nodes + a]! += s;
      if (b >= 0) {
        matrix[b * nodes + b]! += s;
        matrix[a * nodes + b]! -= s;
        matrix[b * nodes + a]! -= s;
      }
    }
    for (let r = 0; r < nR; r++) {
      const out = rails[r]!.outputNode;
      matrix[out * nodes + out]! += rails[r]!.load.slope[segment[r]!]!;
    }
    invert(matrix, nodes, inverse);

    const { nodeX, nodeP, nodeC, nodeR, uX, uC, uR, yX, yP, yC, yR } = into;
    // Node voltages.
    for (let k = 0; k < nodes; k++) {
      const row = k * nodes;
      for (let n = 0; n < nE; n++) {
        const element = elements[n]!;
        if (element.kind === 'capacitor') {
          const s = 1 / (element.esrOhm + g / element.capacitanceF);
          nodeX[k * nX + element.state] =
            s * (inverse[row + element.plus]! - (element.minus >= 0 ? inverse[row + element.minus]! : 0));
        } else if (element.kind === 'inductor') {
          const s = differential[n]! / (element.ohm * g + differential[n]!);
          nodeX[k * nX + element.state] =
            s * ((element.to >= 0 ? inverse[row + element.to]! : 0) - inverse[row + element.from]!);
        }
      }
      for (let p = 0; p < nP; p++) {
        const q = ports[p]!.input;
        if (q < 0) continue;
        const { plus, minus } = inputs[q]!;
        nodeP[k * nP + p] = inverse[row + plus]! - (minus >= 0 ? inverse[row + minus]! : 0);
      }
      let constant = 0;
      for (let r = 0; r < nR; r++) {
        const ohm = inverse[row + rails[r]!.outputNode]!;
        constant -= ohm * rails[r]!.load.offset[segment[r]!]!;
        nodeR[k * nR + r] = -ohm;
      }
      nodeC[k] = constant;
    }
    // Port drives and impedances.
    const z = into.ports.z;
    for (let p = 0; p < nP; p++) {
      const port = ports[p]!;
      const winding = windings[port.winding]!;
      const plus = port.input >= 0 ? inputs[port.input]!.plus : -1;
      const minus = port.input >= 0 ? inputs[port.input]!.minus : -1;
      for (let s = 0; s < nX; s++) uX[p * nX + s] = -across(nodeX, nX, plus, minus, s);
      for (let r = 0; r < nR; r++) uR[p * nR + r] = -across(nodeR, nR, plus, minus, r);
      uC[p] = -across(nodeC, 1, plus, minus, 0);
      if (winding.state >= 0) uX[p * nX + winding.state]! += (port.share * winding.inductanceH) / g;
      for (let j = 0; j < nP; j++) {
        const other = ports[j]!;
        const share = port.share * other.share;
        let ohm = share * winding.ratio * windings[other.winding]!.ratio * circuit.sharedOhm;
        if (other.winding === port.winding) ohm += share * (winding.ownOhm + winding.inductanceH / g);
        z[p * nP + j] = ohm + (other.input >= 0 ? across(nodeP, nP, plus, minus, j) : 0);
      }
    }
    finishPortTable(into.ports, ports);
    // States and rail voltages.
    for (let n = 0; n < nE; n++) {
      const element = elements[n]!;
      if (element.kind === 'resistor') continue;
      const own = element.state;
      const capacitor = element.kind === 'capacitor';
      const plus = capacitor ? element.plus : element.from;
      const minus = capacitor ? element.minus : element.to;
      const s = capacitor ? g / (element.esrOhm * element.capacitanceF + g) : 1 / (element.ohm + differential[n]! / g);
      for (let c = 0; c < nX; c++) yX[own * nX + c] = s * across(nodeX, nX, plus, minus, c);
      for (let p = 0; p < nP; p++) yP[own * nP + p] = s * across(nodeP, nP, plus, minus, p);
      for (let r = 0; r < nR; r++) yR[own * nR + r] = s * across(nodeR, nR, plus, minus, r);
      yC[own] = s * across(nodeC, 1, plus, minus, 0);
      yX[own * nX + own]! += capacitor ? 1 - s : (s * differential[n]!) / g;
    }
    for (let p = 0; p < nP; p++) {
      const { state } = windings[ports[p]!.winding]!;
      if (state >= 0) yP[state * nP + p] = ports[p]!.share;
    }
    for (let r = 0; r < nR; r++) {
      const out = rails[r]!.outputNode;
      for (let c = 0; c < nX; c++) yX[(nX + r) * nX + c] = nodeX[out * nX + c]!;
      for (let p = 0; p < nP; p++) yP[(nX + r) * nP + p] = nodeP[out * nP + p]!;
      for (let q = 0; q < nR; q++) yR[(nX + r) * nR + q] = nodeR[out * nR + q]!;
      yC[nX + r] = nodeC[out]!;
    }
    return into;
  }

  function fetch(): void {
    if (grid < 0 || swings.length > 0) {
      level = build(scratch, gammaH);
      return;
    }
    let key = 0;
    for (let r = 0; r < nR; r++) key += segment[r]! * radix[r]!;
    let row = cache.get(key);
    if (!row) cache.set(key, (row = new Array<Level | undefined>(LEVELS)));
    level = row[grid] ??= build(newLevel(), gammaH);
  }

  /** One solution of the linear part and the ports with everything bent held straight. */
  function pass(e: number): boolean {
    const { uX, uC, uR, yX, yP, yC, yR } = level;
    for (let p = 0; p < nP; p++) {
      let sum = uE[p]! * e + uC[p]!;
      for (let s = 0; s < nX; s++) sum += uX[p * nX + s]! * base[s]!;
      if (bent) for (let r = 0; r < nR; r++) sum += uR[p * nR + r]! * extraA[r]!;
      u[p] = sum;
    }
    if (!solver.solve(level.ports, u)) return false;
    for (let n = 0; n < nY; n++) {
      let sum = yC[n]!;
      for (let s = 0; s < nX; s++) sum += yX[n * nX + s]! * base[s]!;
      for (let p = 0; p < nP; p++) sum += yP[n * nP + p]! * portA[p]!;
      if (bent) for (let r = 0; r < nR; r++) sum += yR[n * nR + r]! * extraA[r]!;
      y[n] = sum;
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
          segment[r] = k + 1;
          moved = true;
        } else if (k > 0 && v < breakpoints[k - 1]! - 1e-12) {
          segment[r] = k - 1;
          moved = true;
        }
      }
      if (extra) {
        const wanted = extra(v, t);
        const dv = 1e-6 * (Math.abs(v) + 1e-3);
        const gradient = (extra(v + dv, t) - wanted) / dv;
        const ohm = -level.yR[(nX + r) * nR + r]!;
        const step = (wanted - extraA[r]!) / Math.max(1 + ohm * gradient, 0.05);
        if (Math.abs(step) > 1e-10 * (Math.abs(wanted) + circuit.typicalA)) {
          extraA[r]! += step;
          moved = true;
        }
      }
    }
    return moved;
  }

  const segmented = bent || rails.some((r) => r.load.breakpoints.length > 0);

  function solveStraight(e: number, t: number): boolean {
    for (let round = 0; round < 60; round++) {
      if (!pass(e)) return false;
      if (!segmented || !relinearise(t, round)) return true;
      fetch();
    }
    // A bent load that will not settle is one that the supply cannot feed at this instant.
    return false;
  }

  /** As solveStraight, with each swinging choke made linear about its own current until that current stays. */
  function solveSwinging(e: number, t: number): boolean {
    for (const n of swings) flux[stateOf(n)] = base[stateOf(n)]!;
    for (let round = 0; round < 40; round++) {
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
      if (worst < 1e-9 * circuit.typicalA) break;
    }
    for (const n of swings) {
      const s = stateOf(n);
      const element = elements[n]!;
      base[s] = flux[s]!;
      if (element.kind === 'inductor') x[s] = fluxAt(element.inductanceH, element.halfAtA, x[s]!);
    }
    return true;
  }

  const dDrive = new Float64Array(nP);
  const dPort = new Float64Array(nP);
  const response = new Float64Array(nP * nP);

  function stateOf(n: number): number {
    const element = elements[n]!;
    return element.kind === 'resistor' ? -1 : element.state;
  }

  return {
    base,
    x,
    node,
    portA,
    floatV: solver.floatV,
    loadA,
    /** Chooses the step: `index` on the grid of step sizes, or -1 for one off it. */
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
        if (Math.abs(step) < 1e-13 * circuit.typicalA) break;
      }
      return i;
    },
    /** Starts the search for swinging chokes' currents afresh from states. */
    aim(from: Float64Array): void {
      for (const n of swings) about[n] = this.chokeCurrent(n, from[stateOf(n)]!);
    },
    /** Prepares `carry` for the stage just solved. */
    prepareCarry(): number {
      return solver.response(level.ports, response);
    },
    /**
     * How a disturbance of the starting values comes out of the stage just solved.
     * @param only what prepareCarry returned
     */
    carry(only: number, dBase: Float64Array, dx: Float64Array): void {
      const { uX, yX, yP } = level;
      // A swinging choke's state is its flux; the maps know its current.
      for (const n of swings) dBase[stateOf(n)]! /= differential[n]!;
      if (only >= 0) {
        let sum = 0;
        for (let s = 0; s < nX; s++) sum += uX[only * nX + s]! * dBase[s]!;
        dPort[only] = response[only * nP + only]! * sum;
      } else if (only === -2) {
        for (let p = 0; p < nP; p++) {
          let sum = 0;
          for (let s = 0; s < nX; s++) sum += uX[p * nX + s]! * dBase[s]!;
          dDrive[p] = sum;
        }
        for (let p = 0; p < nP; p++) {
          let sum = 0;
          for (let j = 0; j < nP; j++) sum += response[p * nP + j]! * dDrive[j]!;
          dPort[p] = sum;
        }
      }
      for (let n = 0; n < nX; n++) {
        let sum = 0;
        for (let s = 0; s < nX; s++) sum += yX[n * nX + s]! * dBase[s]!;
        if (only >= 0) sum += yP[n * nP + only]! * dPort[only]!;
        else if (only === -2) for (let p = 0; p < nP; p++) sum += yP[n * nP + p]! * dPort[p]!;
        dx[n] = sum;
      }
      for (const n of swings) {
        dBase[stateOf(n)]! *= differential[n]!;
        dx[stateOf(n)]! *= differential[n]!;
      }
    },
    /** Fills `node` and `loadA` for the stage just solved. */
    spell(): void {
      const { nodeX, nodeP, nodeC, nodeR } = level;
      for (let k = 0; k < nodes; k++) {
        let sum = nodeC[k]!;
        for (let s = 0; s < nX; s++) sum += nodeX[k * nX + s]! * (swings.length > 0 ? currentBase(s) : base[s]!);
        for (let p = 0; p < nP; p++) sum += nodeP[k * nP + p]! * portA[p]!;
        if (bent) for (let r = 0; r < nR; r++) sum += nodeR[k * nR + r]! * extraA[r]!;
        node[k] = sum;
      }
      for (let r = 0; r < nR; r++) {
        const { offset, slope } = rails[r]!.load;
        loadA[r] = offset[segment[r]!]! + slope[segment[r]!]! * y[nX + r]! + extraA[r]!;
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

function across(map: Float64Array, width: number, plus: number, minus: number, column: number): number {
  if (plus < 0) return 0;
  return map[plus * width + column]! - (minus >= 0 ? map[minus * width + column]! : 0);
}

export type StageSolver = ReturnType<typeof stageSolver>;
export { LEVELS };
