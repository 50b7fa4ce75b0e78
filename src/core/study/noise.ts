import { mainModel } from '@/core/design/outputs';
import type { Design } from '@/core/design/design';
import type { Figure } from './figure';
import { rippleHz, type DrawnPoint } from './point';
import { harmonics } from './scope-shapes';

/** Resistance of 10 cm of 0.75 mm2 hook-up wire, ohm. */
export const WIRE_OHM_PER_10CM = 0.0023;

/** One harmonic of the mains on the output. */
export interface HumLine {
  hz: number;
  /** On the rail, as solved, V RMS. */
  railV: number;
  /** What the rejection at that frequency leaves, V RMS. */
  outputV: number;
}

/** What a supply adds to a quiet load: what is computed, what is typical, what is a rule of thumb. */
export interface NoiseReport {
  lines: HumLine[];
  /** All harmonics together on the output, V RMS. */
  humV: number;
  /** The regulator's own noise, V RMS, 10 Hz to 100 kHz; null without one. */
  noiseV: number | null;
  /** Highest charging pulse, A. */
  pulseA: number;
  figures: Figure[];
}

/** Harmonics looked at. */
const ORDERS = 20;

/** Hum and noise of a solved point. @param point nominal or low line, with its waveform */
export function noiseReport(design: Design, point: DrawnPoint): NoiseReport {
  const model = mainModel(design);
  const amplitudes = harmonics(point.wave.railV, ORDERS);
  const lines = amplitudes
    .map((peak, order): HumLine => {
      const hz = order * design.mains.frequencyHz;
      const railV = peak / Math.SQRT2;
      return { hz, railV, outputV: railV * 10 ** (-(model?.rejectionDb(hz) ?? 0) / 20) };
    })
    .slice(1);
  // Where it lets go in the valleys the dip goes through whole.
  const dip = model ? point.outputMaxV - point.outputMinV : 0;
  const humV = Math.hypot(...lines.map((l) => l.outputV), dip / (2 * Math.sqrt(3)));
  const pulseA = Math.max(...point.wave.rectifierA);
  const noiseV = model?.noiseV ?? null;
  return {
    lines,
    humV,
    noiseV,
    pulseA,
    figures: [
      {
        id: 'noise-hum',
        label: 'Hum on the output, RMS',
        value: humV,
        unit: 'V',
        origin: 'simulated',
        expression: 'root of the sum of squares of the harmonics, each through the rejection at its frequency',
        inputs: [
          {
            label: 'strongest on the rail',
            value: Math.max(...lines.map((l) => l.railV)),
            unit: 'V',
            origin: 'simulated',
          },
          ...(model
            ? [
                {
                  label: 'rejection at the ripple’s frequency',
                  value: model.rejectionDb(rippleHz(design)),
                  unit: 'dB' as const,
                  origin: 'typical' as const,
                },
              ]
            : []),
        ],
        source: 'Harmonics of the solved cycle; rejection against frequency typical of the class.',
        assumes: ['Without stray field and without what shared ground wires add.'],
      },
      ...(noiseV === null
        ? []
        : [
            {
              id: 'noise-own',
              label: 'The regulator’s own noise, RMS',
              value: noiseV,
              unit: 'V' as const,
              origin: 'typical' as const,
              expression: 'typical of the family and its output, 10 Hz to 100 kHz',
              inputs: [],
              source: 'Class of the part.',
              assumes: [],
            },
          ]),
      {
        id: 'noise-ground',
        label: 'Every 10 cm of wire that shares the pulse',
        value: pulseA * WIRE_OHM_PER_10CM,
        unit: 'V',
        origin: 'rule of thumb',
        expression: 'highest charging pulse × resistance of the wire',
        inputs: [
          { label: 'charging pulse', value: pulseA, unit: 'A', origin: 'simulated' },
          { label: '10 cm of 0.75 mm²', value: WIRE_OHM_PER_10CM, unit: 'ohm', origin: 'typical' },
        ],
        source: 'No regulator removes it: bring every ground to one star at the reservoir’s minus, behind the pulses.',
        assumes: ['Peak volts between the two ends of that wire.'],
      },
    ],
  };
}

/**
 * Distance at which a stray field has fallen to what is allowed, in the unit of the first: it falls with the third power.
 * @param ratio field now over field allowed, more than 0
 */
export function strayDistance(now: number, ratio: number): number {
  return now * Math.cbrt(ratio);
}
