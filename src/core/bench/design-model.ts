import { CONDITIONS, type Condition } from '@/core/circuit/condition';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import type { Network } from '@/core/circuit/network';
import { applyPatch, type Design } from '@/core/design/design';
import { SolveError } from '@/core/solve/solve-error';
import type { Solution } from '@/core/solve/solution';
import { solveSteady } from '@/core/solve/steady';
import { scaledLoads } from '@/core/study/load-line';
import { reservoirV } from '@/core/study/drawn-point';
import { operatingPoint, reservoirOf, restingAdjust } from '@/core/study/operating-point';
import { WAVE_SAMPLES } from '@/core/study/point';
import type { Factors } from './factors';
import type { MeasuredState, Quantity } from './measured';
import { terraceLine, type TerraceLine } from './terrace-line';

const adjustOf = (f: Factors): Adjust => ({
  openCircuitFactor: f.open ?? 1,
  resistanceFactor: f.copper ?? 1,
  capacitanceFactor: f.capacitance ?? 1,
  diodeSaturationFactor: f.diode ?? 1,
});

/** What can be asked of a state: whatever is read, what comes out behind, and the reservoir's extremes. */
export interface Asked {
  quantity: Quantity | 'output' | 'valley' | 'peak';
  state: MeasuredState;
}

/** What a sound or a broken regulator makes of its input at an instant: volts out for volts in, a load and what it is set to. */
export type Throughput = (railV: number, loadA: number, setV: number) => number;

/** So many solved states of the sound circuit are kept, those of the first factors asked for. */
const MOST_KNOWN = 200;

interface Solved {
  of: Design;
  network: Network;
  solution: Solution;
}

/** A change of the circuit itself, for a fault. */
export type CircuitEdit = (network: Network) => Network;
export const SOUND: CircuitEdit = (network) => network;

/**
 * A design as something that can be read: what each place comes to in each state, for builds whose parts differ by
 * factors. States are prepared once and start where they were solved last.
 */
export class DesignModel {
  private readonly bare: Design;
  private readonly prepared: Map<string, { of: Design; condition: Condition; resting: Partial<Adjust> }>;
  private readonly warm = new Map<string, readonly number[]>();
  private readonly rise: Map<string, number>;
  /** What was solved of the sound circuit already: what fails behind it asks for the same again. */
  private readonly known = new Map<string, Solved>();

  /** @param like a model of the same design whose states are prepared already, solved from other circuits */
  constructor(
    readonly design: Design,
    like?: DesignModel,
  ) {
    this.prepared = like?.prepared ?? new Map();
    this.rise = like?.rise ?? new Map();
    this.bare = { ...design, regulator: { kind: 'none' }, preRegulator: { kind: 'none' }, outputs: [] };
  }

  /**
   * What every reading should have been.
   * @param out what stands behind the rail makes of it, and what it is set to; the rail itself where left out
   * @throws SolveError
   */
  predict(
    list: readonly Asked[],
    factors: Factors,
    edit: CircuitEdit = SOUND,
    out?: { through: Throughput; setV: number },
  ): number[] {
    const solved = new Map<string, Solved>();
    return list.map(({ quantity, state }) => {
      if (quantity === 'winding') return this.network(state, factors, edit).sections[0]!.winding.voltageRms;
      if (quantity === 'sink') return this.sinkC(state, factors);
      const key = keyOf(state);
      let found = solved.get(key);
      if (!found) solved.set(key, (found = this.solve(state, factors, edit)));
      if (quantity !== 'output') return read(found, quantity);
      const loadA = typeof state.load === 'number' ? state.load : 0;
      const volts = found.solution.waveforms!.railV[0]!;
      return volts.reduce((sum, v) => sum + (out ? out.through(v, loadA, out.setV) : v), 0) / volts.length;
    });
  }

  /**
   * The terrace in a state.
   * @param out as for `predict`
   * @throws SolveError
   */
  line(
    state: MeasuredState,
    factors: Factors,
    edit: CircuitEdit = SOUND,
    out?: { through: Throughput; setV: number },
  ): TerraceLine {
    const { of, network, solution } = this.solve(state, factors, edit);
    const loadA = typeof state.load === 'number' ? state.load : 0;
    return terraceLine(of, network, solution, (v) => (out ? out.through(v, loadA, out.setV) : v));
  }

