import type { SomeRegulator } from '@/core/parts/regulators';
import type { InferType } from 'yup';
import type { heatSchema, mainsSideSchema } from './build-schema';
import type { askSchema, demandSchema, outputDemandSchema } from './demand-schema';
import type { designSchema } from './design-schema';
import type { loadSchema } from './load-schema';
import type { filterSchema, heaterSchema, indicatorSchema, rectifierSchema, reservoirSchema } from './rail-schema';
import type { benchSchema, logSchema, pickedSchema } from './record-schema';
import type { regulatorSheetSchema } from './regulator-schema';
import type { mainsSchema, transformerSchema } from './source-schema';

type Stored = InferType<typeof designSchema>;

/**
 * The document a person edits, as its schema has it. Plain JSON, all SI but for per cent (in names). Null means 'not
 * given: take the typical figure', which every working then says.
 */
export interface Design extends Omit<Stored, 'picked'> {
  /** Parts taken from the drawer, with what they were when they were taken. */
  picked: Pick[];
}

export type Ask = InferType<typeof askSchema>;
export type OutputDemand = InferType<typeof outputDemandSchema>;
export type Demand = InferType<typeof demandSchema>;
/** From low to high, V. */
export type Span = NonNullable<OutputDemand['window']>;
export type LoadTable = InferType<typeof loadSchema>;
export type Consumer = LoadTable['consumers'][number];
export type { OutputId } from './load-schema';
/** The box a supply is built into. */
export type Enclosure = Stored['build']['box'];
/** What parts are soldered into, and where a hand put them. */
export type BoardChoice = Stored['build']['board'];
export type StripPlace = BoardChoice['strips'][number];
export type BoxFace = Enclosure['places'][number]['face'];
export type Mains = InferType<typeof mainsSchema>;
export type Transformer = InferType<typeof transformerSchema>;
export type Rectifier = InferType<typeof rectifierSchema>;
export type Reservoir = InferType<typeof reservoirSchema>;
export type Filter = InferType<typeof filterSchema>;
export type FilterStep = Filter['before'][number];
export type Heater = InferType<typeof heaterSchema>;
export type Regulator = { kind: 'none' } | SomeRegulator;
export type FurtherOutput = Stored['outputs'][number];
export type RegulatorSheet = NonNullable<InferType<typeof regulatorSheetSchema>>;
export type Indicator = InferType<typeof indicatorSchema>;
export type Heat = InferType<typeof heatSchema>;
export type MainsSide = InferType<typeof mainsSideSchema>;
export type Bench = InferType<typeof benchSchema>;
export type LoadRow = Bench['loadLine'][number];
export type LogEntry = InferType<typeof logSchema>[number];
export type Reading = Bench['readings'][number];
export interface Pick extends Omit<InferType<typeof pickedSchema>[number], 'values'> {
  /** What taking it set in the design; while that still stands, the part is in it. */
  values: Patch;
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
  return patched(laidOut(design), patch);
}

/**
 * The same design, member by member in one order. Everything that reads designs is compiled for how they lie in memory: a
 * spread lays out what it makes in a way of its own, and a search would have it all compiled anew.
 */
export function laidOut(design: Design): Design {
  return {
    format: design.format,
    version: design.version,
    name: design.name,
    note: design.note,
    stage: design.stage,
    demand: design.demand,
    load: design.load,
    source: design.source,
    mains: design.mains,
    transformer: design.transformer,
    rectifier: design.rectifier,
    reservoir: design.reservoir,
    filter: design.filter,
    heater: design.heater,
    regulator: design.regulator,
    regulatorSheet: design.regulatorSheet,
    preRegulator: design.preRegulator,
    outputs: design.outputs,
    indicator: design.indicator,
    heat: design.heat,
    mainsSide: design.mainsSide,
    picked: design.picked,
    fixed: design.fixed,
    build: design.build,
    bench: design.bench,
    log: design.log,
  };
}

/** One patch that does what `first` and then `second` do. */
export function mergePatches(first: Patch, second: Patch): Patch {
  return patched({ ...first }, second);
}

/** Members of several kinds, each with members of its own. */
const REPLACED_WHOLE: ReadonlySet<string> = new Set([
  'source',
  'regulator',
  'preRegulator',
  'regulatorSheet',
  'indicator',
]);

/** What a patch does to an object of one's own. */
function patched<T extends object>(own: T, patch: Patch): T {
  const next = own as Record<string, unknown>;
  for (const [key, value] of Object.entries(patch)) {
    const before = next[key];
    next[key] = !REPLACED_WHOLE.has(key) && isRecord(value) && isRecord(before) ? { ...before, ...value } : value;
  }
  return own;
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
