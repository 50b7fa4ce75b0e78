import type { Patch } from './design';

/** Another class of diode: what was known of the old one goes with it. */
export function ofDiodeClass(diode: string): NonNullable<Patch['rectifier']> {
  return { diode, rated: null, sheet: null };
}
