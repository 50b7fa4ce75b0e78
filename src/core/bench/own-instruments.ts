import type { Bench, Design } from '@/core/design/design';

/** What the person's own instruments show of what is really there. */

/** An average-responding meter multiplies the mean of the rectified wave by the form factor of a sine. */
const SINE_FORM = Math.PI / (2 * Math.SQRT2);

/** What a meter's AC range, which blocks DC, shows of one evenly sampled cycle, V. */
export function acReading(samples: readonly number[], { acTrueRms }: Pick<Bench, 'acTrueRms'>): number {
  const mean = samples.reduce((a, b) => a + b, 0) / samples.length;
  const swing = samples.map((v) => v - mean);
  return acTrueRms
    ? Math.sqrt(swing.reduce((sum, v) => sum + v * v, 0) / swing.length)
    : (SINE_FORM * swing.reduce((sum, v) => sum + Math.abs(v), 0)) / swing.length;
}

/** What the scope's own floor looks like through its probe, V peak to peak: it may lie on top of any ripple, or not. */
export const floorV = ({ scopeFloorV, probe }: Pick<Bench, 'scopeFloorV' | 'probe'>): number => scopeFloorV * probe;

/** What a load draws with a meter's burden in series with it, A: a resistance draws less, the others what they are set to. */
export function currentThrough({ demand, bench }: Design, outputV: number): number {
  const left = demand.kind === 'resistance' ? Math.max(0, outputV - bench.burdenV) / outputV : 1;
  return demand.outputA * left;
}

/** Amps ranges are about twice as coarse as volts, and their last digits a thousandth of what they show. */
const AMPS = { times: 2, digits: 0.001 };

/** What a reading of amperes may be off, A. Rule of thumb from the volts ranges of the same meter. */
export const ampsError = ({ meterPct }: Pick<Bench, 'meterPct'>, amps: number): number =>
  (AMPS.times * meterPct * amps) / 100 + AMPS.digits * amps;
