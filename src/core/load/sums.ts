import type { Consumer, LoadTable } from '@/core/design/design';

/** Currents one rail has to give, A. */
export interface RailSums {
  /** Everything standing by. */
  standingA: number;
  /** The mean over minutes: what parts heat by. */
  lastingA: number;
  /** The most at any time: what the valley has to bear. */
  peakA: number;
}

/**
 * Sums of a load table. Lasting: each consumer's standing current, and for its duty the typical one instead. Peak:
 * everything at its typical current, and of what the peaks add on top the share that falls together. Both with the
 * reserve on top.
 */
export function railSums({ consumers, togetherPct, reservePct }: LoadTable, rail: Consumer['rail']): RailSums {
  const reserve = 1 + reservePct / 100;
  let standingA = 0;
  let lastingA = 0;
  let typicalA = 0;
  let onTopA = 0;
  for (const c of consumers) {
    if (c.rail !== rail) continue;
    const duty = c.dutyPct / 100;
    standingA += c.count * c.standingA;
    lastingA += c.count * (c.standingA * (1 - duty) + c.typicalA * duty);
    typicalA += c.count * Math.max(c.typicalA, c.standingA);
    onTopA += c.count * Math.max(0, c.peakA - Math.max(c.typicalA, c.standingA));
  }
  return {
    standingA: reserve * standingA,
    lastingA: reserve * lastingA,
    peakA: reserve * (typicalA + (togetherPct / 100) * onTopA),
  };
}

/** The first thing wrong with a consumer, as a sentence, or null. */
export function consumerFault(c: Consumer): string | null {
  const name = c.name.trim() || 'This line';
  if (c.standingA > c.typicalA && c.typicalA > 0) return `${name}: stands by at more than its typical current.`;
  if (c.peakA > 0 && c.peakA < c.typicalA) return `${name}: its peak is below its typical current.`;
  return null;
}

/** How hard the kinds of load that surge do so at first, against their running current. Typical. */
export const START_SURGE = { motor: { factor: 5, tauS: 0.15 }, lamp: { factor: 10, tauS: 0.03 } } as const;

/** What of a rail's current surges at switch-on: the factor on the whole current, and its time constant, s. */
export function startSurge({ consumers }: LoadTable, rail: Consumer['rail']): { factor: number; tauS: number } | null {
  let all = 0;
  let extra = 0;
  let weighted = 0;
  for (const c of consumers) {
    if (c.rail !== rail) continue;
    const amps = c.count * Math.max(c.typicalA, c.standingA);
    all += amps;
    if (c.kind !== 'motor' && c.kind !== 'lamp') continue;
    const more = amps * (START_SURGE[c.kind].factor - 1);
    extra += more;
    weighted += more * START_SURGE[c.kind].tauS;
  }
  return extra > 0 && all > 0 ? { factor: 1 + extra / all, tauS: weighted / extra } : null;
}

/** What a signal chain lets a rail carry. */
export interface HumAsk {
  /** Level at the load's input, V RMS. */
  sourceV: number;
  gainDb: number;
  /** How far below the signal hum has to stay, dB. */
  belowDb: number;
  /** What the load itself takes away of what is on its rail, dB. */
  rejectionDb: number;
}

/**
 * Hum budget: hum counts as if it came in with the signal, so gain lifts both alike.
 * @returns what may stand at the input and on the rail, and the signal and hum at the output, V RMS
 */
export function humBudget({ sourceV, gainDb, belowDb, rejectionDb }: HumAsk) {
  const atInputV = sourceV * 10 ** (-belowDb / 20);
  const gain = 10 ** (gainDb / 20);
  return { atInputV, railV: atInputV * 10 ** (rejectionDb / 20), signalOutV: sourceV * gain, humOutV: atInputV * gain };
}

/** Peak to peak of a hum of this RMS with the shape of a sawtooth, as ripple nearly is: 2*sqrt(3). */
export const RIPPLE_PP_PER_RMS = 2 * Math.sqrt(3);
