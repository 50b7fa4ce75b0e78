import type { Circuit } from '@/core/circuit/assemble';
import { Arena } from './arena';
import { carryOf } from './carry';
import { emf, stops } from './emf';
import { STAGES } from './esdirk';
import { plainRun } from './native/plain-run';
import type { Reading } from './reading';
import { newRecords, type Records } from './records';
import { sameShape } from './same-shape';
import { SolveError } from './solve-error';
import { LEVELS, stageSolver, type StageSolver } from './stage';
import { stepOf, type RunOptions } from './step';
import { turnOffEvents } from './turn-off';
import { turnOnForesight } from './turn-on';
import type { Work } from './work';

/** Rows there is space for at first where records are read at even distances. */
const SAMPLED_ROWS = 96;
/** Steps in one run before it counts as hopeless. */
const MOST_STEPS = 6_000;
/** Most work in one run (a cycle at most): what needs more is no supply but a puzzle. */
const MOST_WORK = 2.5e7;
/** The longest step, as a share of the period. */
const LONGEST = 1 / 8;
/** Behind a filter's resistor, where a small ripple is added up from what is large; and where potentials float. */
const LONGEST_FILTERED = 1 / 16;
/** Behind a choke, where a wave's crest has to be read off a smooth swing. */
const LONGEST_CHOKED = 1 / 32;
/** Nothing smooths what a circuit without storage does, and every instant of it is cheap. */
const LONGEST_STATELESS = 1 / 64;
/** Steps lie on a grid of sqrt(2), so that their maps can be kept: shares of the longest. */
const GRID = Float64Array.from({ length: LEVELS }, (_, l) => 2 ** (-l / 2));
/** A step on the grid is as long as wanted where only rounding says that it is longer. */
const ROUNDED = 1 + 4e-10;
/** First step into the first charging pulse, as a share of the period. */
const FIRST = 1 / 100;
/** First step where nothing conducts, as a share of the period. */
const QUIET = 1 / 8;
/** No step is made shorter than this share of the period for the sake of accuracy. */
const SHORTEST = 1e-8;

/** Relative to the swing of each state: keeps every reported figure within about 0.01 %. */
export const TIGHT = 5e-6;
/** Good enough to aim the next pass of a search. */
export const LOOSE = 4e-4;
/** Good enough to aim the last pass of a search. */
export const CLOSE = 1.2e-5;

/** Integrators that are done, to be used again for the next circuit of the same shape. */
const idle: Integrator[] = [];
/** Shapes that are kept ready: a shelf of designs, in all their corners. */
const MOST_IDLE = 32;

/** An integrator for a circuit. It serves all runs over that circuit, until it is released. */
export function integratorFor(circuit: Circuit): Integrator {
  const at = idle.findIndex((other) => sameShape(other.circuit, circuit));
  if (at < 0) return newIntegrator(circuit);
  const [integrator] = idle.splice(at, 1);
  integrator!.load(circuit);
  return integrator!;
}

/** Works with an integrator, which is released however the work ends. */
export function releasing<T>(integrator: Integrator, work: () => T): T {
  try {
    return work();
  } finally {
    integrator.release();
  }
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
  /** What of the records was read at even distances. */
  readonly sampled: Records;
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
  /** What its records come to, by the machine's own code; null where that did not leave them. */
  plainReading(): Reading | null;
  /** Hands the integrator on to the next circuit of its shape; it must not be used afterwards. */
  release(): void;
  /** Gives up what it holds, for good. */
  end(): void;
}

/** The longest step over a circuit, as a share of the period. */
function longestOf({ states, floats, elements }: Circuit): number {
  if (states === 0) return LONGEST_STATELESS;
  if (elements.some((e) => e.kind === 'inductor')) return LONGEST_CHOKED;
  return floats > 0 || elements.some((e) => e.kind === 'resistor' && e.to >= 0) ? LONGEST_FILTERED : LONGEST;
}

