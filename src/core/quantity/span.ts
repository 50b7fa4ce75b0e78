import { parseQuantity, type Unit } from './parse';

export type SpanResult = { ok: true; value: { low: number; high: number } } | { ok: false; error: string };

/** Whether a text names two ends: '58 to 70 V', '58..70', '58 – 70 V'. */
export function isSpan(text: string): boolean {
  return splitSpan(text) !== null;
}

/** Reads two ends from low to high: '58 to 70 V'. The unit may stand behind the second alone. */
export function parseSpan(text: string, unit: Unit): SpanResult {
  const ends = splitSpan(text);
  if (!ends) return { ok: false, error: `'${text.trim()}' is not two ends: type them like 58 to 70 ${unit}.` };
  const low = parseQuantity(ends[0], unit);
  if (!low.ok) return low;
  const high = parseQuantity(ends[1], unit);
  if (!high.ok) return high;
  if (!(low.value < high.value)) return { ok: false, error: 'The first end has to be below the second one.' };
  return { ok: true, value: { low: low.value, high: high.value } };
}

function splitSpan(text: string): [string, string] | null {
  const found = /^(.*\d.*?)\s*(?:\bto\b|\.\.+|–|—|(?<=[\dV])\s*-\s*(?=\d))\s*(.*\d.*)$/i.exec(text.trim());
  return found ? [found[1]!, found[2]!] : null;
}
