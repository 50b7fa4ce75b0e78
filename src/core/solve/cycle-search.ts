import type { Circuit } from '@/core/circuit/assemble';
import { solveLinear } from './dense';
import { RUNNING_MAINS } from './emf';
import { storedEnergy } from './figures';
import { firstGuess, type Guess } from './first-guess';
import { CLOSE, LOOSE, TIGHT, type Integrator } from './integrator';
import { SolveError } from './solve-error';

/** A cycle counts as closed when the correction still due is below this share of each state's own swing. */
const ACCEPT = 3e-4;
/** The same for a foretold cycle that no correction has improved yet: nothing else says how good it is. */
const ACCEPT_FORETOLD = 5e-5;
/**
 * The same where a slow memory makes much of a small miss: what the cycle ends off by, as a share of each state's swing, is
 * what its currents are off by; the correction only moves the level, by this share of it.
 */
const ACCEPT_MISS = 2e-4;
const ACCEPT_LEVEL = 2e-5;
const MOST_PASSES = 60;
/** Share of the squared current that did flow below which what the load would make flow no longer counts. */
const FLOWING = 0.05;
/** Most work in one search. */
const MOST_WORK = 5e7;
/** Cycles the circuit then runs by itself. */
const COASTING_CYCLES = 10;
/** Passes after which a search that has not closed counts as bouncing. */
const BOUNCING = 5;
/** After so many passes without success the search lets the circuit run by itself for a while. */
const PATIENCE = 14;

/** A circuit in its periodic steady state, with the records of one cycle from t = 0: of its first half where the halves mirror. */
export interface Cycle {
  integrator: Integrator;
  /** States at t = 0. */
  start: Float64Array;
  storedJ: number;
  effort: { steps: number; passes: number };
}

/** Room for one pass of a search over so many states; each is written anew before it is read. */
interface Scratch {
  scale: Float64Array;
  image: Float64Array;
  miss: Float64Array;
  step: Float64Array;
  matrix: Float64Array;
}

const rooms: Scratch[] = [];

/** One search at a time: made anew for each, its arrays would be a fortieth of a warm one's time. */
function scratchFor(states: number): Scratch {
  const room = () => new Float64Array(states);
  return (rooms[states] ??= {
    scale: room(),
    image: room(),
    miss: room(),
    step: room(),
    matrix: new Float64Array(states * states),
  });
}

/** How a pass over the cycle is run. */
const PASS = { mains: RUNNING_MAINS, record: false, carry: true, fromRest: false };

/**
 * One search for the cycle that repeats itself: passes over it, each followed by a correction of where it starts. From a guess
 * a few careless passes come first; the last are careful, and use what is known of the cycle map.
 */
export class CycleSearch {
  private readonly circuit: Circuit;
  /** How many states there are. */
  private readonly n: number;
  /** Whether it began where another ended. */
  private readonly warm: boolean;
  private readonly expectedA2s: number;
  private readonly room: Scratch;
  private readonly mostWork: number;
  private guess: Guess;
  private start: Float64Array;
  private readonly swing: Float64Array;
  private readonly floor: Float64Array;
  /** What an error in a step's squared current is measured by: where a shorted diode lets a hundred times the load flow, by that. */
  private squares: number;
  private precision: number;
  /** Whether the last pass was as careful as they get. */
  private tight = false;
  /** Whether the map has to be found anew: the last correction was large, or corrections no longer help. */
  private far = true;
  private anew = false;
  private steps = 0;
  private passes = 0;
  private since = 0;
  private lastSize = Infinity;
  // Begun as whole numbers these would have all that reads a search compiled anew with their first fraction.
  private damping = NaN;
  /** A slow filter makes much of the step control's noise: where the search bounces in it, the steps get finer. */
  private finer = NaN;
  // With one state the map is monotone: what is known of it brackets the answer.
  private low = -Infinity;
  private high = Infinity;
  /** What the last pass ended off by, the correction due, and that as a share of the level: as shares of each state's swing. */
  private missSize = NaN;
  private size = NaN;
  private levelOff = NaN;

