import Papa from 'papaparse';
import { CONSUMER_KINDS, type Consumer, type ConsumerKind } from '@/core/design/design';
import { CONSUMERS_MAX, NAME_MAX, rangeFault } from '@/core/design/limits';
import { harmless } from '@/core/drawer/csv';
import { parseQuantity } from '@/core/quantity/parse';

const COLUMNS = ['name', 'count', 'rail', 'kind', 'standing', 'typical', 'peak', 'duty'] as const;
type Column = (typeof COLUMNS)[number];

/**
 * Reads a load table from a spreadsheet's clipboard or a file: with a row of column names, or without one in the order
 * name, count, typical, peak. Rows that cannot be read come back as sentences; the others as consumers.
 */
export function readConsumers(text: string): { consumers: Consumer[]; errors: string[] } {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trim(), { skipEmptyLines: 'greedy' });
  const rows = parsed.data.map((r) => r.map((c) => c.trim()));
  if (rows.length === 0 || rows[0]!.every((c) => c === ''))
    return { consumers: [], errors: ['There is nothing to read.'] };
  const head = rows[0]!.map((c) => c.toLowerCase());
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
    const amps = (c: 'standing' | 'typical' | 'peak', fallback: number): number | null => {
      const text = value(c);
      if (text === '') return fallback;
      const read = parseQuantity(text, 'A');
      if (!read.ok) {
        fail(`${c}: ${read.error}`);
        return null;
      }
      const fault = rangeFault(`load.${c}A`, read.value);
      if (fault) fail(fault);
      return fault ? null : read.value;
    };
    const plain = (c: 'count' | 'duty', unit: '' | '%', fallback: number, most: number): number | null => {
      const text = value(c);
      if (text === '') return fallback;
      const read = parseQuantity(text, unit);
      if (read.ok && read.value >= 0 && read.value <= most && (c === 'duty' || Number.isInteger(read.value)))
        return read.value;
      fail(
        `${c}: '${text.slice(0, 30)}' is not ${c === 'count' ? 'a whole number from 0 on' : 'a share from 0 to 100 %'}.`,
      );
      return null;
    };
    const kind = (value('kind').toLowerCase() || 'current') as ConsumerKind;
    if (!CONSUMER_KINDS.includes(kind))
      return fail(`kind: '${kind.slice(0, 30)}' is none of ${CONSUMER_KINDS.join(', ')}.`);
    const rail = /^(minus|-|−|neg)/i.test(value('rail')) ? 'minus' : 'plus';
    const typicalA = amps('typical', 0);
    if (typicalA === null) return;
    const standingA = amps('standing', 0);
    const peakA = amps('peak', typicalA);
    const count = plain('count', '', 1, 10_000);
    const dutyPct = plain('duty', '%', 100, 100);
    if (standingA === null || peakA === null || count === null || dutyPct === null) return;
    consumers.push({ name: value('name').slice(0, NAME_MAX), count, rail, kind, standingA, typicalA, peakA, dutyPct });
    return;
  });
  return { consumers, errors };
}

/** The table as a file that `readConsumers` reads back. */
export function consumersCsv(consumers: readonly Consumer[]): string {
  const rows = consumers.map((c) => [
    harmless(c.name),
    c.count,
    c.rail,
    c.kind,
    c.standingA,
    c.typicalA,
    c.peakA,
    c.dutyPct,
  ]);
  return `${Papa.unparse([[...COLUMNS], ...rows])}\r\n`;
}
