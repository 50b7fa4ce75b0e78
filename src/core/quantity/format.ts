import type { Unit } from './parse';

/**
 * Prints a quantity the way a builder writes it on a drawing: engineering prefixes, three significant
 * figures, capacitors in µF (never mF), resistors with k and M. Non-finite values print as a dash.
 */
export function formatQuantity(value: number, unit: Unit, significant = 3): string {
  if (!Number.isFinite(value)) return '–';
  const text = positive(Math.abs(value), unit, significant);
  // What rounds to nothing has no sign.
  return value < 0 && /[1-9]/.test(text) ? `−${text}` : text;
}

function positive(value: number, unit: Unit, significant: number): string {
  switch (unit) {
    case 'F':
      return formatCapacitance(value);
    case '%':
      return `${trimZeros(toSignificant(value, significant))} %`;
    case 'EUR':
      return `${value.toFixed(2)} EUR`;
    case '°C':
    case 'K':
      return `${Math.abs(value) < 10 && unit === 'K' ? value.toFixed(1) : value.toFixed(0)} ${unit}`;
    case '°':
      return `${value.toFixed(0)}°`;
    case '':
      return trimZeros(toSignificant(value, significant));
    case 's':
      if (value >= 7200) return `${trimZeros(toSignificant(value / 3600, significant))} h`;
      if (value >= 180) return `${trimZeros(toSignificant(value / 60, significant))} min`;
      return seconds(value, significant);
    case 'Hz':
      return value >= 1e4
        ? `${trimZeros(toSignificant(value / 1e3, significant))} kHz`
        : `${trimZeros(toSignificant(value, significant))} Hz`;
    case 'A²s':
      return `${value === 0 || value >= 1e-3 ? trimZeros(toSignificant(value, significant)) : '< 0.001'} A²s`;
    case 'K/W':
    case 'dB':
    case 'VA':
    case 'mm':
    case 'mm²':
    case 'cm²':
    case 'T':
    case 'kg':
    case 'h':
      return `${trimZeros(toSignificant(value, significant))} ${unit}`;
    default: {
      // Smaller than any meter resolves is nothing.
      if (value < 1e-9) return `0 ${unit === 'ohm' ? 'Ω' : unit}`;
      const [scaled, prefix] = engineering(
        value,
        unit === 'ohm' ? ['m', '', 'k', 'M'] : ['n', 'µ', 'm', '', 'k', 'M'],
        significant,
      );
      return `${toSignificant(scaled, significant)} ${prefix}${unit === 'ohm' ? 'Ω' : unit}`;
    }
  }
}

function seconds(value: number, significant: number): string {
  if (value < 1e-9) return '0 s';
  const [scaled, prefix] = engineering(value, ['µ', 'm', ''], significant);
  return `${toSignificant(scaled, significant)} ${prefix}s`;
}

/** A chosen or nominal value, without the trailing zeros that would claim a measurement: '18 V', not '18.0 V'. */
export function formatNominal(value: number, unit: Unit): string {
  return trimPadded(formatQuantity(value, unit, 4));
}

/** Units whose small numbers are written with a prefix in a field. */
const PREFIXED: ReadonlySet<Unit> = new Set<Unit>(['V', 'H', 'W', 's']);

/** Text for an input field: short, accepted again by parseQuantity. */
export function formatForInput(value: number, unit: Unit): string {
  if (!Number.isFinite(value)) return '';
  if (unit === 'F' || unit === 'ohm' || unit === 'A') return formatNominal(value, unit);
  if (unit === 's' && value >= 60) return `${Number((value / 60).toPrecision(6))} min`;
  // What a small number of volts or henries is, and what a long row of zeros is, shows by its prefix.
  const size = Math.abs(value);
  if ((PREFIXED.has(unit) && size > 0 && (size < 0.1 || size >= 1e4)) || (unit === 'Hz' && size >= 1e4))
    return trimPadded(formatQuantity(value, unit, 6));
  const plain = String(Number(value.toPrecision(6)));
  return unit === '' ? plain : `${plain} ${unit}`;
}

/** The same words, as a sentence or a heading begins. */
export function capitalised(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

function trimPadded(text: string): string {
  return text.replace(/^(−?\d+\.\d*?)0+(\D|$)/, '$1$2').replace(/\.(\D)/, '$1');
}

function formatCapacitance(value: number): string {
  if (value === 0) return '0 µF';
  const micro = value * 1e6;
  if (Math.abs(micro) >= 1e6) return `${trimZeros(toSignificant(value, 4))} F`;
  if (Math.abs(micro) >= 0.01) return `${trimZeros(toSignificant(micro, Math.abs(micro) >= 1000 ? 5 : 3))} µF`;
  if (Math.abs(micro) >= 0.0001) return `${trimZeros(toSignificant(micro * 1e3, 3))} nF`;
  return `${trimZeros(toSignificant(micro * 1e6, 3))} pF`;
}

function engineering(value: number, prefixes: string[], significant: number): [number, string] {
  const unitIndex = prefixes.indexOf('');
  if (value === 0) return [0, ''];
  const rounded = Number(value.toPrecision(significant));
  const exponent = Math.floor(Math.log10(Math.abs(rounded)) / 3 + 1e-9);
  const index = Math.min(prefixes.length - 1, Math.max(0, unitIndex + exponent));
  return [rounded / 10 ** (3 * (index - unitIndex)), prefixes[index]!];
}

function toSignificant(value: number, significant: number): string {
  if (value === 0) return '0';
  const rounded = Number(value.toPrecision(significant));
  const magnitude = Math.floor(Math.log10(Math.abs(rounded)) + 1e-9);
  return rounded.toFixed(Math.max(0, Math.min(8, significant - 1 - magnitude)));
}

function trimZeros(text: string): string {
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}
