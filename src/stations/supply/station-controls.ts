import type { Design, Patch } from '@/core/design/design';
import { windingWords } from '@/core/design/words';
import type { Band, Picture } from '@/core/judge/picture';
import type { StationId } from '@/core/judge/verdict';
import { DIODE_CLASSES, diodeClass } from '@/core/parts/diode';
import { regulatorSize } from '@/core/parts/regulator';
import { STANDARD_SECONDARY_V } from '@/core/parts/transformer';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { E12, E6, stepInDecades, stepInList } from '@/core/quantity/preferred';

/** What a station shows in its head and what the arrow keys do to it. `direction` is ±1, or ±10 with Shift. */
export interface StationControl {
  name: string;
  value(design: Design): string;
  /** A short second line from the solution. */
  reading(picture: Picture, band: Band): string;
  step(design: Design, direction: number): Patch | null;
}

/** A tenfold step in a decade series keeps the mantissa. */
function inDecades(value: number, series: readonly number[], direction: number): number {
  return Math.abs(direction) >= 10
    ? Number((value * 10 ** Math.sign(direction)).toPrecision(6))
    : stepInDecades(value, series, direction);
}

const few = (direction: number) => (Math.abs(direction) >= 10 ? 4 * Math.sign(direction) : direction);

export const STATION_CONTROLS: Readonly<Record<StationId, StationControl>> = {
  mains: {
    name: 'Mains',
    value: (d) => formatNominal(d.mains.voltageRms, 'V'),
    reading: (p) => `−${p.design.mains.lowPct}/+${p.design.mains.highPct} %`,
    step: (d, direction) => ({ mains: { lowPct: Math.min(40, Math.max(0, d.mains.lowPct + direction)) } }),
  },
  winding: {
    name: 'Winding',
    value: (d) => windingWords(d),
    reading: (p) => formatNominal(p.design.transformer.ratedVA, 'VA'),
    step: (d, direction) => ({
      transformer: { ratedV: stepInList(d.transformer.ratedV, STANDARD_SECONDARY_V, few(direction)) },
    }),
  },
  rectifier: {
    name: 'Rectifier',
    value: (d) => ({ 'half-wave': 'Half-wave', 'centre-tap': 'Centre tap', bridge: 'Bridge' })[d.rectifier.kind],
    reading: (p) => diodeClass(p.design.rectifier.diode).name.split(',')[0]!.replace('bridge class ', ''),
    step: (d, direction) => {
      const n = DIODE_CLASSES.findIndex((c) => c.id === d.rectifier.diode);
      const next = DIODE_CLASSES[Math.min(DIODE_CLASSES.length - 1, Math.max(0, n + few(direction)))]!;
      return { rectifier: { diode: next.id } };
    },
  },
  reservoir: {
    name: 'Reservoir',
    value: (d) => (d.reservoir.capacitanceF > 0 ? formatNominal(d.reservoir.capacitanceF, 'F') : 'none'),
    reading: (p, band) => {
      const { minV, ripplePeakToPeakV } = p.points[band].solution.rail;
      return `valley ${formatQuantity(minV, 'V')}, ripple ${formatQuantity(ripplePeakToPeakV, 'V')} p-p`;
    },
    step: (d, direction) => {
      const now = d.reservoir.capacitanceF;
      if (now <= 0) return direction > 0 ? { reservoir: { capacitanceF: 100e-6 } } : null;
      return { reservoir: { capacitanceF: Math.min(1, Math.max(1e-7, inDecades(now, E6, direction))) } };
    },
  },
  regulator: {
    name: 'Regulator',
    value: (d) =>
      d.regulator.kind === 'fixed' ? regulatorSize(d.regulator.size).partNumber(d.regulator.outputV) : 'none',
    reading: (p, band) => {
      const { heat, watts } = p.points[band];
      return heat ? `${formatQuantity(watts.regulator, 'W')}, junction ${formatQuantity(heat.junctionC, '°C')}` : '';
    },
    step: (d, direction) => {
      if (d.regulator.kind !== 'fixed') return null;
      return {
        regulator: {
          ...d.regulator,
          outputV: stepInList(d.regulator.outputV, regulatorSize(d.regulator.size).outputsV, few(direction)),
        },
      };
    },
  },
  load: {
    name: 'Load',
    value: (d) => formatNominal(d.demand.outputA, 'A'),
    reading: (p, band) => `ripple ${formatQuantity(p.points[band].outputRippleVpp, 'V')}`,
    step: (d, direction) => ({
      demand: { outputA: Math.min(50, Math.max(1e-4, inDecades(d.demand.outputA, E12, direction))) },
    }),
  },
};
