import { dice } from '@/core/quantity/dice';

/** What the instrument behind the probe does to a signal. */
export interface Instrument {
  /** Where a single pole has taken 3 dB, Hz; null for one that passes everything. */
  bandwidthHz: number | null;
  /** Noise referred to its input, V RMS (a current probe counts as 1 V/A). */
  noiseRms: number;
}

export const IDEAL_INSTRUMENT: Instrument = { bandwidthHz: null, noiseRms: 0 };

/**
 * A uniformly sampled signal as an instrument shows it: a single pole, then white noise. The noise of a seed is always
 * the same, so that a picture can be repeated.
 * @param stepS between samples, s
 * @param settle samples run through the pole beforehand (a whole cycle where the signal repeats), so that it does not start from nothing
 */
export function throughInstrument(
  values: readonly number[],
  stepS: number,
  { bandwidthHz, noiseRms }: Instrument,
  settle: number,
  seed: number,
): number[] {
  let out: number[] = values.slice();
  if (bandwidthHz !== null) {
    const share = 1 - Math.exp(-2 * Math.PI * bandwidthHz * stepS);
    let y = values[0] ?? 0;
    for (let n = 0; n < Math.min(settle, values.length); n++) y += share * (values[n]! - y);
    out = out.map((v) => (y += share * (v - y)));
  }
  if (noiseRms > 0) {
    const { normal } = dice(seed);
    out = out.map((v) => v + noiseRms * normal());
  }
  return out;
}

/**
 * Amplitude white noise is expected to leave in one line of the spectrum of a cycle, peak: below it nothing can be read.
 * @param perCycle samples in the cycle
 */
export function noiseLine(noiseRms: number, perCycle: number): number {
  // The amplitude of one line is Rayleigh distributed with sigma*sqrt(2/N); its mean is sqrt(pi/2) times that.
  return noiseRms * Math.sqrt(Math.PI / perCycle);
}
