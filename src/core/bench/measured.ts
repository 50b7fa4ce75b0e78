import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { formatQuantity as q } from '@/core/quantity/format';
import type { Unit } from '@/core/quantity/parse';
import { rowWarmth, type MetalShare } from './row-warmth';
import { floorV } from './own-instruments';
import { judgedWhenFed, latestReadings, mainsForReadings } from './readings';
import { LIGHT, pointNames } from './stages';
import type { PointId } from './test-point';

/** What is read of a supply that its model has a figure for. */
export type Quantity = 'winding' | 'reservoir' | 'ripple' | 'rail' | 'sink';

/** What the supply was doing while it was read. */
export interface MeasuredState {
  mainsV: number;
  /** Amperes out of the main output, the other outputs in step; 'bare' with nothing behind the reservoir. */
  load: number | 'bare' | 'open';
  /** What the copper was at, °C; as the design takes it where left out. */
  copperC?: number;
  /** What the loads before and now had left in the regulator's metal; all of this load's rise where left out. */
  metal?: readonly MetalShare[];
}

/** One reading a model is held against, whichever page it was typed on. */
export interface Measured {
  id: string;
  label: string;
  quantity: Quantity;
  unit: Unit;
  state: MeasuredState;
  value: number;
  /** Standard deviation of what the instrument may be off, in the unit. */
  sigma: number;
}

/** A meter's printed error is taken as twice its standard deviation: nineteen of twenty lie inside. */
const PRINTED = 0.5;
/** What is left unsaid of a state: mains that move while one reads, a load that is not quite what it says. */
const STATE_SHARE = 0.001;
/** Reading a ripple off a screen: a twentieth of it, and what the trace is thick. */
const RIPPLE = { share: 0.05, leastV: 0.002 };
/** No thermometer held to metal is nearer than that. */
const THERMOMETER_K = 0.5;

/** Standard deviation of one reading with the person's own instrument. */
export function readingSigma({ bench }: Pick<Design, 'bench'>, quantity: Quantity, value: number): number {
  if (quantity === 'ripple') return Math.hypot(RIPPLE.share * value, Math.max(RIPPLE.leastV, floorV(bench)));
  if (quantity === 'sink') return Math.max(THERMOMETER_K, bench.thermometerK);
  const printed = (Math.abs(value) * bench.meterPct) / 100 + bench.meterDigitsV;
  return Math.hypot(PRINTED * printed, STATE_SHARE * value, 1e-4);
}

/** What of the power-up tells something of transformer, rectifier, reservoir and sink. */
const OF_POINT: Readonly<Partial<Record<PointId, { quantity: Quantity; load: 'bare' | 'open' | 'light' | 'full' }>>> = {
  'secondary-open': { quantity: 'winding', load: 'open' },
  'reservoir-idle': { quantity: 'reservoir', load: 'bare' },
  'reservoir-light': { quantity: 'reservoir', load: 'light' },
  'reservoir-loaded': { quantity: 'reservoir', load: 'full' },
  'reservoir-ripple': { quantity: 'ripple', load: 'full' },
  'sink-warm': { quantity: 'sink', load: 'full' },
};

const ROW_COLUMNS = [
  ['reservoirV', 'reservoir', 'reservoir', 'V'],
  ['rippleV', 'ripple', 'ripple', 'V'],
  ['outputV', 'rail', 'output', 'V'],
  ['sinkC', 'sink', 'metal', '°C'],
] as const;

/**
 * Every reading of a design its model has a figure for: those of the power-up, the newest of each point, and those of the
 * load line. An output behind a regulator tells nothing of what is ahead of it, and is left to the power-up's windows; what
 * was read through a series lamp is left out, for its resistance is not known.
 */
export function measuredOf(design: Design): Measured[] {
  const regulated = mainModel(design) !== null;
  const mainsFor = mainsForReadings(design);
  const full = design.demand.outputA;
  const names = pointNames(design);
  const points = [...latestReadings(design.bench.readings)].flatMap(([point, { value, fedFrom }]): Measured[] => {
    const of = judgedWhenFed(design, fedFrom) ? OF_POINT[point as PointId] : undefined;
    // What the mains transformer gives open is what the source itself is where there is none.
    if (!of || (of.quantity === 'winding' && design.source.kind !== 'mains')) return [];
    return [
      {
        id: point,
        label: names[point] ?? point,
        quantity: of.quantity,
        unit: of.quantity === 'sink' ? '°C' : 'V',
        state: {
          mainsV: mainsFor(point as PointId),
          load: of.load === 'full' ? full : of.load === 'light' ? LIGHT * full : of.load,
        },
        value,
        sigma: readingSigma(design, of.quantity, value),
      },
    ];
  });
  const warmth = rowWarmth(design);
  const rows = design.bench.loadLine.flatMap((row, n) =>
    !judgedWhenFed(design, row.fedFrom)
      ? []
      : ROW_COLUMNS.flatMap(([key, quantity, words, unit]): Measured[] => {
          const value = row[key];
          if (value === null || (quantity === 'rail' && regulated)) return [];
          return [
            {
              id: `row-${n}-${key}`,
              label: `row ${n + 1}, ${q(row.loadA, 'A')}, ${words}`,
              quantity,
              unit,
              state: { mainsV: row.mainsV, load: row.loadA, ...warmth[n] },
              value,
              sigma: readingSigma(design, quantity, value),
            },
          ];
        }),
  );
  return [...points, ...rows];
}
