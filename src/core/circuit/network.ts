/**
 * A network is what the solver sees: windings, diodes, filter and loads, without names, parts or prices.
 * All values SI. Case files on disk are read into it by case-file.ts.
 */

export type RectifierKind = 'half-wave' | 'centre-tap' | 'bridge';

/** Shockley law with series resistance: i = Is*(exp((v - i*Rs)/(n*Vt)) - 1). */
export interface DiodeLaw {
  saturationCurrentA: number;
  emissionCoefficient: number;
  seriesResistanceOhm: number;
  temperatureC: number;
}

export interface Source {
  /** Open-circuit RMS of the unclipped sine of each winding (each half of a centre tap), V. */
  voltageRms: number;
  /** Own series resistance of each winding, ohm. */
  resistanceOhm: number;
  /** Resistance of primary and mains that all windings share, referred to one secondary, ohm. */
  sharedResistanceOhm: number;
  /** k: the sine is clipped at (1-k) of its peak, 0 <= k < 1. */
  flatTop: number;
}

export interface FilterCapacitor {
  kind: 'capacitor';
  capacitanceF: number;
  esrOhm: number;
}

export type Load =
  | { kind: 'resistance'; resistanceOhm: number }
  | { kind: 'current'; currentA: number }
  | { kind: 'regulator'; outputV: number; dropoutV: number; currentA: number; quiescentA: number };

export interface Rail {
  /** At most one reservoir capacitor; empty when the load hangs on the rectifier. */
  filter: FilterCapacitor[];
  load: Load[];
}

export interface Network {
  id?: string;
  frequencyHz: number;
  source: Source;
  rectifier: { kind: RectifierKind; diode: DiodeLaw };
  rail: Rail;
}

/** What is to be calculated. Phase: degrees of the mains cycle at which the switch closes. */
export type Run = { kind: 'steady' } | { kind: 'start'; cycles: number; switchOnPhaseDeg: number };