  /** @param sure whether `warm` is foretold for this very circuit */
  constructor(
    private readonly integrator: Integrator,
    warm: readonly number[] | undefined,
    private readonly sure: boolean,
  ) {
    const { circuit } = integrator;
    this.circuit = circuit;
    this.n = circuit.states;
    this.warm = warm?.length === this.n && warm.every((v) => Number.isFinite(v));
    this.guess = firstGuess(circuit, this.warm);
    this.start = this.warm ? new Float64Array(warm!) : this.guess.state;
    this.swing = this.guess.swing.slice();
    this.floor = this.guess.floor;
    this.expectedA2s = 3 * circuit.typicalA ** 2 * circuit.periodS * (circuit.mirror ? 0.5 : 1);
    this.squares = this.expectedA2s;
    this.room = scratchFor(this.n);
    this.mostWork = integrator.work.done + MOST_WORK;
    this.damping = 1;
    this.finer = 1;
    this.precision = !this.warm ? LOOSE : sure ? TIGHT : CLOSE;
  }

  /** @throws SolveError when no cycle closes */
  found(): Cycle {
    for (;;) {
      this.pass();
      this.seeMiss();
      this.seeCorrection();
      if (this.closed()) break;
      this.bracket();
      if (this.warm && this.passes === 1 && this.size > 1) {
        this.beginAnew();
        continue;
      }
      this.anew = this.since > 0 && this.size > 0.3 * this.lastSize;
      this.far = this.size > 0.1;
      if (this.readyForMore()) this.moreCareful();
      else if (++this.since >= PATIENCE) {
        this.runByItself();
        continue;
      }
      if (!this.move()) break;
    }
    const { integrator, start } = this;
    const storedJ = storedEnergy(integrator, integrator.x) - storedEnergy(integrator, start);
    const effort = { steps: this.steps, passes: this.passes };
    return { integrator, start, storedJ: this.circuit.mirror ? 2 * storedJ : storedJ, effort };
  }

  /** Runs the cycle once from where it is taken to start. */
  private pass(): void {
    const { integrator, guess, swing, floor, n } = this;
    const { mirror, periodS } = this.circuit;
    const { scale, image } = this.room;
    if (++this.passes > MOST_PASSES || integrator.work.done > this.mostWork)
      throw new SolveError('no cycle was found that repeats itself');
    for (let s = 0; s < n; s++) scale[s] = Math.min(swing[s]!, guess.ceiling[s]!);
    const tight = this.precision === TIGHT;
    this.tight = tight;
    integrator.setTolerance(tight ? TIGHT * this.finer : this.precision, scale, this.squares);
    integrator.records.count = 0;
    PASS.record = tight;
    PASS.carry = this.anew || this.far;
    this.steps += integrator.run(this.start, 0, mirror ? periodS / 2 : periodS, PASS);
    this.squares = Math.max(this.expectedA2s, FLOWING * integrator.flowedA2s);
    for (let s = 0; s < n; s++) {
      const to = mirror ? mirror.states[s]! : s;
      image[to] = (mirror ? mirror.stateSigns[s]! : 1) * integrator.x[s]!;
      swing[s] = Math.max(integrator.high[s]! - integrator.low[s]!, floor[s]!);
    }
    if (mirror) for (let s = 0; s < n; s++) swing[s] = Math.max(swing[s]!, swing[mirror.states[s]!]!);
  }

  /** What the pass ended off by. */
  private seeMiss(): void {
    const { start, swing, n } = this;
    const { image, miss } = this.room;
    let missSize = 0;
    for (let s = 0; s < n; s++) {
      miss[s] = image[s]! - start[s]!;
      missSize = Math.max(missSize, Math.abs(miss[s]!) / swing[s]!);
    }
    this.missSize = missSize;
  }

  /** The correction Newton's method asks for; the miss itself where there is none. */
  private seeCorrection(): void {
    const { integrator, start, swing, n } = this;
    const { mirror } = this.circuit;
    const { miss, step, matrix } = this.room;
    for (let row = 0; row < n; row++) {
      const to = mirror ? mirror.states[row]! : row;
      const sign = mirror ? mirror.stateSigns[row]! : 1;
      for (let c = 0; c < n; c++) matrix[to * n + c] = (to === c ? 1 : 0) - sign * integrator.transition[row * n + c]!;
      step[row] = miss[row]!;
    }
    // Too slow a memory to be resolved: the correction would divide by nothing.
    for (let s = 0; s < n; s++) matrix[s * n + s]! += 1e-10;
    const regular = solveLinear(matrix, n, step);
    let size = 0;
    let levelOff = 0;
    for (let s = 0; s < n; s++) {
      size = Math.max(size, Math.abs(step[s]!) / swing[s]!);
      levelOff = Math.max(levelOff, Math.abs(step[s]!) / Math.max(Math.abs(start[s]!), swing[s]!));
    }
    if (!regular || !Number.isFinite(size)) {
      step.set(miss);
      size = this.missSize;
      levelOff = Infinity;
    }
    this.size = size;
    this.levelOff = levelOff;
  }

