import { modelOf } from '@/core/circuit/feed';
import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { copperRatio } from '@/core/parts/transformer';
import { READ_AT_C } from '@/core/parts/transformer-source';
import { dice } from '@/core/quantity/dice';
import { SolveError } from '@/core/solve/solve-error';
import { copperAfter, metalAfter, warmCopperC } from './row-warmth';
import { designFaults } from './design-faults';
import { DesignModel, SOUND, type Asked, type CircuitEdit, type Throughput } from './design-model';
import type { Factors } from './factors';
import type { BenchFault } from './fault-words';
import { movables } from './movables';

/** What is so of a simulated build and shown to nobody who reads it. */
export interface Hidden {
  seed: number;
  factors: Factors;
  /** What its regulator is set to, V; null where there is none. */
  setV: number | null;
  fault: Exclude<BenchFault, 'other'>;
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
  if (back) return { seed, factors, setV, fault: back.fault, part: '', severity: [] };
  const places = ahead.filter((f) => f.fault === fault);
  // Among several entries of a fault its first says the usual case: a joint, a tap, not a second transformer.
  const place = places.length > 0 ? pick(places, roll.uniform()) : ahead.find((f) => f.fault === 'none')!;
  const severity = place.severity.map(
    (u) => u.centre * Math.exp(u.spread * (2 * roll.uniform() - 1) * SEVERITY_WITHIN),
  );
  return { seed, factors, setV, fault: place.fault, part: place.part, severity };
}

const pick = <T>(list: readonly T[], share: number): T =>
  list[Math.min(list.length - 1, Math.floor(share * list.length))]!;

/** How a build is held while it is read. */
export interface Held {
  mainsV: number;
  /** Amperes out of the main output; 'bare' with nothing behind the reservoir, 'open' for the winding alone. */
  load: number | 'bare' | 'open';
  /** What its copper is at, °C, and how much of its rise the metal has made, 0 to 1; warm through where left out. */
  copperC?: number;
  metal?: number;
}

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
    const front = ahead.find(
      (f) => f.fault === hidden.fault && f.part === hidden.part && f.severity.length === hidden.severity.length,
    );
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
  read(quantity: Asked['quantity'], held: Held): number {
    if (quantity === 'sink') return this.metalC(held);
    const { mainsV, load, copperC } = held;
    const state = { mainsV, load, ...(copperC === undefined ? {} : { copperC }) };
    const asked = quantity === 'output' && !this.out ? 'rail' : quantity;
    return this.model.predict([{ quantity: asked, state }], this.hidden.factors, this.edit, this.out)[0]!;
  }

  /** One cycle at the reservoir. @throws SolveError */
  wave({ mainsV, load, copperC }: Held): { volts: number[]; stepS: number } {
    return this.model.wave(
      { mainsV, load, ...(copperC === undefined ? {} : { copperC }) },
      this.hidden.factors,
      this.edit,
    );
  }

  /** The regulator's metal: its rise goes with the watts the fault leaves it. */
  private metalC(held: Held): number {
    const { heat } = this.design;
    const share = held.metal ?? 1;
    if (!mainModel(this.design)) throw new SolveError('nothing of this design has metal to read');
    if (typeof held.load !== 'number' || held.load === 0) return heat.ambientC;
    const state = { mainsV: held.mainsV, load: held.load };
    const soundC = this.model.predict([{ quantity: 'sink', state }], this.hidden.factors)[0]!;
    const soundV = this.model.predict([{ quantity: 'rail', state }], {})[0]! - (mainModel(this.design)?.outputV ?? 0);
    const hereV = this.read('rail', held) - this.read('output', held);
    return heat.ambientC + share * (soundC - heat.ambientC) * (soundV > 0 ? Math.max(0, hereV) / soundV : 1);
  }
}

/** Copper and metal of a build as time goes by under a load. */
export class Warming {
  private copper = READ_AT_C;
  private metal = 0;

  private readonly endC: number;

  constructor(private readonly design: Design) {
    this.endC = design.source.kind === 'mains' ? warmCopperC(design) : READ_AT_C;
  }

  /** So many seconds at a load, A. */
  pass(seconds: number, loadA: number): void {
    if (this.design.source.kind === 'mains')
      this.copper = copperAfter(this.design, this.copper, loadA, seconds, this.endC);
    this.metal = metalAfter(this.design, this.metal, loadA, seconds);
  }

  get state(): { copperC?: number; metal: number } {
    return { metal: this.metal, ...(this.design.source.kind === 'mains' ? { copperC: this.copper } : {}) };
  }
}
