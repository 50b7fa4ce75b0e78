import { formatNominal } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { isSpan, parseSpan } from '@/core/quantity/span';
import type { OutputDemand, Span } from './design';
import { rangeFault } from './limits';

export type Allowed = Pick<OutputDemand, 'tolerancePct' | 'window'>;
export type AllowedResult = { ok: true; value: Allowed } | { ok: false; error: string };

/** Reads what an output may deviate by: '5 %' either way, or the two ends of a lopsided window, '58 to 70 V'. */
export function readAllowed(text: string, { outputV, tolerancePct }: OutputDemand): AllowedResult {
  if (!isSpan(text)) {
    const read = parseQuantity(text.replace(/^\s*(±|\+-|\+\/-)/, ''), '%');
    if (!read.ok) return { ok: false, error: `${read.error.replace(/\.$/, '')}, or two ends like 58 to 70 V.` };
    const fault = rangeFault('demand.tolerancePct', read.value);
    return fault ? { ok: false, error: fault } : { ok: true, value: { tolerancePct: read.value, window: null } };
  }
  const read = readEnds(text, 'demand.windowV');
  if (!read.ok) return read;
  const { lowV, highV } = read.value;
  if (outputV < lowV || outputV > highV)
    return {
      ok: false,
      error: `The ${formatNominal(outputV, 'V')} wanted lie outside of it: the window has to hold them.`,
    };
  return { ok: true, value: { tolerancePct, window: { lowV, highV } } };
}

/** Reads the volts an output has to be set between: '1.5 to 25 V'. */
export function readRange(text: string): { ok: true; value: Span } | { ok: false; error: string } {
  return readEnds(text, 'demand.rangeV');
}

function readEnds(
  text: string,
  path: 'demand.windowV' | 'demand.rangeV',
): { ok: true; value: Span } | { ok: false; error: string } {
  const read = parseSpan(text, 'V');
  if (!read.ok) return read;
  const { low: lowV, high: highV } = read.value;
  const fault = rangeFault(path, lowV) ?? rangeFault(path, highV);
  return fault ? { ok: false, error: fault } : { ok: true, value: { lowV, highV } };
}

/** A span as its field shows it. */
export function spanWords({ lowV, highV }: Span): string {
  const plain = (v: number) => String(Number(v.toPrecision(6)));
  return `${plain(lowV)} to ${plain(highV)} V`;
}

/** What an output may deviate by, as its field shows it. */
export function allowedWords({ tolerancePct, window }: Allowed): string {
  return window ? spanWords(window) : `${Number(tolerancePct.toPrecision(6))} %`;
}