  /** Closed; or off by a level that is nothing beside it; or as closed as the step control's own noise allows. */
  private closed(): boolean {
    const { size, missSize } = this;
    const accept = this.sure && this.passes === 1 ? ACCEPT_FORETOLD : ACCEPT;
    const level = missSize < (ACCEPT_MISS / ACCEPT) * accept && this.levelOff < ACCEPT_LEVEL;
    const stuck = missSize < 0.2 * accept && size > 0.3 * this.lastSize;
    return this.tight && (size < accept || level || stuck);
  }

  private bracket(): void {
    if (this.n !== 1) return;
    const at = this.start[0]!;
    if (this.room.miss[0]! > 0) this.low = Math.max(this.low, at);
    else this.high = Math.min(this.high, at);
  }

  /** Too far off to be of use: starts as if there had been nothing. */
  private beginAnew(): void {
    this.precision = LOOSE;
    this.guess = firstGuess(this.circuit);
    this.start = this.guess.state;
    this.swing.set(this.guess.swing);
    this.far = true;
  }

  /** Whether careless passes have done what they can. */
  private readyForMore(): boolean {
    const near = this.precision === LOOSE ? 1 : 0.1;
    const close = this.size < near || this.missSize < 0.1 * near;
    return !this.tight && (close || this.since >= BOUNCING || this.passes >= 3 * PATIENCE);
  }

  private moreCareful(): void {
    this.precision = this.precision === LOOSE ? CLOSE : TIGHT;
    this.since = 0;
    this.low = -Infinity;
    this.high = Infinity;
    this.size = Infinity;
    this.damping = 1;
  }

  /** Lets the circuit run by itself for some cycles, or as long as there is work left. */
  private runByItself(): void {
    const { integrator } = this;
    let x = this.start;
    for (let cycle = 0; cycle < COASTING_CYCLES && integrator.work.done < this.mostWork; cycle++) {
      PASS.record = false;
      PASS.carry = false;
      integrator.run(x, 0, this.circuit.periodS, PASS);
      x = integrator.x.slice();
    }
    this.start = x;
    this.since = 0;
    this.lastSize = Infinity;
    this.damping = 1;
    this.anew = true;
  }

  /** Moves the start by the correction, as far as that is to be trusted. @returns false where there is nowhere left to move */
  private move(): boolean {
    const { n, start, guess } = this;
    const { step } = this.room;
    const worse = this.size > 0.7 * this.lastSize;
    if (this.size < Infinity)
      this.damping = worse ? Math.max(0.25, this.damping * 0.6) : Math.min(1, this.damping * 1.6);
    if (this.tight && this.since > 0 && this.since % BOUNCING === 0) this.finer = Math.max(1e-2, this.finer * 0.2);
    this.lastSize = this.size;
    const next = new Float64Array(n);
    for (let s = 0; s < n; s++) {
      const move = Math.min(Math.max(this.damping * step[s]!, -guess.reach[s]!), guess.reach[s]!);
      next[s] = Math.min(Math.max(start[s]! + move, guess.least[s]!), guess.most[s]!);
    }
    if (n === 1 && this.outside(next[0]!) && !this.halved(next)) return false;
    this.start = next;
    return true;
  }

  /** Whether a start lies outside what is known to bracket the answer. */
  private outside(at: number): boolean {
    const { low, high } = this;
    return low > -Infinity && high < Infinity && !(at > low && at < high);
  }

  /** Starts from the middle of the bracket instead. @returns false where it has come down to nothing */
  private halved(next: Float64Array): boolean {
    const { low, high } = this;
    next[0] = (low + high) / 2;
    if (high - low >= 1e-9 * this.circuit.peakV) return true;
    if (this.tight) return false;
    this.precision = TIGHT;
    this.low = -Infinity;
    this.high = Infinity;
    return true;
  }
}