  /**
   * One cycle at the reservoir, evenly sampled.
   * @returns volts, and seconds between them
   * @throws SolveError
   */
  wave(state: MeasuredState, factors: Factors, edit: CircuitEdit = SOUND): { volts: number[]; stepS: number } {
    const { of, solution } = this.solve(state, factors, edit);
    const volts = reservoirV(of, solution.waveforms!, 0);
    return { volts, stepS: 1 / (of.mains.frequencyHz * volts.length) };
  }

  /**
   * What the regulator's metal is over the room in the end at a load, every part as the design has it, K.
   * @throws SolveError
   */
  endRiseK(state: Pick<MeasuredState, 'mainsV' | 'load'>): number {
    const key = `${state.mainsV} ${state.load}`;
    let rise = this.rise.get(key);
    if (rise === undefined) {
      const { of, condition } = this.state(state);
      const { heat } = operatingPoint(of, condition, { mainsV: state.mainsV });
      if (!heat) throw new SolveError('nothing of this design has metal to read');
      this.rise.set(key, (rise = heat.sinkC - this.design.heat.ambientC));
    }
    return rise;
  }

  /** The metal's rise over the room grows with what its way out resists. */
  private sinkC(state: MeasuredState, { sink = 1 }: Factors): number {
    const riseK = state.metal
      ? state.metal.reduce((sum, m) => sum + m.share * this.endRiseK({ mainsV: m.mainsV, load: m.loadA }), 0)
      : this.endRiseK(state);
    return this.design.heat.ambientC + sink * riseK;
  }

  private state(state: MeasuredState) {
    const key = keyOf(state);
    let found = this.prepared.get(key);
    if (!found) {
      const { load } = state;
      const share = typeof load === 'number' ? load / this.design.demand.outputA : 0;
      const of = load === 'bare' || load === 'open' ? this.bare : this.design;
      const condition: Condition =
        share > 0 ? CONDITIONS.nominal : { ...CONDITIONS.idle, mains: 'nominal', load: 'none' };
      const loaded = share > 0 ? applyPatch(of, scaledLoads(of, share)) : of;
      this.prepared.set(
        key,
        (found = { of: loaded, condition, resting: share > 0 ? restingAdjust(loaded, 'nominal') : {} }),
      );
    }
    return found;
  }

  private network(state: MeasuredState, factors: Factors, edit: CircuitEdit): Network {
    const { of, condition, resting } = this.state(state);
    const copper = state.copperC === undefined ? {} : { copperC: state.copperC };
    return edit(networkOf(of, condition, { mainsV: state.mainsV, ...resting, ...copper, ...adjustOf(factors) }));
  }

  private solve(state: MeasuredState, factors: Factors, edit: CircuitEdit): Solved {
    const { of } = this.state(state);
    const key = keyOf(state);
    const sound = edit === SOUND ? `${key} ${JSON.stringify(factors)}` : null;
    const known = sound === null ? undefined : this.known.get(sound);
    if (known) return known;
    const network = this.network(state, factors, edit);
    const warm = this.warm.get(key);
    const solution = solveSteady(network, { samples: WAVE_SAMPLES, ...(warm ? { warm } : {}) });
    this.warm.set(key, solution.state);
    const found = { of, network, solution };
    if (sound !== null && this.known.size < MOST_KNOWN) this.known.set(sound, found);
    return found;
  }
}

const keyOf = ({ mainsV, load, copperC }: MeasuredState) => `${mainsV} ${load} ${copperC ?? ''}`;

function read({ of, solution }: Solved, quantity: Exclude<Asked['quantity'], 'winding' | 'sink' | 'output'>): number {
  if (quantity === 'rail') return solution.rails[0]!.meanV;
  const { meanV, minV, maxV } = reservoirOf(of, solution, 0);
  return { ripple: maxV - minV, reservoir: meanV, valley: minV, peak: maxV }[quantity];
}
