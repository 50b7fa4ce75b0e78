/**
 * Reads a quantity as builders type it: '4700u', '2k2', '3V3', 'R22', '0.5A', '12 V', '4,7 mF', '1e-3', '68 x 220u'.
 */

export type Unit =
  | 'V'
  | 'A'
  | 'W'
  | 'VA'
  | 'F'
  | 'ohm'
  | 'Hz'
  | '%'
  | 'K/W'
  | '°C'
  | 'K'
  | 'J'
  | 'H'
  | 's'
  | 'dB'
  | 'A²s'
  | 'EUR'
  | '°'
  | 'mm'
  | 'mm²'
  | 'cm²'
  | 'T'
  | 'Ah'
  | 'h'
  | 'kg'
  | '';

export type ParseResult = { ok: true; value: number } | { ok: false; error: string };

const PREFIX: Record<string, number> = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
};

/** Units that mega and giga make sense of; in front of others a capital M is nearly always meant small. */
const LARGE: ReadonlySet<Unit> = new Set<Unit>(['ohm', 'Hz']);

/** The letter of a unit that may stand in place of the decimal point: '3V3'. */
const POINT_LETTER: Partial<Record<Unit, string>> = { V: 'v', A: 'a', W: 'w', H: 'h', ohm: 'r' };

/** How each unit may be written behind a number. Case is ignored. */
const SPELLINGS: Record<Unit, string[]> = {
  V: ['v', 'volt', 'volts', 'vac', 'vdc', 'vrms', 'vpp'],
  A: ['a', 'amp', 'amps', 'ampere'],
  W: ['w', 'watt', 'watts'],
  VA: ['va'],
  F: ['f', 'farad'],
  ohm: ['ohm', 'ohms', 'ω', 'Ω'.toLowerCase(), 'r'],
  Hz: ['hz'],
  '%': ['%', 'percent', 'pct'],
  'K/W': ['k/w', '°c/w', 'c/w', 'kpw'],
  '°C': ['°c', 'c', 'degc', '℃'],
  K: ['k', 'kelvin'],
  J: ['j'],
  H: ['h', 'henry'],
  s: ['s', 'sec'],
  dB: ['db'],
  'A²s': ['a2s', 'a²s'],
  EUR: ['eur', '€'],
  '°': ['°', 'deg'],
  mm: ['mm'],
  'mm²': ['mm²', 'mm2'],
  'cm²': ['cm²', 'cm2'],
  T: ['t', 'tesla'],
  Ah: ['ah'],
  h: ['h', 'hours'],
  kg: ['kg'],
  '': [],
};

/** How long times are written, s. */
const LONGER: Readonly<Record<string, number>> = { min: 60, h: 3600 };

/** Units that never carry a prefix, so that 'k/W' or '°C' is not read as kilo or centi. */
const UNPREFIXED: ReadonlySet<Unit> = new Set<Unit>([
  '%',
  'K/W',
  '°C',
  'K',
  'dB',
  'EUR',
  '°',
  'mm',
  'mm²',
  'cm²',
  'T',
  'h',
  'kg',
]);

const NAMES: Record<Unit, string> = {
  V: 'volts',
  A: 'amperes',
  W: 'watts',
  VA: 'volt-amperes',
  F: 'farads',
  ohm: 'ohms',
  Hz: 'hertz',
  '%': 'per cent',
  'K/W': 'K/W',
  '°C': '°C',
  K: 'kelvins',
  J: 'joules',
  H: 'henries',
  s: 'seconds',
  dB: 'decibels',
  'A²s': 'A²s',
  EUR: 'euros',
  '°': 'degrees',
  mm: 'millimetres',
  'mm²': 'square millimetres',
  'cm²': 'square centimetres',
  T: 'tesla',
  Ah: 'ampere-hours',
  h: 'hours',
  kg: 'kilograms',
  '': 'a plain number',
};

const EXAMPLE: Partial<Record<Unit, string>> = {
  V: '12 V',
  A: '500mA',
  VA: '30',
  F: '4700u',
  ohm: '2k2',
  Hz: '50',
  '%': '10',
  'K/W': '5',
  '°C': '40',
  W: '10',
  EUR: '3.50',
};

/**
 * Reads `text` as a value in `unit` (SI; per cent stays per cent, not a fraction).
 * Accepts a decimal point or comma, an SI prefix before the unit or in place of the point
 * ('2k2', '4R7', '3V3', 'R22'), an exponent, and the unit's own spelling; of capacitance several alike ('68 x 220u').
 * What could mean two things ('1 2', '500MA') is asked about, not guessed. Never throws.
 */
