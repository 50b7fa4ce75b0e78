import { formatQuantity } from '@/core/quantity/format';

/** Hotter than this nothing here stays in one piece, °C: a figure beyond it only says how far the design is off. */
const ABSURD_C = 350;

/** A temperature in words, where a number would only be absurd. */
export function heatWords(tempC: number): string {
  return tempC > ABSURD_C ? `More than ${ABSURD_C} °C` : formatQuantity(tempC, '°C');
}

/** What a figure says in place of an absurd temperature. */
export function absurdHeat(tempC: number): { words?: string } {
  return tempC > ABSURD_C ? { words: 'no sink could' } : {};
}
