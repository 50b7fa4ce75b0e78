import Papa from 'papaparse';
import type { MeasuredTrace } from '@/core/study/scope-shapes';

const MOST_ROWS = 200_000;

/**
 * Reads a recording of one channel: two columns, time in seconds and value, with or without heads, commas or semicolons
 * between them, points or commas in the numbers.
 */
export function readTrace(text: string): { ok: true; trace: MeasuredTrace } | { ok: false; error: string } {
  const clean = text.replace(/^\uFEFF/, '');
  const head = clean.split('\n', 20);
  const semicolons = head.some((line) => line.includes(';'));
  const tabs = head.some((line) => line.includes('\t'));
  const { data } = Papa.parse<string[]>(clean, {
    delimiter: semicolons ? ';' : tabs ? '\t' : ',',
    skipEmptyLines: 'greedy',
    preview: MOST_ROWS + 1,
  });
  if (data.length > MOST_ROWS) {
    return { ok: false, error: `The file has more than ${MOST_ROWS} rows; thin it out first.` };
  }
  const number = (cell: string | undefined) => {
    const trimmed = (cell ?? '').trim();
    return trimmed === '' ? NaN : Number(semicolons || tabs ? trimmed.replace(',', '.') : trimmed);
  };
  const t: number[] = [];
  const values: number[] = [];
  for (const [row, cells] of data.entries()) {
    const [a, b] = [number(cells[0]), number(cells[1])];
    if (!Number.isFinite(a) || !Number.isFinite(b)) {
      // Heads and comments come before the first row of numbers.
      if (t.length === 0) continue;
      return { ok: false, error: `Row ${row + 1} has no time and value: “${cells.join(' ').slice(0, 40)}”.` };
    }
    if (t.length > 0 && a <= t[t.length - 1]!) {
      return { ok: false, error: `Row ${row + 1}: the time does not go up (${cells[0]} after ${t[t.length - 1]}).` };
    }
    t.push(a);
    values.push(b);
  }
  if (t.length < 8) {
    return { ok: false, error: 'No rows of time and value were found: two columns of numbers are needed.' };
  }
  const start = t[0]!;
  return { ok: true, trace: { t: t.map((x) => x - start), values } };
}
