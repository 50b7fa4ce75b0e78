import type { Consumer, LoadTable, OutputId } from '@/core/design/design';

/** Currents one output has to give, A. */
export interface RailSums {
  /** Everything standing by. */
  standingA: number;
  /** The mean over minutes: what parts heat by. */
  lastingA: number;
  /** The most at any time: what the valley has to bear. */
  peakA: number;
}

/**
 * Sums of a load table for one output. Lasting: each consumer's standing current, and for its duty the typical one
 * instead. Peak: everything at its typical current, and of what the peaks add on top the share that falls together. Of
 * consumers that are never all on, the others stand by. All with the reserve on top.
 */
export function railSums({ consumers, togetherPct, reservePct }: LoadTable, output: OutputId): RailSums {
  const reserve = 1 + reservePct / 100;
  let standingA = 0;
  let lastingA = 0;
  let typicalA = 0;
  let onTopA = 0;
  for (const c of consumers) {
    if (c.output !== output) continue;
    const duty = c.dutyPct / 100;
    const on = Math.min(c.on ?? c.count, c.count);
    const waitingA = (c.count - on) * c.standingA;
    // Where a line contradicts itself it counts with the more it says; what is wrong with it is said beside it.
    const workingA = Math.max(c.typicalA, c.standingA);
    standingA += c.count * c.standingA;
    lastingA += on * (c.standingA * (1 - duty) + workingA * duty) + waitingA;
    typicalA += on * workingA + waitingA;
    onTopA += on * Math.max(0, c.peakA - workingA);
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
  if (c.on !== null && c.on > c.count) return `${name}: more of them are on than there are.`;
  if (c.peakA > 0 && c.peakA < c.typicalA) return `${name}: its peak is below its typical current.`;
  return null;
}

/** How hard the kinds of load that surge do so at first, against their running current. Typical. */
export const START_SURGE = { motor: { factor: 5, tauS: 0.15 }, lamp: { factor: 10, tauS: 0.03 } } as const;

/** What of a rail's current surges at switch-on: the factor on the whole current, and its time constant, s. */
export function startSurge({ consumers }: LoadTable, output: OutputId): { factor: number; tauS: number } | null {
  let all = 0;
  let extra = 0;
  let weighted = 0;
  for (const c of consumers) {
    if (c.output !== output) continue;
    const on = Math.min(c.on ?? c.count, c.count);
    const workingA = Math.max(c.typicalA, c.standingA);
    const amps = on * workingA;
    all += amps;
    const usual = c.kind === 'motor' || c.kind === 'lamp' ? START_SURGE[c.kind] : null;
    if (c.startA === null && !usual) continue;
    const more = c.startA === null ? amps * (usual!.factor - 1) : on * Math.max(0, c.startA - workingA);
    extra += more;
    weighted += more * (usual ?? START_SURGE.motor).tauS;
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
