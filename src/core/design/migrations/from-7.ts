import { filled, type Json } from './json';

/** Version 8 keeps a measured load line beside the readings of the power-up, and knows a transformer from a fit to them. */
export function from7(d: Json): Json {
  return { ...d, version: 8, bench: filled(d, 'bench', { loadLine: [] }) };
}
