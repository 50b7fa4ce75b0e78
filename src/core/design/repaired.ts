import { ValidationError } from 'yup';
import { blankDesign, MAINS_PRESETS } from './defaults';
import type { Design } from './design';
import { designSchema } from './design-schema';
import { firstFault, type Fault } from './fault';
import { migrated } from './migrate';
import { readDesign } from './schema';

export type Repaired = { ok: true; design: Design; repairs: string[] } | { ok: false; fault: Fault };

/** More rounds than this and a file is not this program's. */
const ROUNDS_MAX = 200;
/** Members that are records of a supply, not the supply: an entry of theirs that cannot be read is left out. */
const RECORDS =
  /^(log|picked|fixed|bench\.(readings|loadLine|soak|calibration)|build\.(placed|wired|kit)|build\.box\.(places|sizes|own)|build\.board\.(places|strips)|mainsSide\.ticked)$/;
/** Members a document may be without: what stands in their place says nothing about the circuit. */
const FILLED: ReadonlySet<string> = new Set(['note', 'stage', 'log', 'picked', 'fixed', 'build', 'bench']);

/**
 * Reads a document that may be damaged: what can be mended without inventing a figure of the circuit is mended, and said.
 * Numbers written as text are numbers; what no design has is left out; entries of the records that cannot be read are left
 * out; records that are missing are empty; a value that may be left to what is typical is. Anything else is refused, as ever.
 */
export function readRepaired(given: unknown): Repaired {
  const value = unwrapped(given);
  const plain = readDesign(value);
  if (plain.ok) return { ok: true, design: plain.design, repairs: [] };
  if (plain.fault.path === 'format' || !isRecord(value)) return plain;
  const document = structuredClone(migrated(value));
  const repairs: string[] = [];
  for (let round = 0; round < ROUNDS_MAX; round++) {
    const wrong = faultsOf(document);
    if (wrong.length === 0) {
      const read = readDesign(document);
      return read.ok ? { ok: true, design: read.design, repairs } : read;
    }
    // One at a time: what is mended may move what the others point at.
    let said: string | null = null;
    for (const fault of wrong) {
      said = mended(document, fault);
      if (said !== null) break;
    }
    if (said === null) return { ok: false, fault: firstFault(new ValidationError(wrong)) };
    repairs.push(said);
  }
  return plain;
}

/** What the server answers has the design one level down. */
function unwrapped(value: unknown): unknown {
  const inside = isRecord(value) && value['format'] === undefined ? value['design'] : undefined;
  return isRecord(inside) ? inside : value;
}

function faultsOf(document: Json): ValidationError[] {
  try {
    designSchema.validateSync(document, { strict: true, abortEarly: false });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return error.inner.length > 0 ? error.inner : [error];
  }
}

/** Mends one fault in place, and says what was done; null where only a person can. */
function mended(document: Json, { path = '', type, params }: ValidationError): string | null {
  const keys = keysOf(path);
  if (type === 'noUnknown') {
    const at = valueAt(document, keys);
    const unknown = String(params?.['unknown'] ?? '').split(', ');
    if (!isRecord(at)) return null;
    for (const key of unknown) delete at[key];
    return `${[...keys, unknown.join(', ')].join('.')} is nothing a design has: left out.`;
  }
  const value = valueAt(document, keys);
  const number = typeof value === 'string' ? numberOf(value) : null;
  if (number !== null && isNumberAt(keys)) {
    setAt(document, keys, number);
    return `${path} was written as text: taken as ${number}.`;
  }
  const entry = entryOf(keys);
  if (entry) {
    const list = valueAt(document, entry.list);
    if (!Array.isArray(list)) return null;
    list.splice(entry.at, 1);
    return `${entry.list.join('.')}[${entry.at}] could not be read: that entry is left out; your file still has it.`;
  }
  if (value !== undefined) return null;
  const usual = valueAt(BLANK, keys);
  if (usual === undefined || !(usual === null || FILLED.has(keys[0]!))) return null;
  setAt(document, keys, structuredClone(usual));
  return usual === null ? `${path} was missing: left to what is typical.` : `${path} was missing: as in a new design.`;
}

type Json = Record<string, unknown>;
const isRecord = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const BLANK = blankDesign(
  'blank',
  { outputV: 12, outputA: 1, tolerancePct: 5, rippleVpp: 0.02, kind: 'current' },
  MAINS_PRESETS[0]!.mains,
) as unknown as Json;

/** 'bench.readings[3].value' as its steps. */
const keysOf = (path: string): string[] => path.split(/[.[\]]+/).filter(Boolean);

const valueAt = (from: unknown, keys: readonly string[]): unknown =>
  keys.reduce<unknown>((at, key) => (typeof at === 'object' && at !== null ? (at as Json)[key] : undefined), from);

function setAt(document: Json, keys: readonly string[], value: unknown): void {
  const parent = valueAt(document, keys.slice(0, -1));
  if (typeof parent === 'object' && parent !== null) (parent as Json)[keys.at(-1)!] = value;
}

/** Words are never taken for numbers: only a field that holds one in a new design, or may be left open, can be. */
function isNumberAt(keys: readonly string[]): boolean {
  const usual = valueAt(BLANK, keys);
  return usual === undefined || usual === null || typeof usual === 'number';
}

function numberOf(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  return /^[-+]?\d*\.?\d+(e[-+]?\d+)?$/i.test(plain) ? Number(plain) : null;
}

/** The entry of a record a path lies in. */
function entryOf(keys: readonly string[]): { list: string[]; at: number } | null {
  const n = keys.findIndex((key, k) => /^\d+$/.test(key) && RECORDS.test(keys.slice(0, k).join('.')));
  return n < 0 ? null : { list: keys.slice(0, n), at: Number(keys[n]) };
}
