import Papa from 'papaparse';
import type { LoadRow } from '@/core/design/design';
import { LOAD_ROWS_MAX } from '@/core/design/how-many';
import { rangeFault, type FieldPath } from '@/core/design/limits';
import { FED_FROM } from '@/core/design/kinds';
import { harmless } from '@/core/drawer/csv';
import { parseLoad } from '@/core/quantity/load';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { rowFault } from './row-fault';

const COLUMNS = ['load', 'mains', 'reservoir', 'ripple', 'output', 'metal', 'minutes', 'fed', 'note'] as const;
type Column = (typeof COLUMNS)[number];

/** Other words for a column, as spreadsheets have them. */
const ALSO: Readonly<Record<string, Column>> = {
  current: 'load',
  amps: 'load',
  volts: 'reservoir',
  temperature: 'metal',
  'fed from': 'fed',
};

export interface ReadRows {
  rows: LoadRow[];
  /** What could not be read, each with its row and reason. */
  errors: string[];
}

/**
 * Reads a load line from a spreadsheet's clipboard or a file: with a row of column names, or without one in the order
 * load, reservoir, ripple, mains. A load may be given in amperes, ohms or watts. Rows that cannot be read come back as
 * sentences, the others as rows.
 * @param at the time they are noted with
 * @param mainsV what is noted where a row does not say
 * @param outputV what ohms and watts are reckoned at
 * @param room how many more rows the load line holds
 */
export function readRows(text: string, at: string, mainsV: number, outputV: number, room = LOAD_ROWS_MAX): ReadRows {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trim(), { skipEmptyLines: 'greedy' });
  const lines = parsed.data.map((r) => r.map((c) => c.trim()));
  if (lines.length === 0 || lines[0]!.every((c) => c === ''))
    return { rows: [], errors: ['There is nothing to read.'] };
  const head = lines[0]!.map((c) => columnOf(c));
  const named = head.some((c) => c !== null);
  if (named && !head.includes('load')) return { rows: [], errors: ["The column 'load' is missing."] };
  const columns: readonly (Column | null)[] = named ? head : ['load', 'reservoir', 'ripple', 'mains'];
  const rows: LoadRow[] = [];
  const errors: string[] = [];
  lines.slice(named ? 1 : 0).forEach((cells, n) => {
    const faults: string[] = [];
    const cell = (c: Column) => cells[columns.indexOf(c)] ?? '';
    const number = (c: Column, path: FieldPath, unit: Unit): number | null => {
      const text = cell(c);
      if (text === '') return null;
      const read = c === 'load' ? parseLoad(text, outputV) : parseQuantity(text, unit);
      // Minutes are kept as seconds, like every time.
      const value = read.ok ? (c === 'minutes' ? 60 * read.value : read.value) : null;
      const fault = value === null ? (read as { error: string }).error : rangeFault(path, value);
      if (fault) faults.push(`${c}: ${fault}`);
      return fault ? null : value;
    };
    const loadA = number('load', 'bench.loadA', 'A');
    const loadedS = number('minutes', 'bench.loadedS', '');
    const fed = cell('fed').toLowerCase();
    const row: LoadRow = {
      at,
      mainsV: number('mains', 'bench.sourceV', 'V') ?? mainsV,
      fedFrom: FED_FROM.find((f) => f === fed) ?? 'mains',
      loadA: loadA ?? 0,
      reservoirV: number('reservoir', 'bench.volts', 'V'),
      rippleV: number('ripple', 'bench.volts', 'V'),
      outputV: number('output', 'bench.volts', 'V'),
      sinkC: number('metal', 'bench.sinkC', '°C'),
      loadedS,
      note: cell('note').slice(0, 200),
    };
    if (fed !== '' && !FED_FROM.includes(fed as LoadRow['fedFrom']))
      faults.push(`fed: '${fed}' is none of ${FED_FROM.join(', ')}`);
    if (loadA === null && faults.length === 0) faults.push('load: how much was drawn is missing');
    const fault = faults[0] ?? rowFault(row);
    if (fault) errors.push(`Row ${n + (named ? 2 : 1)}: ${fault}`);
    else rows.push(row);
  });
  if (rows.length > room) {
    errors.push(
      `${LOAD_ROWS_MAX} rows are the most a load line holds: ${room} more have room, the last ${rows.length - room} are left out.`,
    );
    rows.length = room;
  }
  return { rows, errors };
}

function columnOf(text: string): Column | null {
  const word = text
    .toLowerCase()
    .replace(/[,(\[].*$/, '')
    .trim();
  return COLUMNS.find((c) => c === word) ?? ALSO[word] ?? null;
}

/** The rows as a CSV that reads back. */
export function rowsCsv(rows: readonly LoadRow[]): string {
  const bare = (value: number | null) => (value === null ? '' : String(value));
  return Papa.unparse({
    fields: [...COLUMNS],
    data: rows.map((r) => [
      bare(r.loadA),
      bare(r.mainsV),
      bare(r.reservoirV),
      bare(r.rippleV),
      bare(r.outputV),
      bare(r.sinkC),
      bare(r.loadedS === null ? null : r.loadedS / 60),
      r.fedFrom,
      harmless(r.note),
    ]),
  });
}
