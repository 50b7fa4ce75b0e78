import type { Reservoir } from './design';

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
