import { typicalLeakage } from '@/core/parts/capacitor';
import { E12, nearestInDecades } from '@/core/quantity/preferred';
import type { Design, Reservoir } from './design';

/** Most the volts of two cans in series differ by tolerance and leakage before the balancing resistors: 10 % each way. */
const PAIR_SHARING = 0.9;

/** Capacitance of the whole reservoir at its printed value, F. */
export function bankF({ cans, pair, capacitanceF }: Reservoir): number {
  return (cans * capacitanceF) / (pair ? 2 : 1);
}

/** What the whole reservoir stands, V: two in series a little less than twice, since they never share alike. */
export function bankRatedV({ pair, ratedV }: Reservoir): number {
  return pair ? 2 * PAIR_SHARING * ratedV : ratedV;
}

/** What multiplies a resistance of one can (ESR, leakage) to that of the bank. */
export function bankOhmFactor({ cans, pair }: Reservoir): number {
  return (pair ? 2 : 1) / cans;
}

/** Number of cans on one rail. */
export function canCount({ cans, pair }: Reservoir): number {
  return pair ? 2 * cans : cans;
}

/** What a balancing resistor carries against the difference of two cans' leakage, and that against the leakage itself. */
const BALANCE_TIMES = 7.5;
const LEAKAGE_APART = 0.5;

/** Resistor across each can of a series pair, ohm: as chosen, or by the cans' leakage; null where none stands in series. */
export function balanceOhmOf({ pair, balanceOhm, capacitanceF, ratedV }: Reservoir): number | null {
  if (!pair || capacitanceF <= 0) return null;
  const leakA = typicalLeakage(capacitanceF, ratedV);
  return balanceOhm ?? nearestInDecades(ratedV / (BALANCE_TIMES * LEAKAGE_APART * leakA), E12);
}

/** Everything that lies across the reservoir for good, bleeder and balancing resistors side by side, ohm; null for nothing. */
export function shuntOhm({ reservoir, filter }: Pick<Design, 'reservoir' | 'filter'>): number | null {
  const balance = balanceOhmOf(reservoir);
  const siemens =
    (filter.bleederOhm === null ? 0 : 1 / filter.bleederOhm) + (balance === null ? 0 : reservoir.cans / (2 * balance));
  return siemens === 0 ? null : 1 / siemens;
}
