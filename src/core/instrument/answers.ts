/** An answer as it could be read, or a sentence that quotes it: a bad one is shown, never guessed. */
export type Answer<T> = { ok: true; value: T } | { ok: false; fault: string };

/** What instruments send in place of a number that is too large to show. */
const OVERLOAD = 9.9e37;
const NUMBER = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/;
/** Most points of a trace that are taken. */
export const POINTS_MAX = 20_000;

const quoted = (text: string) => `‘${text.length > 60 ? `${text.slice(0, 60)}…` : text}’`;

/** One number in plain or exponent form. */
export function numberIn(text: string): Answer<number> {
  const plain = text.trim();
  if (!NUMBER.test(plain)) return { ok: false, fault: `It answered ${quoted(text)}, which is no number.` };
  const value = Number(plain);
  if (!Number.isFinite(value) || Math.abs(value) >= OVERLOAD)
    return { ok: false, fault: 'It answered that the reading is beyond its range.' };
  return { ok: true, value };
}

/** A comma list of numbers. */
export function numbersIn(text: string): Answer<number[]> {
  const cells = text.trim().split(',');
  if (cells.length < 8) return { ok: false, fault: `It answered ${quoted(text)}, which is no trace.` };
  if (cells.length > POINTS_MAX)
    return { ok: false, fault: `Its trace has ${cells.length} points; ${POINTS_MAX} are the most that are taken.` };
  const values: number[] = [];
  for (const [n, cell] of cells.entries()) {
    const read = numberIn(cell);
    if (!read.ok) return { ok: false, fault: `Point ${n + 1} of its trace is ${quoted(cell)}, which is no number.` };
    values.push(read.value);
  }
  return { ok: true, value: values };
}

/** Whether something is switched on. */
export function switchIn(text: string): Answer<boolean> {
  const plain = text.trim().toUpperCase();
  if (plain === '1' || plain === 'ON') return { ok: true, value: true };
  if (plain === '0' || plain === 'OFF') return { ok: true, value: false };
  return { ok: false, fault: `It answered ${quoted(text)}, which says neither on nor off.` };
}

/** What its queue of errors holds: null for none. */
export function errorIn(text: string): string | null {
  return /^[+-]?0+\s*(,|$)/.test(text.trim()) ? null : text.trim();
}