function newIntegrator(shape: Circuit): Integrator {
  const work: Work = { done: 0 };
  const stage = stageSolver(shape, work);
  const records = newRecords(shape);
  const sampled = newRecords(shape, SAMPLED_ROWS);
  const nX = shape.states;
  const carry = carryOf(stage, nX);
  /** Work of a step beside its stages. */
  const stepWork = 8 * STAGES * (nX + shape.ports.length + shape.nodes);
  const longest = longestOf(shape);
  const foresight = turnOnForesight(shape, stage);
  const step = stepOf(shape, stage, records, carry);
  const { x } = step;
  const events = turnOffEvents(shape, stage, step.lastPortA, x);
  const eventful = events.any;
  /** Whether diodes can join others that conduct, at a bend worth foreseeing: behind a capacitor it is gentle. */
  const several = events.choked && foresight.several;
  if (several) step.watch(foresight.tell);
  /** The machine's own code, where the circuit is plain enough for it. */
  const plain = plainRun(shape, records);
  const gridH = new Float64Array(LEVELS);
  const low = new Float64Array(nX);
  const high = new Float64Array(nX);
  let circuit = shape;
  let { periodS } = shape;
  let flowed = 0;
  /** What the tolerance in force does to the length of a step, against the loosest. */
  let tolerated = 1;
  /** First step into a charging pulse at the loosest tolerance, s: what the last one turned out to need. */
  let first = 0;
  /** Whether the general way still holds an earlier circuit: it takes over the next only where it is needed. */
  let stale = false;
  load(shape);

  function load(next: Circuit): void {
    circuit = next;
    ({ periodS } = next);
    for (let l = 0; l < LEVELS; l++) gridH[l] = longest * periodS * GRID[l]!;
    first = FIRST * periodS;
    step.load(next);
    plain?.load(next, gridH, first);
    stale = true;
    if (!plain) catchUp();
  }

  function catchUp(): void {
    if (!stale) return;
    stale = false;
    events.load(circuit);
    foresight.load(circuit);
    stage.load(circuit);
  }

  function fail(words: string): never {
    throw new SolveError(words);
  }

  function run(start: Float64Array, from: number, to: number, options: RunOptions): number {
    return (plain && runPlain(start, from, to, options)) || runAny(start, from, to, options);
  }

  /** A run by the machine's own code. @returns 0 where it does not know how to go on */
  function runPlain(start: Float64Array, from: number, to: number, options: RunOptions): number {
    const steps = plain!.run(start, from, to, options, records);
    if (steps <= 0) return 0;
    work.done += plain!.work();
    const { x: endX, low: lowest, high: highest, transition } = plain!;
    for (let n = 0; n < nX; n++) {
      x[n] = endX[n]!;
      low[n] = lowest[n]!;
      high[n] = highest[n]!;
    }
    if (options.carry) for (let n = 0; n < nX * nX; n++) carry.transition[n] = transition[n]!;
    flowed = plain!.flowed();
    return steps;
  }

  function runAny(start: Float64Array, from: number, to: number, options: RunOptions): number {
    catchUp();
    const { mains } = options;
    x.set(start);
    if (options.carry) carry.begin();
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
    step.derive(t, options);
    const emfAt = (at: number) => emf(circuit, mains, at);
    let quiet = foresight.quiet(Infinity);
    if (quiet) wanted = QUIET * periodS;
    let starting = false;
    let afterStart = false;
    let joining = false;
    let lastH = 0;
    foresight.forget();
    for (const stop of stops(circuit, mains, from, to)) {
      while (t < stop) {
        if (++steps > MOST_STEPS) fail('the integration needs more steps than any real supply would');
        work.done += stepWork;
        if (work.done > mostWork) fail('one cycle takes too long to calculate');
        const left = stop - t;
        let index = 0;
        while (index < LEVELS - 1 && gridH[index]! > ROUNDED * wanted) index++;
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
          const most = events.limit(step.lastK);
          if (most < h && most > SHORTEST * periodS) {
            h = most;
            index = -1;
            capped = true;
          }
        }
        const solved = step.take(t, h, index, options);
        const error = solved ? step.error(h) : 1e3;
        if (error !== error) fail('the integration left the range of numbers');
        if (error > 1 && h > SHORTEST * periodS) {
          wanted = h * Math.max(0.15, 0.9 * Math.sqrt(1 / Math.sqrt(error)));
          calm = 0;
          joining = false;
          continue;
        }
        if (!solved) fail('no voltages were found that fit all parts at one instant');
        if (eventful) {
          const ends = events.next(h, landing, step.k);
          if (ends > SHORTEST * periodS && ends < 0.999 * h) {
            forced = ends;
            joining = false;
            continue;
          }
        }
        flowed += step.accept(h, options);
        t = h === left ? stop : t + h;
        for (let n = 0; n < nX; n++) {
          if (x[n]! < low[n]!) low[n] = x[n]!;
          if (x[n]! > high[n]!) high[n] = x[n]!;
        }
        const ceased = eventful && events.cut();
        if (ceased) step.derive(t, options);
        else step.settle(options, eventful);
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

  const integrator: Integrator = {
    get circuit() {
      return circuit;
    },
    get stage() {
      catchUp();
      return stage;
    },
    records,
    work,
    x,
    transition: carry.transition,
    low,
    high,
    get flowedA2s() {
      return flowed;
    },
    arena: new Arena(),
    sampled,
    load,
    setTolerance(relative, swing, squaredA2s) {
      step.setTolerance(relative, swing, squaredA2s);
      tolerated = (relative / LOOSE) ** 0.25;
      plain?.setTolerance(swing, relative, squaredA2s, tolerated);
    },
    run,
    plainReading: () => plain?.reading(records) ?? null,
    release() {
      idle.push(integrator);
      if (idle.length > MOST_IDLE) idle.shift()!.end();
    },
    end: () => plain?.release(),
  };
  return integrator;
}
