import { throughInstrument, type Instrument } from '@/core/study/instrument';
import type { Trace, Traces } from '@/core/study/scope-shapes';

/** How one trace is looked at. */
export interface Channel {
  id: string;
  shown: boolean;
  /** Volts or amperes a division; null fits the trace. */
  perDivision: number | null;
  /** Takes the mean away. */
  ac: boolean;
  /** What the probe divides by; the screen shows what would be read with the factor forgotten. */
  probe: 1 | 10;
}

export const DIVISIONS = { across: 12, up: 8 } as const;
export const MOST_SHOWN = 4;

/** Line and label of the n-th channel on the screen: colour and dash both tell them apart. */
export const STROKES = [
  { colour: 'var(--volt)', dash: '' },
  { colour: 'var(--ember)', dash: '9 4' },
  { colour: 'var(--ink)', dash: '2 3' },
  { colour: 'var(--tight)', dash: '12 3 2 3' },
] as const;

/** A trace that moves by less of its height than this is level, and shown at a scale of its height. */
const LEVEL = 1e-6;

/** The scale steps of a screen: 1, 2, 5 and their decades. */
export function niceDivision(rough: number): number {
  if (!(rough > 0)) return 1;
  const decade = 10 ** Math.floor(Math.log10(rough) + 1e-9);
  const mantissa = rough / decade;
  return decade * (mantissa <= 1.0001 ? 1 : mantissa <= 2.0001 ? 2 : mantissa <= 5.0001 ? 5 : 10);
}

/** One of the neighbouring scale steps. */
export function stepDivision(value: number, direction: number): number {
  const up = niceDivision(value * 1.01);
  if (direction > 0) return up;
  for (const share of [0.5, 0.4]) {
    const down = niceDivision(value * share);
    if (down < value * 0.99) return down;
  }
  return value / 2;
}

/** A trace as the screen shows it: what the probe passes on, its mean kept or taken away. */
export interface Shown {
  channel: Channel;
  trace: Trace;
  /** Which stroke. */
  place: number;
  values: number[];
  perDivision: number;
  /** Value at the middle of the screen. */
  middle: number;
}

/** @param periodic whether the run repeats every cycle */
export function shownTraces(
  channels: readonly Channel[],
  { traces, stepS, perCycle }: Pick<Traces, 'traces' | 'stepS' | 'perCycle'>,
  instrument: Instrument,
  periodic: boolean,
): Shown[] {
  return channels
    .filter((c) => c.shown)
    .flatMap((channel) => {
      const trace = traces.find((t) => t.id === channel.id);
      return trace ? [{ channel, trace }] : [];
    })
    .slice(0, MOST_SHOWN)
    .map(({ channel, trace }, place): Shown => {
      const mean = channel.ac ? trace.values.reduce((a, b) => a + b, 0) / trace.values.length : 0;
      const probed = trace.values.map((v) => (v - mean) / channel.probe);
      const values = throughInstrument(probed, stepS, instrument, periodic ? perCycle : 0, place + 1);
      let low = Infinity;
      let high = -Infinity;
      for (const v of values) {
        if (v < low) low = v;
        if (v > high) high = v;
      }
      const height = Math.max(Math.abs(low), Math.abs(high));
      const moves = high - low;
      const fit = niceDivision(Math.max(moves > LEVEL * height ? moves / (DIVISIONS.up - 2) : 0.05 * height, 1e-9));
      const perDivision = channel.perDivision ?? fit;
      // Zero stays on the screen when it is near; else the middle is the nearest whole division.
      const half = (DIVISIONS.up / 2) * perDivision;
      const middle =
        channel.ac || (low >= -half && high <= half) ? 0 : Math.round((low + high) / 2 / perDivision) * perDivision;
      return { channel, trace, place, values, perDivision, middle };
    });
}

/** Value of a uniformly sampled trace between its samples. */
export function valueAt(values: readonly number[], stepS: number, t: number): number {
  const x = Math.min(Math.max(t / stepS, 0), values.length - 1);
  const k = Math.min(Math.floor(x), values.length - 2);
  return values[k]! + (x - k) * (values[k + 1]! - values[k]!);
}
