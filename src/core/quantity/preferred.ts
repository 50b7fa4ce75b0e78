/**
 * Preferred number series of IEC 60063 and the standard steps builders buy in.
 */

export const E3 = [1.0, 2.2, 4.7] as const;
export const E6 = [1.0, 1.5, 2.2, 3.3, 4.7, 6.8] as const;
export const E12 = [1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2] as const;
export const E24 = [
  1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2,
  9.1,
] as const;
/** 1 % resistors: the 96th roots of ten to two places. */
export const E96: readonly number[] = Array.from({ length: 96 }, (_, n) => Math.round(100 * 10 ** (n / 96)) / 100);

export type Series = readonly number[];

export const SERIES = { E12, E24, E96 } as const satisfies Record<string, Series>;
export type SeriesName = keyof typeof SERIES;

/** Rated voltages in which electrolytic capacitors are sold, V (physics of the reservoir: next step above the peak). */
export const CAPACITOR_VOLTS: Series = [6.3, 10, 16, 25, 35, 50, 63, 80, 100, 160, 200, 250, 350, 400, 450];

/**
 * The neighbour of `value` in a decade series, `steps` places up (positive) or down (negative).
 * A value between two members moves to the next member in that direction first.
 * @param value positive, any unit
 */
export function stepInDecades(value: number, series: Series, steps: number): number {
  if (!(value > 0) || steps === 0) return value;
  const decade = Math.floor(Math.log10(value) + 1e-9);
  const mantissa = value / 10 ** decade;
  const tolerance = 1e-6;
  let index: number;
  if (steps > 0) {
    index = lastIndexAtMost(series, mantissa * (1 + tolerance)) + steps;
  } else {
    const above = series.findIndex((m) => m >= mantissa * (1 - tolerance));
    index = (above === -1 ? series.length : above) + steps;
  }
  const octave = Math.floor(index / series.length);
  const member = series[index - octave * series.length]!;
  return round(member * 10 ** (decade + octave));
}

/** The neighbour of `value` in a finite list of standard steps; stays at the ends. */
export function stepInList(value: number, list: Series, steps: number): number {
  if (steps === 0 || list.length === 0) return value;
  const tolerance = 1e-6;
  let index: number;
  if (steps > 0) index = lastIndexAtMost(list, value * (1 + tolerance)) + steps;
  else {
    const above = list.findIndex((m) => m >= value * (1 - tolerance));
    index = (above === -1 ? list.length : above) + steps;
  }
  return list[Math.min(list.length - 1, Math.max(0, index))]!;
}

/** Smallest member of a finite list that is at least `value`; the largest member when none is. */
export function nextInList(value: number, list: Series): number {
  return list.find((m) => m >= value * (1 - 1e-9)) ?? list[list.length - 1]!;
}

/** Member of a decade series nearest to `value` on a logarithmic scale. */
export function nearestInDecades(value: number, series: Series): number {
  const up = stepInDecades(value, series, 1);
  const down = stepInDecades(up, series, -1);
  return up / value < value / down ? up : down;
}

/** Member of a finite list nearest to `value`. */
export function nearestInList(value: number, list: Series): number {
  return list.reduce((best, m) => (Math.abs(m - value) < Math.abs(best - value) ? m : best), list[0]!);
}

function lastIndexAtMost(list: Series, value: number): number {
  let found = -1;
  for (let i = 0; i < list.length; i++) if (list[i]! <= value) found = i;
  return found;
}

function round(value: number): number {
  return Number(value.toPrecision(6));
}