export function parseQuantity(text: string, unit: Unit): ParseResult {
  const raw = text.trim();
  const example = EXAMPLE[unit] ? `, for example ${EXAMPLE[unit]}` : '';
  if (raw === '') return { ok: false, error: `Nothing here yet: type ${NAMES[unit]}${example}.` };
  const several = unit === 'F' ? /^(\d{1,4})\s*[x×*]\s*(.+)$/i.exec(raw) : null;
  if (several) {
    const one = parseQuantity(several[2]!, unit);
    return one.ok ? finish(Number(several[1]) * one.value) : one;
  }
  const gap = /(\d+)\s+(\d+)/.exec(raw);
  if (gap) {
    return {
      ok: false,
      error: `'${clip(raw)}' has a gap in its number: type ${gap[1]}${gap[2]} or ${gap[1]}.${gap[2]}, whichever you mean.`,
    };
  }
  let s = raw.replace(/\s+/g, '').replace(/−/g, '-');
  if (/^[+-]?\d{1,3}(,\d{3})+\.\d+/.test(s) || (s.match(/,/g) ?? []).length > 1) {
    return {
      ok: false,
      error: `'${clip(raw)}' mixes separators: write the number with one decimal point or comma and no thousands mark.`,
    };
  }
  if (s.includes(',') && s.includes('.')) {
    return { ok: false, error: `'${clip(raw)}' has both a point and a comma: use one of them as the decimal sign.` };
  }
  s = s.replace(',', '.');

  const infix = /^([+-]?\d*)([a-zA-Zµμ])(\d+)(.*)$/.exec(s);
  if (infix && !UNPREFIXED.has(unit)) {
    const [, whole, letter, fraction, tail] = infix;
    const scale = letter!.toLowerCase() === POINT_LETTER[unit] ? 1 : PREFIX[letter!];
    if (scale !== undefined && unitMatches(tail!, unit)) {
      if (scale >= 1e6 && !LARGE.has(unit)) return doubtful(`${whole}.${fraction}`, letter!);
      return finish(Number(`${whole}.${fraction}`.replace(/^([+-]?)\./, '$10.')) * scale);
    }
  }

  const plain = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)(.*)$/.exec(s);
  if (!plain) return { ok: false, error: `'${clip(raw)}' is not a number: type ${NAMES[unit]}${example}.` };
  const number = Number(plain[1]);
  const tail = plain[2]!;
  if (unitMatches(tail, unit)) return finish(number);
  const longer = unit === 's' ? LONGER[tail.toLowerCase()] : undefined;
  if (longer) return finish(number * longer);
  if (!UNPREFIXED.has(unit)) {
    const scale = PREFIX[tail[0]!];
    if (scale !== undefined && unitMatches(tail.slice(1), unit))
      return scale >= 1e6 && !LARGE.has(unit) ? doubtful(plain[1]!, tail[0]!) : finish(number * scale);
  }
  return {
    ok: false,
    error: `'${clip(tail)}' behind the number is not a unit of ${NAMES[unit]}: type it like ${EXAMPLE[unit] ?? '1.5'}.`,
  };

  function doubtful(digits: string, letter: string): ParseResult {
    const small = unit === 'F' ? `${digits}u` : `${digits}m`;
    return {
      ok: false,
      error: `'${clip(raw)}' says ${letter === 'M' ? 'mega' : 'giga'}: type ${small} if you mean ${unit === 'F' ? 'micro' : 'milli'}${NAMES[unit]}.`,
    };
  }

  function finish(value: number): ParseResult {
    if (!Number.isFinite(value)) return { ok: false, error: `'${clip(raw)}' is too large to be a number here.` };
    return { ok: true, value };
  }
}

/** Several alike, as '68 x 220 uF': how many, and the value of each. Null for anything else. */
export function severalAlike(text: string, unit: Unit): { count: number; each: number } | null {
  const found = /^\s*(\d{1,4})\s*[x×*]\s*(.+)$/i.exec(text);
  const each = found ? parseQuantity(found[2]!, unit) : null;
  return found && each?.ok ? { count: Number(found[1]), each: each.value } : null;
}

function unitMatches(tail: string, unit: Unit): boolean {
  return tail === '' || SPELLINGS[unit].includes(tail.toLowerCase());
}

function clip(text: string): string {
  return text.length > 24 ? `${text.slice(0, 24)}…` : text;
}
