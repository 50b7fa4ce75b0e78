import type { RectifierKind } from '@/core/parts/arrangements';
import type { SomeRegulator } from '@/core/parts/regulators';
import type { PreRegulator } from '@/core/parts/regulators/ahead';
import type { DiodeRatings, DiodeSheet } from '@/core/parts/diode';
import type { PackageId } from '@/core/parts/packages';
import type { DcSource } from '@/core/parts/dc-source';
import type { TransformerSource } from '@/core/parts/transformer-source';

/**
 * The document a person edits. Plain JSON, all SI but for per cent (in names). Null means 'not given: take the
 * typical figure', which every working then says.
 */
export interface Design {
  format: 'ember-rail-design';
  version: 7;
  name: string;
  note: string;
  demand: Demand;
  load: LoadTable;
  /** Where the energy comes from: the mains, or a DC source in its place. */
  source: { kind: 'mains' } | DcSource;
  mains: Mains;
  transformer: Transformer;
  rectifier: Rectifier;
  reservoir: Reservoir;
  filter: Filter;
  /** A second winding on the same core that feeds alternating current, as for valve heaters; null for none. */
  heater: Heater | null;
  regulator: Regulator;
  /** What the data sheet of the very regulator at hand says; null for its class alone. */
  regulatorSheet: RegulatorSheet | null;
  /** What stands ahead of the regulator and shares its work. */
  preRegulator: PreRegulator;
  /** Outputs beside the main one, each with its own regulator or none. */
  outputs: FurtherOutput[];
  /** A lamp that shows it is on; null for none. */
  indicator: Indicator | null;
  heat: Heat;
  mainsSide: MainsSide;
  /** Parts taken from the drawer, with what they were when they were taken. */
  picked: Pick[];
  /** Parts that are as they are: no fix, cure or search replaces them. */
  fixed: PartRole[];
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

/** What is asked of one output. */
export interface OutputDemand extends Ask {
  /** What it draws on the average of minutes, which is what parts heat by, A; null when it always draws outputA. */
  typicalA: number | null;
  /** The least it ever draws, A; 0 when it may be unplugged. */
  leastA: number;
  /** Volts it has to stay between, where that is no even deviation; null for the deviation. */
  window: Span | null;
  /** Volts it has to be set between, for an output that can be set; null for all its knob reaches up to the volts asked. */
  range: Span | null;
}

/** From low to high, V. */
export interface Span {
  lowV: number;
  highV: number;
}

export interface Demand extends OutputDemand {
  /** Load on the negative rail of a split supply, A; null when it is the same. */
  negativeA: number | null;
}

/** What hangs on the supply, line by line. The demand is what was taken over from its sums. */
export interface LoadTable {
  consumers: Consumer[];
  /** How much of all peaks falls together, per cent. */
  togetherPct: number;
  /** Kept in hand on top of the sums, per cent. */
  reservePct: number;
}

export interface Consumer {
  name: string;
  count: number;
  /** How many of them are ever on at the same time; null for all. */
  on: number | null;
  /** Which output it hangs on. */
  output: OutputId;
  kind: ConsumerKind;
  /** Each one's current: always on, usual while it works, and at most, A. */
  standingA: number;
  typicalA: number;
  peakA: number;
  /** Share of the time it works, per cent. */
  dutyPct: number;
  /** What each draws in the first instant, A; null for what its kind usually does. */
  startA: number | null;
}

/** The main output, its twin on the minus rail, and the further ones in their order. */
export type OutputId = 'main' | 'minus' | `out-${number}`;

export const CONSUMER_KINDS = ['current', 'resistance', 'power', 'motor', 'lamp'] as const;
export type ConsumerKind = (typeof CONSUMER_KINDS)[number];

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
  core: 'laminated' | 'toroid';
  /** Alike windings its plate speaks of, where not all of them are used; null for as many as the rectifier works on. */
  windingsOnPlate: number | null;
  /** Whether it is a bought AC adapter: the mains stays inside it. */
  sealed: boolean;
  /** What its model is made from; volts and size above stay its rating. */
  source: TransformerSource;
}

export interface Rectifier {
  kind: RectifierKind;
  /** Whose law it follows. */
  diode: string;
  /** Ratings of the very diode or bridge at hand; null for those of its class. */
  rated: DiodeRatings | null;
  /** What else its data sheet says; null for what its class has. */
  sheet: DiodeSheet | null;
}

