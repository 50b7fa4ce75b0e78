import { modelOf } from '@/core/circuit/feed';
import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { copperRatio } from '@/core/parts/transformer';
import { READ_AT_C } from '@/core/parts/transformer-source';
import { dice } from '@/core/quantity/dice';
import { SolveError } from '@/core/solve/solve-error';
import { designFaults } from './design-faults';
import { DesignModel, SOUND, type Asked, type CircuitEdit, type Throughput } from './design-model';
import type { Factors } from './factors';
import type { BenchFault } from './fault-words';
import type { MeasuredState } from './measured';
import { movables } from './movables';

/** What is so of a simulated build and shown to nobody who reads it. */
export interface Hidden {
  seed: number;
  factors: Factors;
  /** What its regulator is set to, V; null where there is none. */
  setV: number | null;
  fault: Exclude<BenchFault, 'bad-choice' | 'other'>;
  /** Which of the design's faults ahead of its regulator it is; null where it is none of them. */
  entry: number | null;
  /** Where the fault sits, as the finder names places. */
  part: string;
  severity: number[];
}

/** Builds lie within so many standard deviations of what is believed of their parts: nobody fits a part that far off. */
const WITHIN = 1.5;
/** How far a fault's severity strays from its usual one, in its own spreads. */
const SEVERITY_WITHIN = 0.7;

/** Faults a design can be given, the sound state first. */
export function faultsToHide(design: Design): Hidden['fault'][] {
  const { ahead, behind } = designFaults(design);
  return [...new Set([...ahead, ...behind].map((f) => f.fault))];
}

/**
 * Draws a build of a design: every part somewhere in its spread and, where asked for, one fault at one of its places.
 * @param fault one of `faultsToHide`; the sound state where it is none of them
 */
export function hide(design: Design, seed: number, fault: BenchFault = 'none'): Hidden {
  const roll = dice(seed);
  const within = (most: number) => Math.max(-most, Math.min(most, roll.normal()));
  const factors: Factors = Object.fromEntries(movables(design).map((m) => [m.id, Math.exp(m.spread * within(WITHIN))]));
  const model = mainModel(design);
  const setV = model && model.outputV * (1 + 0.5 * model.spread * within(WITHIN));
  const { ahead, behind } = designFaults(design);
  const back = behind.find((f) => f.fault === fault);
  if (back) return { seed, factors, setV, fault: back.fault, entry: null, part: '', severity: [] };
  const places = ahead.filter((f) => f.fault === fault);
  const place = places.length > 0 ? pick(places, roll.uniform()) : ahead.find((f) => f.fault === 'none')!;
  const severity = place.severity.map(
    (u) => u.centre * Math.exp(u.spread * (2 * roll.uniform() - 1) * SEVERITY_WITHIN),
  );
  return { seed, factors, setV, fault: place.fault, entry: ahead.indexOf(place), part: place.part, severity };
}

const pick = <T>(list: readonly T[], share: number): T =>
  list[Math.min(list.length - 1, Math.floor(share * list.length))]!;

/** A supply somebody could have built of a design: answers with what is really there, without an instrument's error. */
export class SimulatedBuild {
  private readonly model: DesignModel;
  private readonly edit: CircuitEdit;
  private readonly out: { through: Throughput; setV: number } | undefined;

  constructor(
    readonly design: Design,
    readonly hidden: Hidden,
  ) {
    const { ahead, behind, sound } = designFaults(design);
    const front = hidden.entry === null ? undefined : ahead[hidden.entry];
    this.edit = front ? (c) => front.edit(c, hidden.severity) : SOUND;
    const through = behind.find((f) => f.fault === hidden.fault)?.through ?? sound;
    this.out = through && hidden.setV !== null ? { through, setV: hidden.setV } : undefined;
    this.model = new DesignModel(design);
  }

  /** What an ohmmeter finds across the winding, cold, Ω. */
  get windingColdOhm(): number {
    return (this.hidden.factors.copper ?? 1) * modelOf(this.design).ownColdOhm * copperRatio(READ_AT_C);
  }

  /** What stands at a place. @throws SolveError */
  read(quantity: Asked['quantity'], state: MeasuredState): number {
    if (quantity === 'sink') return this.metalC(state);
    const asked = quantity === 'output' && !this.out ? 'rail' : quantity;
    return this.model.predict([{ quantity: asked, state }], this.hidden.factors, this.edit, this.out)[0]!;
  }

  /** One cycle at the reservoir. @throws SolveError */
  wave(state: MeasuredState): { volts: number[]; stepS: number } {
    return this.model.wave(state, this.hidden.factors, this.edit);
  }

  /** The regulator's metal: each load's rise goes with the watts the fault leaves it. */
  private metalC({ mainsV, load, metal }: MeasuredState): number {
    const made = mainModel(this.design);
    if (!made) throw new SolveError('nothing of this design has metal to read');
    const shares = metal ?? (typeof load === 'number' && load > 0 ? [{ mainsV, loadA: load, share: 1 }] : []);
    const { sink = 1 } = this.hidden.factors;
    const riseK = shares.reduce((sum, m) => {
      const state = { mainsV: m.mainsV, load: m.loadA };
      const soundV = this.model.predict([{ quantity: 'rail', state }], {})[0]! - made.outputV;
      const hereV = this.read('rail', state) - this.read('output', state);
      return sum + m.share * this.model.endRiseK(state) * (soundV > 0 ? Math.max(0, hereV) / soundV : 1);
    }, 0);
    return this.design.heat.ambientC + sink * riseK;
  }
}
