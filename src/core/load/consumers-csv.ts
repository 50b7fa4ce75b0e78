import Papa from 'papaparse';
import type { Consumer, OutputId } from '@/core/design/design';
import { CONSUMER_KINDS, type ConsumerKind } from '@/core/design/kinds';
import { CONSUMERS_MAX, NAME_MAX } from '@/core/design/how-many';
import { rangeFault } from '@/core/design/limits';
import { harmless } from '@/core/drawer/csv';
import { parseQuantity } from '@/core/quantity/parse';

const COLUMNS = ['name', 'count', 'on', 'output', 'kind', 'standing', 'typical', 'peak', 'duty', 'start'] as const;
type Column = (typeof COLUMNS)[number];

/**
 * Reads a load table from a spreadsheet's clipboard or a file: with a row of column names, or without one in the order
 * name, count, typical, peak. Rows that cannot be read come back as sentences; the others as consumers.
 * @param outputs names and ids of the outputs there are, to be named by either
 */
export function readConsumers(
  text: string,
  outputs: readonly { id: OutputId; name: string }[] = PLAIN_OUTPUTS,
): { consumers: Consumer[]; errors: string[] } {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trim(), { skipEmptyLines: 'greedy' });
  const rows = parsed.data.map((r) => r.map((c) => c.trim()));
  if (rows.length === 0 || rows[0]!.every((c) => c === ''))
    return { consumers: [], errors: ['There is nothing to read.'] };
  // An earlier table called the output its rail.
  const head = rows[0]!.map((c) => (c.toLowerCase() === 'rail' ? 'output' : c.toLowerCase()));
  const named = head.some((h) => COLUMNS.includes(h as Column));
  const columns: (Column | null)[] = named
    ? head.map((h) => (COLUMNS.includes(h as Column) ? (h as Column) : null))
    : ['name', 'count', 'typical', 'peak'];
  const body = named ? rows.slice(1) : rows;
  const consumers: Consumer[] = [];
  const errors: string[] = [];
  if (named && !columns.includes('typical')) return { consumers, errors: ["The column 'typical' is missing."] };
  body.forEach((cells, n) => {
    const row = n + (named ? 2 : 1);
    const value = (c: Column) => cells[columns.indexOf(c)] ?? '';
    const fail = (sentence: string) => errors.push(`Row ${row}: ${sentence}`);
    if (consumers.length >= CONSUMERS_MAX) return fail(`${CONSUMERS_MAX} lines are the most a table holds.`);
    const amps = <T extends number | null>(
      c: 'standing' | 'typical' | 'peak' | 'start',
      fallback: T,
    ): number | T | undefined => {
      const text = value(c);
      if (text === '') return fallback;
      const read = parseQuantity(text, 'A');
      if (!read.ok) {
        fail(`${c}: ${read.error}`);
        return undefined;
      }
      const fault = rangeFault(`load.${c}A`, read.value);
      if (fault) fail(fault);
      return fault ? undefined : read.value;
    };
    const plain = <T extends number | null>(
      c: 'count' | 'on' | 'duty',
      unit: '' | '%',
      fallback: T,
      most: number,
    ): number | T | undefined => {
      const text = value(c);
      if (text === '') return fallback;
      const read = parseQuantity(text, unit);
      if (read.ok && read.value >= 0 && read.value <= most && (c === 'duty' || Number.isInteger(read.value)))
        return read.value;
      fail(
        `${c}: '${text.slice(0, 30)}' is not ${c !== 'duty' ? 'a whole number from 0 on' : 'a share from 0 to 100 %'}.`,
      );
      return undefined;
    };
    const kind = (value('kind').toLowerCase() || 'current') as ConsumerKind;
    if (!CONSUMER_KINDS.includes(kind))
      return fail(`kind: '${kind.slice(0, 30)}' is none of ${CONSUMER_KINDS.join(', ')}.`);
    const output = outputNamed(value('output'), outputs);
    if (!output)
      return fail(
        `output: '${value('output').slice(0, 30)}' is none of this supply: ${outputs.map((o) => o.name).join(', ')}.`,
      );
    const typicalA = amps('typical', 0);
    if (typicalA === undefined) return;
    const standingA = amps('standing', 0);
    const peakA = amps('peak', typicalA);
    const count = plain('count', '', 1, 10_000);
    const on = plain('on', '', null, 10_000);
    const dutyPct = plain('duty', '%', 100, 100);
    const startA = amps('start', null);
    if (standingA === undefined || peakA === undefined || count === undefined) return;
    if (on === undefined || dutyPct === undefined || startA === undefined) return;
    const name = value('name').slice(0, NAME_MAX);
    consumers.push({ name, count, on, output, kind, standingA, typicalA, peakA, dutyPct, startA });
    return;
  });
  return { consumers, errors };
}

/** The table as a file that `readConsumers` reads back. */
export function consumersCsv(consumers: readonly Consumer[]): string {
  const rows = consumers.map((c) => [
    harmless(c.name),
    c.count,
    c.on ?? '',
    c.output,
    c.kind,
    c.standingA,
    c.typicalA,
    c.peakA,
    c.dutyPct,
    c.startA ?? '',
  ]);
  return `${Papa.unparse([[...COLUMNS], ...rows])}\r\n`;
}

/** Outputs of a supply nobody has described: the main one, and its twin where there is one. */
const PLAIN_OUTPUTS: readonly { id: OutputId; name: string }[] = [
  { id: 'main', name: 'main' },
  { id: 'minus', name: 'minus' },
];

/** The output a cell speaks of, by name, id or sign; the main one where it is empty. Null for one there is none of. */
function outputNamed(text: string, outputs: readonly { id: OutputId; name: string }[]): OutputId | null {
  const wanted = text.trim().toLowerCase();
  const id = /^(|\+|plus|main)$/.test(wanted) ? 'main' : /^(-|−|minus|neg.*)$/.test(wanted) ? 'minus' : wanted;
  return outputs.find((o) => o.id === id || o.name.toLowerCase() === wanted)?.id ?? null;
}
