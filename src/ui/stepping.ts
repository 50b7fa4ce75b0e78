import { stepInDecades, stepInList } from '@/core/quantity/preferred';

/** How the arrow keys step a field: through a decade series, through a list, by an amount; Shift for ten times as far. */
export const inDecades = (series: readonly number[]) => (value: number, direction: number) =>
  Math.abs(direction) >= 10 ? value * 10 ** Math.sign(direction) : stepInDecades(value, series, direction);
export const inList = (list: readonly number[]) => (value: number, direction: number) =>
  stepInList(value, list, Math.abs(direction) >= 10 ? 4 * Math.sign(direction) : direction);
export const by = (amount: number) => (value: number, direction: number) =>
  Number((value + direction * amount).toPrecision(8));
