import type { Design } from '@/core/design/design';
import type { Unknown } from '@/core/fit/belief';
import { foretell, type Foretold } from '@/core/fit/foretell';
import { posterior } from '@/core/fit/posterior';
import { capitalised } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import { READ_AT_C } from '@/core/parts/transformer-source';
import { windingS } from '@/core/study/time-constants';
import { DesignModel, type Asked } from './design-model';
import type { Factors } from './factors';
import { movables } from './movables';
import { measuredOf, type Measured } from './measured';
import { oddRows } from './odd-rows';
import { mainsToday } from './readings';
import { warmCopperC } from './row-warmth';

/** The computed load line a measured one is held against. */
export interface ComputedLine {
  /** Mains, or open volts of the source, it is drawn at, V. */
  mainsV: number;
  line: (Foretold & { loadA: number })[];
  /** What each reading of the load line is against the design at its own mains and load, by the reading's id. */
  at: Record<string, Against>;
  /** What looks mistyped, in sentences. */
  odd: string[];
  /** What the reservoir falls by at full load while the copper warms; null where nothing has copper. */
  droop: Figure | null;
}

/** One reading against what the design says of it. */
export interface Against {
  value: number;
  /** Whether it lies where one of twenty sound builds read with this instrument would. */
  outside: boolean;
  /** Read less computed. */
  figure: Figure;
}

/** So many standard deviations of parts and instrument together hold nineteen of twenty. */
const NINETEEN_OF_TWENTY = 2;

function against(m: Measured, computed: Foretold): Against {
  const sigma = Math.hypot(computed.sigma, m.sigma);
  const off = m.value - computed.value;
  const apart = m.unit === '°C' ? 'K' : m.unit;
  return {
    value: computed.value,
    outside: Math.abs(off) > NINETEEN_OF_TWENTY * sigma,
    figure: {
      id: m.id,
      label: `${capitalised(m.label)}: off the design`,
      value: off,
      unit: apart,
      origin: 'measured',
      expression: 'read − what the design says at that row’s own volts and load',
      inputs: [
        { label: 'read', value: m.value, unit: m.unit, origin: 'measured' },
        { label: 'design', value: computed.value, unit: m.unit, origin: 'simulated' },
        { label: 'its parts leave ±', value: computed.sigma, unit: apart },
        { label: 'the instrument ±', value: m.sigma, unit: apart },
      ],
      source: 'Periodic steady state of the design as it stands.',
      assumes: ['Told as off where it is more than twice both together.'],
    },
  };
}

const SHARES = [0, 0.02, 0.05, 0.1, 0.2, 0.35, 0.5, 0.65, 0.8, 0.9, 1, 1.1];

/**
 * The mean at the reservoir against load, with the spread that what is known of the parts leaves; and the same for every
 * reading at its own mains volts.
 * @throws SolveError where the design has no answer in one of the states
 */
export function computedLine(design: Design): ComputedLine {
  const may = movables(design);
  const unknowns: Unknown[] = may.map((m) => ({ id: m.id, centre: 1, spread: m.spread }));
  const believed = posterior(unknowns, [], () => []);
  const model = new DesignModel(design);
  const mainsV = mainsToday(design);
  const rows = measuredOf(design).filter((m) => m.id.startsWith('row-'));
  const most = Math.max(...design.bench.loadLine.map((r) => r.loadA), design.demand.outputA);
  const line: Asked[] = SHARES.map((share) => ({ quantity: 'reservoir', state: { mainsV, load: share * most } }));
  const factorsOf = (values: readonly number[]): Factors => Object.fromEntries(may.map((m, n) => [m.id, values[n]!]));
  const all = foretell(unknowns, believed, (values) => model.predict([...line, ...rows], factorsOf(values)));
  const at = Object.fromEntries(rows.map((r, n) => [r.id, against(r, all[line.length + n]!)]));
  return {
    mainsV,
    line: line.map((l, n) => ({ loadA: l.state.load as number, ...all[n]! })),
    at,
    odd: oddRows(design, at),
    droop: droopOf(design, model, mainsV),
  };
}

/** How far full load pulls the reservoir down after it has been put on, and how long that takes. */
function droopOf(design: Design, model: DesignModel, mainsV: number): Figure | null {
  if (design.source.kind !== 'mains') return null;
  const endC = warmCopperC(design);
  const load = design.demand.outputA;
  const at = (copperC: number): Asked => ({ quantity: 'reservoir', state: { mainsV, load, copperC } });
  const [cold, warm] = model.predict([at(READ_AT_C), at(endC)], {});
  return {
    id: 'droop',
    label: 'Falls while the copper warms',
    value: cold! - warm!,
    unit: 'V',
    origin: 'simulated',
    expression: 'reservoir at full load, copper cold − copper warm',
    inputs: [
      { label: 'copper cold', value: cold!, unit: 'V', origin: 'simulated' },
      { label: 'copper warm', value: warm!, unit: 'V', origin: 'simulated' },
      { label: 'copper, in the end', value: endC, unit: '°C' },
      { label: 'two thirds of it in', value: windingS(design.transformer.ratedVA), unit: 's', origin: 'rule of thumb' },
    ],
    source: 'Periodic steady state at both; the pace follows the size of the core.',
    assumes: [`Copper starts at ${READ_AT_C} °C.`],
  };
}