/** Values of one can; several make a bank. */
export interface Reservoir {
  /** Cans (or series pairs of them) in parallel. */
  cans: number;
  /** Whether each stands for two in series, with a balancing resistor across each. */
  pair: boolean;
  capacitanceF: number;
  ratedV: number;
  esrOhm: number | null;
  rippleA: number | null;
  /** Loss of capacitance by tolerance and again by age, per cent. */
  tolerancePct: number;
  agedPct: number;
  /** Temperature its life is promised at, °C. */
  gradeC: 85 | 105;
  /** Resistor across each can of a series pair, ohm; null for what their leakage asks for. */
  balanceOhm: number | null;
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

export type Regulator = { kind: 'none' } | SomeRegulator;

/** One more output, with its own load, its own regulator or none, and its own sink. */
export interface FurtherOutput {
  /** Empty for a name that follows its volts. */
  name: string;
  rail: 'plus' | 'minus';
  demand: OutputDemand;
  regulator: Regulator;
  regulatorSheet: RegulatorSheet | null;
  /** Its own sink, K/W; null for none. */
  sinkKPerW: number | null;
}

/** Figures of the part at hand that overrule those of its class; null where the class speaks. */
export interface RegulatorSheet {
  inputMaxV: number | null;
  dropoutV: number | null;
  ratedA: number | null;
  jcKPerW: number | null;
  jaKPerW: number | null;
  /** Its housing. */
  package: PackageId | null;
  /** Of a pass transistor: its watts with the case at 25 °C, and the volts from which second breakdown allows less. */
  powerW: number | null;
  breakdownV: number | null;
}

/** A light-emitting diode and its resistor. */
export interface Indicator {
  at: 'rail' | 'output';
  currentA: number;
  forwardV: number;
}

export interface Heat {
  /** Air of the room, or in an open frame the air where the sink stands, °C. */
  ambientC: number;
  /** Sink to air, K/W; null for no sink. */
  sinkKPerW: number | null;
  interface: 'dry' | 'paste' | 'mica' | 'pad';
  /** What stands around it; its material is that of the mains side's box. */
  box: 'open' | 'closed' | 'vented';
  /** Outside faces of the box that give heat away, cm2. */
  boxCm2: number;
  /** Whether the sink's fins stand outside the box. */
  sinkOutside: boolean;
  /** Whether the rectifier is screwed to the same sink. */
  sharedWithRectifier: boolean;
  /** A sink or chassis of the rectifier's own, K/W; null for none. */
  rectifierSinkKPerW: number | null;
  /** Whether all regulators that take a sink are on one: both rails of a split supply, and further outputs. */
  oneSink: boolean;
  /** Whether copper and diodes are solved at the temperatures they come to, instead of at chosen ones. */
  together: boolean;
  /** A fan over the sink: none, running always, or from a temperature of the sink on. */
  fan: 'none' | 'fixed' | 'switched';
  /** What the fan draws from the rail, A; null where it is fed from elsewhere. */
  fanA: number | null;
  fanOnC: number;
}

export interface MainsSide {
  insulation: 'class I' | 'class II';
  box: 'metal' | 'plastic';
  /** Whether the plug goes in one way round only. */
  polarised: boolean;
  homeWound: boolean;
  /** A, null while not chosen. */
  primaryFuseA: number | null;
  secondaryFuseA: number | null;
  switchPoles: 1 | 2;
  softStart: boolean;
  thermalCutout: boolean;
  /** Points of the checklist that were ticked, by their id. */
  ticked: string[];
}

export const PART_ROLES = [
  'transformer',
  'rectifier',
  'choke',
  'reservoir',
  'regulator',
  'transistor',
  'sink',
] as const;
export type PartRole = (typeof PART_ROLES)[number];

export interface Pick {
  role: PartRole;
  partId: string;
  name: string;
  priceEur: number | null;
  /** What taking it set in the design; while that still stands, the part is in it. */
  values: Patch;
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

/** Applies a patch; pure. What is one of several kinds (source, regulator) is replaced whole. */
export function applyPatch(design: Design, patch: Patch): Design {
  return merged(design, patch);
}

/** One patch that does what `first` and then `second` do. */
export function mergePatches(first: Patch, second: Patch): Patch {
  return merged(first, second);
}

/** Members of several kinds, each with members of its own. */
const REPLACED_WHOLE: ReadonlySet<string> = new Set([
  'source',
  'regulator',
  'preRegulator',
  'regulatorSheet',
  'indicator',
]);

function merged<T extends object>(base: T, patch: Patch): T {
  const next = { ...base } as Record<string, unknown>;
  for (const [key, value] of Object.entries(patch)) {
    const before = next[key];
    next[key] = !REPLACED_WHOLE.has(key) && isRecord(value) && isRecord(before) ? { ...before, ...value } : value;
  }
  return next as T;
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
