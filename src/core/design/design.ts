import type { RectifierKind } from '@/core/parts/arrangement';
import type { RegulatorSizeId } from '@/core/parts/regulator';

/**
 * The document a person edits. Plain JSON, all SI but for per cent (in names). Null means 'not given: take the
 * typical figure', which every working then says.
 */
export interface Design {
  format: 'ember-rail-design';
  version: 2;
  name: string;
  note: string;
  demand: Demand;
  mains: Mains;
  transformer: Transformer;
  rectifier: { kind: RectifierKind; diode: string };
  reservoir: Reservoir;
  filter: Filter;
  /** A second winding on the same core that feeds alternating current, as for valve heaters; null for none. */
  heater: Heater | null;
  regulator: Regulator;
  heat: Heat;
  bench: Bench;
}

/** What is asked of a supply, before anything about its rails is decided. */
export interface Ask {
  outputV: number;
  outputA: number;
  /** Allowed deviation of the output, +- per cent. */
  tolerancePct: number;
  /** Ripple the load puts up with, V peak to peak. */
  rippleVpp: number;
  kind: 'current' | 'resistance' | 'power';
}

export interface Demand extends Ask {
  /** Load on the negative rail of a split supply, A; null when it is the same. */
  negativeA: number | null;
}

export interface Mains {
  voltageRms: number;
  frequencyHz: number;
  lowPct: number;
  highPct: number;
  /** How much of the sine's peak is missing, per cent. */
  flatTopPct: number;
}

export interface Transformer {
  /** Winding, or each half of a centre tap, at rated load, V RMS. */
  ratedV: number;
  ratedVA: number;
  regulationPct: number | null;
  hotC: number;
  /** Leakage inductance of each winding, H. */
  leakageH: number;
}

export interface Reservoir {
  capacitanceF: number;
  ratedV: number;
  esrOhm: number | null;
  rippleA: number | null;
  /** Loss of capacitance by tolerance and again by age, per cent. */
  tolerancePct: number;
  agedPct: number;
}

/** What lies in the path of the direct current besides the reservoir. */
export interface Filter {
  /** Between rectifier and reservoir: a choke makes it choke input. */
  before: FilterStep[];
  /** Between reservoir and load. */
  after: FilterStep[];
  /** Resistor across the reservoir, ohm; null for none. */
  bleederOhm: number | null;
}

export type FilterStep =
  /** A swinging choke gives up half of what it can lose at half its rated current. */
  | { kind: 'choke'; inductanceH: number; resistanceOhm: number; ratedA: number; swinging: boolean }
  | { kind: 'resistor'; resistanceOhm: number }
  | { kind: 'capacitor'; capacitanceF: number; ratedV: number };

export interface Heater {
  ratedV: number;
  currentA: number;
}

export type Regulator = { kind: 'none' } | { kind: 'fixed'; size: RegulatorSizeId; outputV: number };

export interface Heat {
  /** Air where the sink stands, °C. */
  ambientC: number;
  /** Sink to air, K/W; null for no sink. */
  sinkKPerW: number | null;
  interface: 'dry' | 'paste' | 'mica' | 'pad';
}

export interface Bench {
  meterPct: number;
  meterDigitsV: number;
  readings: Reading[];
}

/** One value read at one test point, with the mains volts of that moment. SI. */
export interface Reading {
  point: string;
  value: number;
  mainsV: number;
  at: string;
}

/** A change to a design, as a merge patch: named members replace, absent ones stay. Lists are replaced whole. */
export type Patch = {
  [K in keyof Omit<Design, 'format' | 'version'>]?: Design[K] extends readonly unknown[] | string | null
    ? Design[K]
    : Partial<Design[K]>;
};

export interface Edit {
  /** What it does, in a few words: '6800 µF'. */
  label: string;
  patch: Patch;
}

/** Applies a patch; pure. The regulator, being one of several kinds, is replaced whole. */
export function applyPatch(design: Design, patch: Patch): Design {
  return merged(design, patch);
}

/** One patch that does what `first` and then `second` do. */
export function mergePatches(first: Patch, second: Patch): Patch {
  return merged(first, second);
}

function merged<T extends object>(base: T, patch: Patch): T {
  const next = { ...base } as Record<string, unknown>;
  for (const [key, value] of Object.entries(patch)) {
    const before = next[key];
    next[key] = key !== 'regulator' && isRecord(value) && isRecord(before) ? { ...before, ...value } : value;
  }
  return next as T;
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
