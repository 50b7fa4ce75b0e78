/**
 * A network is what the solver sees: windings, diodes, filters and loads, without names, parts or prices.
 * All values SI. Case files on disk are read into it by case-file.ts.
 */

import type { ArrangementKind } from '@/core/parts/arrangements';

/** Shockley law with series resistance: i = Is*(exp((v - i*Rs)/(n*Vt)) - 1). */
export interface JunctionLaw {
  saturationCurrentA: number;
  emissionCoefficient: number;
  seriesResistanceOhm: number;
  temperatureC: number;
}

/** Child's law of a space charge between cathode and anode, a valve's: i = K*v^1.5 for v > 0, nothing backwards. */
export interface SpaceChargeLaw {
  /** K, A/V^1.5, above 0. */
  perveance: number;
}

export type DiodeLaw = JunctionLaw | SpaceChargeLaw;

/** A diode that does not do what it should; the index counts as in the arrangement's list of diodes. */
export interface DiodeFault {
  diode: number;
  state: 'open' | 'short';
}

/** One secondary winding (each half of a centre-tapped one). */
export interface Winding {
  /** Open-circuit RMS of the unclipped sine, V. */
  voltageRms: number;
  /** Own series resistance, ohm. */
  resistanceOhm: number;
  /** Own leakage inductance, H. */
  inductanceH: number;
}

export interface FilterCapacitor {
  kind: 'capacitor';
  capacitanceF: number;
  esrOhm: number;
}

export interface FilterInductor {
  kind: 'inductor';
  /** Inductance at no direct current, H. */
  inductanceH: number;
  resistanceOhm: number;
  /** Current at which half of the inductance that can be lost is lost, A. Left out: the inductance never falls. */
  halfAtA?: number;
}

export interface FilterResistor {
  kind: 'resistor';
  resistanceOhm: number;
}

/** A resistor from the present node to ground: a bleeder, or a capacitor that has shorted. */
export interface FilterShunt {
  kind: 'shunt';
  resistanceOhm: number;
}

export type FilterElement = FilterCapacitor | FilterInductor | FilterResistor | FilterShunt;

/** More than the running current at switch-on, dying away: cold lamp, motor at rest. Only start runs see it. */
export interface StartSurge {
  /** Current at the first instant as a multiple of the running one, 1 or more. */
  factor: number;
  /** Time constant of its decay, s. */
  tauS: number;
}

export type Load = (
  | { kind: 'resistance'; resistanceOhm: number }
  | { kind: 'current'; currentA: number }
  /** Dropout: a base, and what each ampere of output adds (nothing where left out). */
  | {
      kind: 'regulator';
      outputV: number;
      dropoutV: number;
      dropoutOhm?: number;
      currentA: number;
      quiescentA: number;
      /** Share of its output current that it takes from the rail; all of it where left out. */
      passShare?: number;
    }
  /** A resistor behind a fixed drop: a zener's or a light-emitting diode's branch. */
  | { kind: 'drain'; fromV: number; ohm: number }
  | { kind: 'power'; powerW: number; minV: number }
) & { surge?: StartSurge };

export interface Rail {
  /** From the rectifier to the load. */
  filter: FilterElement[];
  /** All on the node the filter ends at. */
  load: Load[];
}

/** One winding (or pair) with its rectifier and what hangs on it. */
export interface Section {
  winding: Winding;
  rectifier: { kind: ArrangementKind; diode: DiodeLaw; faults?: DiodeFault[] };
  /** One rail, or for split arrangements the positive and then the negative one, in magnitudes. */
  rails: Rail[];
}

/** A winding that feeds a resistance with alternating current: heaters, a lamp. */
export interface AcLoad {
  winding: Winding;
  resistanceOhm: number;
}

export interface Network {
  id?: string;
  frequencyHz: number;
  mains: {
    /** Resistance of primary and mains that all windings share, referred to the first section's winding, ohm. */
    sharedResistanceOhm: number;
    /** k: the sine is clipped at (1-k) of its peak, 0 <= k < 1. */
    flatTop: number;
    /** Ripple of a DC source at twice the frequency, peak to peak as a share of its volts; nothing where left out. */
    ripple?: number;
  };
  /** At least one; all on one core. */
  sections: Section[];
  acLoads?: AcLoad[];
}

/** What is to be calculated. */
export type Run =
  | { kind: 'steady' }
  /** From rest; phase in degrees of the mains cycle at which the switch closes. */
  | { kind: 'start'; cycles: number; switchOnPhaseDeg: number }
  /** The current of the first load that has one changes at the rising zero crossing. */
  | { kind: 'step'; fromA: number; toA: number; cycles: number }
  /** The mains fails for a while and returns in phase. */
  | { kind: 'dip'; missingCycles: number; cycles: number; atCycle: number };

/** The share of its inductance a swinging choke keeps however large the current. */
export const SATURATED_SHARE = 0.1;

/** Crest of what the first winding gives without load, as the mains' flat top leaves it, V; of a DC source its open volts. */
export function emfPeakV({ mains, sections }: Network): number {
  return Math.SQRT2 * sections[0]!.winding.voltageRms * (1 - mains.flatTop);
}
