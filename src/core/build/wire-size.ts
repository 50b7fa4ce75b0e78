import type { NetRole } from '@/core/netlist/netlist';
import type { Figure } from '@/core/study/figure';

/** Copper at 20 °C, ohm mm2 per m. */
export const WIRE_OHM_MM2_PER_M = 0.0172;
/** What a wire in a bundle carries for long, A RMS a mm2, and the least that is handled at all, mm2. Rules of thumb. */
const BUNDLE_A_PER_MM2 = 4;
const LEAST_MM2 = 0.25;
/** What mains leads have at least, mm2 (18 AWG). */
const MAINS_MM2 = 0.75;
/** Most a wire may lose: so much of its rail, and never more than this, V. */
const DROP_SHARE = 0.01;
const DROP_V = 0.05;

export interface WireSize {
  mm2: number;
  /** The gauge that is thick enough. */
  awg: number;
}

/** Sections wire is sold in, mm2, and gauges. */
const METRIC_MM2 = [0.25, 0.34, 0.5, 0.75, 1, 1.5, 2.5, 4, 6, 10, 16, 25, 35, 50, 70, 95, 120];
const GAUGES: readonly (readonly [awg: number, mm2: number])[] = [
  [24, 0.205],
  [22, 0.326],
  [20, 0.518],
  [18, 0.823],
  [16, 1.31],
  [14, 2.08],
  [12, 3.31],
  [10, 5.26],
  [8, 8.37],
  [6, 13.3],
  [4, 21.2],
  [2, 33.6],
  [1, 42.4],
  [0, 53.5],
];

/**
 * The thickness of a wire by what it carries and what it may lose.
 * @param rmsA what flows, A RMS
 * @param railV the output it belongs to, V
 * @param lengthM how long it is about, m
 */
export function sectionFor(
  role: NetRole,
  rmsA: number,
  railV: number,
  lengthM: number,
): { figure: Omit<Figure, 'id'>; size: WireSize } {
  const carries = rmsA / BUNDLE_A_PER_MM2;
  const mains = role === 'mains' || role === 'earth';
  const mayDrop = Math.min(DROP_SHARE * railV, DROP_V);
  const loses = mains ? 0 : (WIRE_OHM_MM2_PER_M * lengthM * rmsA) / mayDrop;
  const needed = Math.max(carries, loses, mains ? MAINS_MM2 : LEAST_MM2);
  const mm2 = METRIC_MM2.find((s) => s >= needed - 1e-9) ?? METRIC_MM2.at(-1)!;
  const awg = (GAUGES.find(([, s]) => s >= needed - 1e-9) ?? GAUGES.at(-1)!)[0];
  return {
    size: { mm2, awg },
    figure: {
      label: 'Section, mm²',
      value: mm2,
      unit: '',
      origin: 'rule of thumb',
      expression: mains
        ? 'the next above the greater of 4 A a mm² and 0.75 mm²'
        : 'the next above the greatest of 4 A a mm², what loses the least allowed volts, and 0.25 mm²',
      inputs: [
        { label: 'flows, RMS', value: rmsA, unit: 'A', origin: 'simulated' },
        { label: 'by what it carries, mm²', value: carries, unit: '', origin: 'rule of thumb' },
        ...(mains
          ? []
          : [
              { label: 'may lose', value: mayDrop, unit: 'V' as const, origin: 'rule of thumb' as const },
              {
                label: `by what it loses over ${lengthM} m, mm²`,
                value: loses,
                unit: '' as const,
                origin: 'formula' as const,
              },
            ]),
      ],
      source: 'In a bundle 4 A RMS a mm²; at most 1 % of the rail or 50 mV lost. Copper 17.2 mΩ·mm²/m.',
      assumes: [
        mains
          ? 'Mains insulation; earth at least as thick.'
          : `About ${lengthM} m: measured in the box it may be less.`,
      ],
    },
  };
}
