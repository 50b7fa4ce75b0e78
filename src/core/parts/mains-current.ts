import { nextInList } from '@/core/quantity/preferred';

/** Currents on the primary side: rules of thumb by size and core, shown as such. */

export type CoreKind = 'laminated' | 'toroid';

/** Magnetising current as a share of the rated primary current: middle of 5-15 % (E-I) and of 1-3 % (ring). */
const MAGNETISING_SHARE: Record<CoreKind, number> = { laminated: 0.1, toroid: 0.02 };
/** Worst first half cycle against the rated current's peak-to-RMS: 10-20 times (E-I), 30-60 times (ring). */
const INRUSH_TIMES: Record<CoreKind, { usual: number; worst: number }> = {
  laminated: { usual: 10, worst: 20 },
  toroid: { usual: 30, worst: 60 },
};
/** Above this size a ring core wants a soft start, VA. */
export const SOFT_START_ABOVE_VA = 300;

/** Rated current of the primary, A RMS. */
export function ratedPrimary(ratedVA: number, mainsV: number): number {
  return ratedVA / mainsV;
}

/** Typical magnetising current, A RMS. */
export function magnetising(ratedVA: number, mainsV: number, core: CoreKind): number {
  return MAGNETISING_SHARE[core] * ratedPrimary(ratedVA, mainsV);
}

/** Typical inrush of the first half cycle, A peak. Worst when switched at the mains' zero crossing with residual flux. */
export function inrush(ratedVA: number, mainsV: number, core: CoreKind): { usualA: number; worstA: number } {
  const rated = ratedPrimary(ratedVA, mainsV);
  return { usualA: INRUSH_TIMES[core].usual * rated, worstA: INRUSH_TIMES[core].worst * rated };
}

/** Running current of the primary, A RMS: reflected winding current and magnetising current, 90 degrees apart. */
export function runningPrimary(reflectedA: number, magnetisingA: number): number {
  return Math.hypot(reflectedA, magnetisingA);
}

/** Rated currents of miniature fuses (IEC 60127, R10 steps), A. */
export const FUSE_A: readonly number[] = [
  0.05, 0.063, 0.08, 0.1, 0.125, 0.16, 0.2, 0.25, 0.315, 0.4, 0.5, 0.63, 0.8, 1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8,
  10, 12.5, 16,
];

/** How much above the running current a primary fuse is chosen: 1.5-2 times; a ring core 2-3 times for its inrush. */
const FUSE_TIMES: Record<CoreKind, { least: number; most: number }> = {
  laminated: { least: 1.5, most: 2 },
  toroid: { least: 2, most: 3 },
};

/** Melting I2t of a time-lag fuse, A2s at 1 A, growing with the square of its rating: the low end of miniature ones. */
const MELTS_AT_1_A = 2;

/** What melts a time-lag fuse before its wire has given any heat away, A2s: a rule of thumb of its class. */
export function meltingI2t(ratedA: number): number {
  return MELTS_AT_1_A * ratedA ** 2;
}

/** I2t of an inrush half cycle, A2s: half a sine that fills a quarter of the mains period. @param peakA A, @param hz mains */
export function inrushI2t(peakA: number, hz: number): number {
  return (peakA ** 2 * 0.5) / (4 * hz);
}

/**
 * Current a fuse heats by, A RMS: a load that stands at `fullA` for a share of the time and draws `lastingA` on average
 * heats by the root of their product. @param lastingA at most fullA
 */
export function fuseHeatsBy(lastingA: number, fullA: number): number {
  return Math.sqrt(Math.min(lastingA, fullA) * fullA);
}

/** What a primary fuse has to let pass. */
export interface Passing {
  /** Current it heats by over minutes, and the most that is ever drawn for long enough to matter, A RMS. */
  runningA: number;
  fullA: number;
  /** Inrush at its worst, A2s; 0 behind a soft start. */
  inrushI2t: number;
}

export interface FuseAdvice {
  /** The standard value that fits best, A. */
  ratedA: number;
  leastA: number;
  mostA: number;
  /** What decides the least one. */
  because: 'running' | 'full load' | 'inrush';
}

/** The time-lag primary fuse: above what runs by the usual factor, not below full load, not melted by the inrush. */
export function primaryFuse({ runningA, fullA, inrushI2t: rush }: Passing, core: CoreKind): FuseAdvice {
  const { least, most } = FUSE_TIMES[core];
  const needs: [FuseAdvice['because'], number][] = [
    ['running', least * runningA],
    ['full load', fullA],
    ['inrush', Math.sqrt(rush / MELTS_AT_1_A)],
  ];
  const [because, leastA] = needs.reduce((a, b) => (b[1] > a[1] ? b : a));
  // A value a hair under the sum is that value: the sum is no more exact than that.
  const ratedA = nextInList(0.99 * leastA, FUSE_A);
  return { ratedA, leastA, mostA: Math.max(most * Math.max(runningA, fullA / least), ratedA), because };
}

/**
 * Primary current while the secondary is shorted, A RMS: open volts over all copper, reflected. What a fuse has to see.
 * @param ohm winding and primary share as the secondary sees them, hot: then least flows
 */
export function shortedPrimary(openV: number, ohm: number, mainsV: number): { secondaryA: number; primaryA: number } {
  const secondaryA = openV / ohm;
  return { secondaryA, primaryA: (secondaryA * openV) / mainsV };
}

/** A fuse blows within a second or so at this multiple of its rating (IEC 60127, time-lag: 10 s at most at 2.75 times). */
export const FUSE_SURE_TIMES = 2.75;
