import Papa from 'papaparse';
import { parseQuantity } from '@/core/quantity/parse';
import { CONDITION_WORDS, KINDS, KNOWN_BY, PART_KINDS, type Part, type PartDraft, type PartKind } from './part';
import { partFault } from './part-schema';

/** What one row of a file becomes. */
export type RowResult = { row: number; part: PartDraft } | { row: number; error: string };

export type CsvResult = { ok: true; rows: RowResult[] } | { ok: false; error: string };

/** Most rows one file may bring. */
export const CSV_ROWS_MAX = 60_000;

/** Longest file, characters. */
export const CSV_CHARACTERS_MAX = 20_000_000;

const COMMON = ['kind', 'name', 'count', 'price', 'place', 'condition', 'known', 'note'] as const;

/** Every column a parts file may have: what all parts share, then each rating once. */
export function csvColumns(): string[] {
  return [...COMMON, ...new Set(PART_KINDS.flatMap((k) => KINDS[k].ratings.map((r) => r.key)))];
}

/**
 * Reads a parts file: comma, semicolon or tab; decimal points or commas; with or without a byte-order mark. Every row
 * becomes a part or a sentence that says why not; nothing is kept by reading. Cells are text and numbers, never formulas.
 */
export function readPartsCsv(text: string): CsvResult {
  if (text.length > CSV_CHARACTERS_MAX) return { ok: false, error: 'The file is larger than 20 MB.' };
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const [header, ...lines] = parsed.data;
  if (!header || header.length < 2) {
    return { ok: false, error: 'No columns were found: the first row has to name them, for example kind,name,count.' };
  }
  if (lines.length > CSV_ROWS_MAX) {
    return { ok: false, error: `The file has ${lines.length} rows; ${CSV_ROWS_MAX} are the most in one go.` };
  }
  const names = header.map((h) => h.trim().toLowerCase());
  const known = new Map(csvColumns().map((c) => [c.toLowerCase(), c]));
  for (const needed of ['kind', 'name']) {
    if (!names.includes(needed)) {
      return {
        ok: false,
        error: `The column '${needed}' is missing. The first row says: ${header.join(', ').slice(0, 200)}.`,
      };
    }
  }
  const strange = names.find((n) => n !== '' && !known.has(n));
  if (strange !== undefined) {
    return {
      ok: false,
      error: `The column '${strange.slice(0, 60)}' is none of a parts file. It may have: ${csvColumns().join(', ')}.`,
    };
  }
  const columns = names.map((n) => known.get(n) ?? '');
  return { ok: true, rows: lines.map((cells, n): RowResult => readRow(n + 2, columns, cells)) };
}

function readRow(row: number, columns: readonly string[], cells: readonly string[]): RowResult {
  const value = (column: string) => (cells[columns.indexOf(column)] ?? '').trim();
  const fail = (error: string): RowResult => ({ row, error: `Row ${row}: ${error}` });
  if (cells.length > columns.length) {
    return fail(`${cells.length} cells, but ${columns.length} columns. Is a separator inside a name?`);
  }
  const kind = value('kind').toLowerCase() as PartKind;
  if (!PART_KINDS.includes(kind)) {
    return fail(`'${kind.slice(0, 40)}' is no kind of part. Kinds are ${PART_KINDS.join(', ')}.`);
  }
  const ratings: Record<string, number | null> = {};
  for (const field of KINDS[kind].ratings) {
    const text = value(field.key);
    if (text === '') continue;
    const read = parseQuantity(text, field.unit);
    if (!read.ok) return fail(`${field.label}: ${read.error}`);
    ratings[field.key] = read.value;
  }
  const misplaced = columns.find(
    (c, n) =>
      c !== '' &&
      !COMMON.includes(c as never) &&
      !KINDS[kind].ratings.some((f) => f.key === c) &&
      (cells[n] ?? '').trim() !== '',
  );
  if (misplaced) return fail(`a ${kind} has no '${misplaced}'.`);
  const number = (column: 'count' | 'price', fallback: number | null): number | null | string => {
    const text = value(column);
    if (text === '') return fallback;
    const read = parseQuantity(text, column === 'price' ? 'EUR' : '');
    return read.ok ? read.value : `${column}: ${read.error}`;
  };
  const count = number('count', 1);
  if (typeof count === 'string') return fail(count);
  const priceEur = number('price', null);
  if (typeof priceEur === 'string') return fail(priceEur);
  const word = <T extends string>(column: string, words: readonly T[], fallback: T): T | null => {
    const text = value(column).toLowerCase();
    return text === '' ? fallback : (words.find((w) => w === text) ?? null);
  };
  const condition = word('condition', CONDITION_WORDS, 'new');
  if (condition === null) return fail(`condition has to be ${CONDITION_WORDS.join(' or ')}.`);
  const knownBy = word('known', KNOWN_BY, 'typical');
  if (knownBy === null) return fail(`known has to be ${KNOWN_BY.join(', ')}.`);
  const part: PartDraft = {
    kind,
    name: value('name'),
    ratings,
    known: knownBy,
    condition,
    count: count!,
    priceEur,
    place: value('place'),
    note: value('note'),
  };
  const fault = partFault(part);
  return fault ? fail(fault) : { row, part };
}

/** A drawer as a file that `readPartsCsv` reads back. Text that a spreadsheet would run as a formula is escaped. */
export function partsCsv(parts: readonly Part[]): string {
  const columns = csvColumns();
  const rows = parts.map((part) => {
    const common: Record<(typeof COMMON)[number], string> = {
      kind: part.kind,
      name: harmless(part.name),
      count: String(part.count),
      price: part.priceEur === null ? '' : String(part.priceEur),
      place: harmless(part.place),
      condition: part.condition,
      known: part.known,
      note: harmless(part.note),
    };
    return columns.map((c) => common[c as keyof typeof common] ?? numberCell(part.ratings[c] ?? null));
  });
  return `${Papa.unparse([columns, ...rows])}\r\n`;
}

function numberCell(value: number | null): string {
  return value === null ? '' : String(value);
}

/** Keeps a spreadsheet from running a cell: a leading = + - @ or control character gets an apostrophe before it. */
export function harmless(text: string): string {
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
}
