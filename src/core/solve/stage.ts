import type { Circuit } from '@/core/circuit/assemble';
import { apartStage } from './apart-stage';
import { stageLayout, type Level } from './layout';
import { levelBuilder } from './level';
import { driveOf, finishPorts } from './port-law';
import { NONE_LIVE, portResponse, SEVERAL_LIVE } from './port-response';
import { loadPorts, newPortState } from './port-state';
import { portSolver } from './ports';
import { swingingChokes } from './swings';
import { LAW, type Work } from './work';

/** Step sizes whose levels are kept; the next one is the instant. */
export const LEVELS = 48;

export type StageSolver = ReturnType<typeof stageSolver>;

/**
 * Solves one implicit stage of a circuit. Everything linear is eliminated beforehand per step size (steps come from a grid
 * of sqrt(2), so few are built); the ports are solved last.
 */
export function stageSolver(shape: Circuit, work: Work) {
  const at = stageLayout(shape);
  const { nodes, states: nX, rails: nR, ports: nP, given: nG } = at;
  const builder = levelBuilder(at, shape);
  const { uE } = builder;
  const state = newPortState(shape);
  const solver = portSolver(at, state, work);
  const apart = apartStage(at, state);
  const response = portResponse(at, state);
  const swings = swingingChokes(shape);
  let { rails } = shape;
  let { typicalA } = shape;

  const portA = state.i;
  /** The stage's starting values: what the states would be if nothing happened during gamma*h. */
  const given = new Float64Array(nG);
  const base = given.subarray(0, nX);
  const bent = nG > nX;
  /** What each bent load draws beyond its straight part, A. */
  const extraA = bent ? given.subarray(nX) : new Float64Array(nR);
  /** The change of each state against its starting value, then the voltage of each rail. */
  const outcome = new Float64Array(nX + nR);
  const change = outcome.subarray(0, nX);
  const railV = outcome.subarray(nX);
  const x = new Float64Array(nX);
  const node = new Float64Array(nodes);
  const u = new Float64Array(nP);
  const loadA = new Float64Array(nR);
  const lastStep = new Float64Array(nR);
  const damping = new Float64Array(nR);
  const segment = new Int32Array(nR);
  const segmentLow = new Float64Array(nR);
  const segmentHigh = new Float64Array(nR);
  const radix = rails.map((_, r) => rails.slice(0, r).reduce((p, rail) => p * rail.load.offset.length, 1));
  const segmented = bent || rails.some((r) => r.load.breakpoints.length > 0);
  /** What a pass has to find: the rail voltages only where a load depends on them by segments. */
  const nOutcome = segmented ? nX + nR : nX;
  /** Levels by load segments and step size, with the loading of the values each was built from. */
  const cache = new Map<number, { level: (Level | undefined)[]; loading: Int32Array }>();
  let loading = 0;
  const scratch: Level = new Float64Array(at.length);
  let level = scratch;
  let grid = -1;
  let gammaH = 0;
  /** Whether the stage just solved was one in closed form. */
  let closed = false;
  const passWork = nP * nG + nOutcome * (nG + nP) + LAW;
  const dPort = new Float64Array(nP * nX);
  const portS = new Float64Array(nP * nP);
  load(shape);

  /** Takes over the values of a circuit of the same shape. */
  function load(circuit: Circuit): void {
    ({ rails, typicalA } = circuit);
    builder.load(circuit);
    swings.load(circuit);
    for (let r = 0; r < nR; r++) {
      takeSegment(r, rails[r]!.load.offset.length - 1);
      extraA[r] = 0;
    }
    loadPorts(state, circuit);
    loading++;
    grid = -2;
  }

  function takeSegment(r: number, k: number): void {
    const { breakpoints } = rails[r]!.load;
    segment[r] = k;
    segmentLow[r] = k > 0 ? breakpoints[k - 1]! : -Infinity;
    segmentHigh[r] = k < breakpoints.length ? breakpoints[k]! : Infinity;
  }

  function build(d: Level): Level {
    work.done += builder.work;
    builder.build(d, gammaH, segment);
    finishPorts(at, state, d);
    if (apart.usable) apart.finish(d, uE);
    return d;
  }

  function fetch(): void {
    if (grid < 0 || swings.any) {
      level = build(scratch);
      return;
    }
    let key = 0;
    for (let r = 0; r < nR; r++) key += segment[r]! * radix[r]!;
    let row = cache.get(key);
    if (!row) {
      row = { level: new Array<Level | undefined>(LEVELS + 1), loading: new Int32Array(LEVELS + 1) };
      cache.set(key, row);
    }
    level = row.level[grid] ??= new Float64Array(at.length);
    if (row.loading[grid] === loading) return;
    row.loading[grid] = loading;
    build(level);
  }

  /** One solution of the linear part and the ports with everything bent held straight. */
  function pass(e: number): boolean {
    work.done += passWork;
    closed = apart.usable && state.apart && apart.solve(level, e, given, outcome, nOutcome);
    if (!closed && !passBent(e)) return false;
    // A change is found as such: the difference of two nearly equal numbers would leave little of a short step's slope.
    for (let n = 0; n < nX; n++) x[n] = base[n]! + change[n]!;
    return true;
  }

  function passBent(e: number): boolean {
    const d = level;
    for (let p = 0; p < nP; p++) {
      let sum = uE[p]! * e + d[at.uC + p]!;
      for (let g = 0, from = at.u + p * nG; g < nG; g++) sum += d[from + g]! * given[g]!;
      u[p] = sum;
    }
    if (!solver.solve(d, u)) return false;
    for (let n = 0; n < nOutcome; n++) {
      let sum = d[at.yC + n]!;
      for (let g = 0, from = at.y + n * nG; g < nG; g++) sum += d[from + g]! * given[g]!;
      for (let p = 0, from = at.yP + n * nP; p < nP; p++) sum += d[from + p]! * portA[p]!;
      outcome[n] = sum;
    }
    return true;
  }

  /** Whether every rail stands within the segment its load was taken from. */
  function inSegments(): boolean {
    for (let r = 0; r < nR; r++) {
      const v = railV[r]!;
      if (v > segmentHigh[r]! + 1e-12 || v < segmentLow[r]! - 1e-12) return false;
    }
    return true;
  }

  /** Moves load segments and bent loads towards where the last pass ended. @returns true when something moved */
  function relinearise(t: number, round: number): boolean {
    let moved = false;
    for (let r = 0; r < nR; r++) {
      const { breakpoints, extra } = rails[r]!.load;
      const v = railV[r]!;
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
      if (extra && straighten(r, extra, v, t, round)) moved = true;
    }
    return moved;
  }

  /** One step of Newton's method towards what a bent load draws. @returns whether there was one left to take */
  function straighten(
    r: number,
    extra: (v: number, t: number) => number,
    v: number,
    t: number,
    round: number,
  ): boolean {
    if (round === 0) {
      damping[r] = 1;
      lastStep[r] = 0;
    }
    const wanted = extra(v, t);
    const dv = 1e-6 * (Math.abs(v) + 1e-3);
    const gradient = (extra(v + dv, t) - wanted) / dv;
    const ohm = -level[at.y + (nX + r) * nG + nX + r]!;
    const step = (wanted - extraA[r]!) / Math.max(1 + ohm * gradient, 0.05);
    if (Math.abs(step) <= 1e-10 * (Math.abs(wanted) + typicalA)) return false;
    // Where the load bends sharply the steps can swing about its knee for ever: then each swing is halved.
    damping[r] = step * lastStep[r]! < 0 ? 0.5 * damping[r]! : Math.min(1, 1.2 * damping[r]!);
    lastStep[r] = step;
    extraA[r]! += damping[r]! * step;
    return true;
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
    let settled = false;
    swings.hold(base);
    for (let round = 0; round < 40 && !settled; round++) {
      swings.straighten(base, builder.differential);
      fetch();
      const solved = solveStraight(e, t);
      const moved = swings.follow(x, round);
      if (!solved) return false;
      settled = moved < 1e-9 * typicalA;
    }
    // A choke whose current was not found is not passed off as one that was.
    if (!settled) return false;
    swings.bendBack(base, x, change);
    return true;
  }

  return {
    base,
    x,
    /** What the stage just solved adds to `base`. */
    change,
    node,
    portA,
    floatV: state.floatV,
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
    solve: (e: number, t: number): boolean => (swings.any ? solveSwinging(e, t) : solveStraight(e, t)),
    /** Current in a choke whose state is `value`: the state itself, or what belongs to that flux. */
    chokeCurrent: swings.currentOf,
    /** Flux per ampere of a swinging choke where it now stands, H; 1 for a choke whose state is its current. */
    statePerAmp: swings.perAmp,
    /** State of a choke that carries a current: the current itself, or the flux that goes with it. */
    stateFor: swings.stateFor,
    /** Voltage across a port that carries next to nothing at the stage just solved, V. */
    driveV: (port: number): number => (closed ? apart.driveV(level, port) : driveOf(at, state, level, u, port)),
    /** Starts the search for swinging chokes' currents afresh from states. */
    aim: swings.aim,
    /** d(x - base)/d(base) of the stage just solved, row by row into `out` from `to` on. */
    sensitivity(out: Float64Array, to: number): void {
      const d = level;
      for (let n = 0; n < nX; n++) {
        for (let c = 0; c < nX; c++) out[to + n * nX + c] = d[at.y + n * nG + c]!;
      }
      const live = response(d, portS);
      if (live === SEVERAL_LIVE) {
        for (let p = 0; p < nP; p++) {
          for (let c = 0; c < nX; c++) {
            let sum = 0;
            for (let j = 0; j < nP; j++) sum += portS[p * nP + j]! * d[at.u + j * nG + c]!;
            dPort[p * nX + c] = sum;
          }
        }
        for (let n = 0; n < nX; n++) {
          for (let p = 0; p < nP; p++) {
            const share = d[at.yP + n * nP + p]!;
            if (share !== 0) for (let c = 0; c < nX; c++) out[to + n * nX + c]! += share * dPort[p * nX + c]!;
          }
        }
      } else if (live !== NONE_LIVE) {
        for (let n = 0; n < nX; n++) {
          const share = d[at.yP + n * nP + live]! * portS[live * nP + live]!;
          for (let c = 0; c < nX; c++) out[to + n * nX + c]! += share * d[at.u + live * nG + c]!;
        }
      }
      if (swings.any) swings.rescale(out, to, nX);
    },
    /** Fills `node` and `loadA` for the stage just solved. */
    spell(): void {
      const d = level;
      for (let k = 0; k < nodes; k++) {
        let sum = d[at.nodeC + k]!;
        for (let s = 0, from = at.node + k * nG; s < nX; s++) {
          sum += d[from + s]! * (swings.any ? swings.current(base, s) : base[s]!);
        }
        for (let p = 0, from = at.nodeP + k * nP; p < nP; p++) sum += d[from + p]! * portA[p]!;
        if (bent) for (let r = 0, from = at.node + k * nG + nX; r < nR; r++) sum += d[from + r]! * extraA[r]!;
        node[k] = sum;
      }
      for (let r = 0; r < nR; r++) {
        const { offset, slope } = rails[r]!.load;
        const s = segment[r]!;
        loadA[r] = offset[s]! + slope[s]! * node[rails[r]!.outputNode]! + extraA[r]!;
      }
    },
  };
}
