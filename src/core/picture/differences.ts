import type { Design } from '@/core/design/design';
import { FIELD_LIMITS, type FieldLimit } from '@/core/design/limits';
import { formatNominal } from '@/core/quantity/format';
import type { Unit } from '@/core/quantity/parse';

/** One thing that is not the same in two designs. */
export interface Difference {
  /** Where in the document: 'reservoir.capacitanceF'. */
  path: string;
  /** What it is, in words. */
  label: string;
  /** Empty where it has none of it. */
  before: string;
  after: string;
}

/** What is no part of the supply, but of its story: it is told elsewhere. */
const STORY: ReadonlySet<string> = new Set([
  'format',
  'version',
  'note',
  'stage',
  'log',
  'bench',
  'build',
  'picked',
  'fixed',
]);
/** Stations of the street, as they are called where a difference stands. */
const STATION: Readonly<Record<string, string>> = {
  demand: 'Need',
  load: 'Load table',
  source: 'Source',
  mains: 'Mains',
  transformer: 'Transformer',
  rectifier: 'Rectifier',
  reservoir: 'Reservoir',
  filter: 'Filter',
  heater: 'Heater winding',
  regulator: 'Regulator',
  regulatorSheet: 'Regulator’s data sheet',
  preRegulator: 'Ahead of the regulator',
  outputs: 'Further outputs',
  indicator: 'Lamp',
  heat: 'Heat',
  mainsSide: 'Mains side',
};

/** Everything that differs between two designs, in the order of the street; what was only read or written down is left out. */
export function differences(before: Design, after: Design): Difference[] {
  const members = Object.keys(after) as (keyof Design)[];
  return members.filter((key) => !STORY.has(key)).flatMap((key) => differing([key], before[key], after[key]));
}

function differing(path: readonly string[], before: unknown, after: unknown): Difference[] {
  if (Object.is(before, after)) return [];
  if (isGroup(before) && isGroup(after)) {
    const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])];
    return keys.flatMap((key) => differing([...path, key], before[key], after[key]));
  }
  const [was, is] = [wordsOf(path, before), wordsOf(path, after)];
  return was === is ? [] : [{ path: path.join('.'), label: labelOf(path), before: was, after: is }];
}

/** Groups and lists alike: a list's entries are compared place by place. */
const isGroup = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

function limitOf(path: readonly string[]): FieldLimit | undefined {
  const limits: Readonly<Record<string, FieldLimit>> = FIELD_LIMITS;
  const [first, last] = [path[0]!, path.at(-1)!];
  return limits[`${first}.${last}`] ?? limits[path.filter((key) => !/^\d+$/.test(key)).join('.')];
}

function labelOf(path: readonly string[]): string {
  const station = STATION[path[0]!] ?? path[0]!;
  const inside = path.slice(1).map((key) => (/^\d+$/.test(key) ? String(Number(key) + 1) : plain(key)));
  const limit = limitOf(path);
  const places = path.slice(1, -1).filter((key) => /^\d+$/.test(key));
  if (limit)
    return `${station}${places.length > 0 ? ` ${places.map((n) => Number(n) + 1).join(' ')}` : ''}, ${lower(limit.label)}`;
  return inside.length === 0 ? station : `${station}, ${inside.join(' ')}`;
}

/** A member's name as words: 'switchPoles' is 'switch poles'. */
const plain = (key: string): string =>
  key
    .replace(/(Ohm|KPerW|Pct|Vpp|Rms|[VAFHCW]|VA|Mm2?)$/, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();
const lower = (label: string): string => (/^[A-Z][a-z]/.test(label) ? label[0]!.toLowerCase() + label.slice(1) : label);

function wordsOf(path: readonly string[], value: unknown): string {
  if (value === undefined) return '';
  if (value === null) return limitOf(path)?.optional ?? 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return formatNominal(Number(value.toPrecision(4)), unitOf(path));
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map((v) => wordsOf(path, v)).join('; ');
  // A group that only one of them has: all it says.
  return Object.entries(value as Record<string, unknown>)
    .map(([key, v]) => (key === 'kind' ? String(v) : `${plain(key)} ${wordsOf([...path, key], v)}`))
    .join(', ');
}

/** Units by the end of a member's name, where it has no limits of its own. */
const UNITS: readonly (readonly [RegExp, Unit])[] = [
  [/KPerW$/, 'K/W'],
  [/Ohm$/, 'ohm'],
  [/Pct$/, '%'],
  [/(Vpp|Rms|V)$/, 'V'],
  [/VA$/, 'VA'],
  [/A$/, 'A'],
  [/F$/, 'F'],
  [/H$/, 'H'],
  [/C$/, '°C'],
  [/W$/, 'W'],
];

function unitOf(path: readonly string[]): Unit {
  const limit = limitOf(path);
  if (limit) return limit.unit;
  return UNITS.find(([end]) => end.test(path.at(-1)!))?.[1] ?? '';
}
