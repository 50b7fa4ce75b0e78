import { atOnce } from '@/core/quantity/at-once';
import { mainsVolts, modelOf } from '@/core/circuit/feed';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { termsOf } from '@/core/design/source';
import { valuesAt, type Unknown } from '@/core/fit/belief';
import { fitting, type Fit } from '@/core/fit/fit';
import { foretell } from '@/core/fit/foretell';
import { slopeColumns, spreadOf } from '@/core/fit/posterior';
import { copperRatio } from '@/core/parts/transformer';
import { READ_AT_C } from '@/core/parts/transformer-source';
import { sourceSpread } from '@/core/parts/transformer-trust';
import { formatQuantity as q } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import type { Unit } from '@/core/quantity/parse';
import { DesignModel, type Asked } from './design-model';
import { diodeSlopeV, DROP_V, movables, OF_PRINTED, type Movable } from './movables';
import type { FactorId, Factors } from './factors';
import { measuredOf, readingSigma, type Measured } from './measured';
import { soakReading } from './soak';

export interface FittedValue {
  id: FactorId;
  label: string;
  unit: Unit;
  before: number;
  value: number;
  /** Standard deviation, in the unit. */
  sigma: number;
  decidedBy: 'readings' | 'belief';
  /** How it came about. */
  figure: Figure;
}

export interface FitRow {
  id: string;
  label: string;
  unit: Unit;
  read: number;
  computed: number;
  /** (computed − read) in standard deviations of the reading. */
  sigmas: number;
  /** Whether everything else speaks against it: it was left out. */
  wrong: boolean;
}

/** A figure that decides, before and after the fit, with what is left unsure of it. */
export interface Forecast {
  label: string;
  unit: Unit;
  before: number;
  value: number;
  sigma: number;
  /** How it came about. */
  figure: Figure;
}

export interface DesignFit {
  values: FittedValue[];
  rows: FitRow[];
  /** How well all of it hangs together, in a sentence. */
  words: string;
  /** What the readings cannot tell apart, in sentences. */
  entangled: string[];
  forecasts: Forecast[];
  /** Which reading would make the deciding valley surer, and by how much; null where none would. */
  next: string | null;
  /** The design's own measured set. */
  patch: Patch;
}

/** Fewer readings than this are no fit. */
const LEAST_READINGS = 2;

/** Fits a design to everything read of it, in one go. */
export function fitDesign(design: Design, moving: readonly FactorId[]): DesignFit | string {
  return atOnce(fittingDesign(design, moving));
}

/**
 * Fits a design to everything read of it, a step for each fit on the way.
 * @param moving what may move; the rest stays as it is
 * @returns a sentence instead where there is too little to fit
 * @throws SolveError where the design has no answer in a state it was read in
 */
export function* fittingDesign(design: Design, moving: readonly FactorId[]): Generator<void, DesignFit | string> {
  const measured = [...measuredOf(design), ...soakReading(design)];
  if (measured.length < LEAST_READINGS)
    return 'A fit needs two readings or more of winding, reservoir, ripple or metal. Type them here or on the power-up page.';
  // What no reading tells of stays as unsure as it is believed: a forecast has its spread all the same.
  const may = movables(design).filter((m) => moving.includes(m.id));
  const told = may.filter((m) => tells(measured, m.id)).map((m) => m.id);
  if (told.length === 0) return 'Nothing that may move is told of by these readings. Tick what may.';
  const unknowns: Unknown[] = may.map((m) => ({ id: m.id, centre: 1, spread: m.spread }));
  const model = new DesignModel(design);
  const factorsOf = (values: readonly number[]): Factors => Object.fromEntries(may.map((m, n) => [m.id, values[n]!]));
  const found = yield* fitting(unknowns, measured, (values) => model.predict(measured, factorsOf(values)));
  const ask = (list: readonly Asked[]) => (values: readonly number[]) => model.predict(list, factorsOf(values));
  const deciding = decidingStates(design);
  const before = model.predict(
    deciding.map((d) => d.asked),
    {},
  );
  const after = foretell(unknowns, found.posterior, ask(deciding.map((d) => d.asked)));
  const patch = patchOf(design, may, told, found);
  // As the design says it once it has taken the values, to the last digit: the rectifier stays its class then.
  const taken = new DesignModel(applyPatch(design, patch)).predict(
    deciding.map((d) => d.asked),
    {},
  );
  const wrong = new Set(found.outliers);
  const used = measured.length - wrong.size;
  const values = found.fitted.flatMap((f, n) => {
    if (!told.includes(may[n]!.id)) return [];
    const value = fittedValue(design, may[n]!, f);
    return [{ ...value, figure: fittedFigure(value, may[n]!, used) }];
  });
  return {
    values,
    rows: measured.map((m, n) => ({
      id: m.id,
      label: m.label,
      unit: m.unit,
      read: m.value,
      computed: found.posterior.computed[n]!,
      sigmas: found.posterior.sigmas[n]!,
      wrong: wrong.has(n),
    })),
    words: agreement(found, measured.length),
    entangled: [
      ...tooFew(values, used),
      ...found.entangled.map(({ ids }) => {
        const names = ids.map((id) => lowerFirst(may.find((m) => m.id === id)!.label));
        return `These readings cannot tell ${names[0]} from ${names[1]}: only what both do together is sure.`;
      }),
    ],
    forecasts: deciding.map((d, n) => {
      const forecast = {
        label: d.label,
        unit: 'V' as const,
        before: before[n]!,
        value: taken[n]!,
        sigma: after[n]!.sigma,
      };
      return { ...forecast, figure: forecastFigure(forecast, d.asked.state.mainsV) };
    }),
    next: nextWorth(design, unknowns, found, ask, deciding[0]!.asked),
    patch,
  };
}

/** Whether any reading says something of a factor: without a ripple or a valley nothing moves with the capacitance alone. */
function tells(measured: readonly Measured[], id: FactorId): boolean {
  const has = (...quantities: Measured['quantity'][]) => measured.some((m) => quantities.includes(m.quantity));
  switch (id) {
    case 'open':
      return has('winding', 'reservoir', 'rail');
    case 'copper':
      return measured.some((m) => typeof m.state.load === 'number' && m.state.load > 0 && m.quantity !== 'sink');
    case 'capacitance':
      return has('ripple');
    case 'diode':
      return has('reservoir', 'rail');
    case 'sink':
      return has('sink');
  }
}

function decidingStates(design: Design): { label: string; asked: Asked }[] {
  const say = termsOf(design);
  const load = design.demand.outputA;
  return [
    {
      label: `Valley, ${say.low}, full load, reservoir as it is`,
      asked: { quantity: 'valley', state: { mainsV: mainsVolts(design, 'low'), load } },
    },
    {
      label: `Reservoir, ${say.nominal}, full load`,
      asked: { quantity: 'reservoir', state: { mainsV: mainsVolts(design, 'nominal'), load } },
    },
    {
      label: `Peak, ${say.high}, nothing behind it`,
      asked: { quantity: 'peak', state: { mainsV: mainsVolts(design, 'high'), load: 'bare' } },
    },
  ];
}

function fittedValue(design: Design, m: Movable, f: Fit['fitted'][number]): Omit<FittedValue, 'figure'> {
  if (m.id === 'diode') {
    // A saturation current larger by a factor is a drop smaller by the law's slope times its logarithm.
    const slope = diodeSlopeV(design);
    return {
      ...m,
      before: 0,
      value: -slope * Math.log(f.value),
      sigma: slope * f.relativeSigma,
      decidedBy: f.decidedBy,
    };
  }
  return {
    id: m.id,
    label: m.label,
    unit: m.unit,
    before: m.value,
    value: m.value * f.value,
    sigma: m.value * f.value * f.relativeSigma,
    decidedBy: f.decidedBy,
  };
}

/** The working of a fitted value. */
function fittedFigure(v: Omit<FittedValue, 'figure'>, m: Movable, readings: number): Figure {
  return {
    id: `fit-${v.id}`,
    label: v.label,
    value: v.value,
    unit: v.unit,
    origin: 'measured',
    expression:
      'the value at which ((computed − read) / what the instrument may be off)² of all readings and (distance from what was believed / its spread)² come to the least together',
    inputs: [
      { label: 'believed', value: v.before, unit: v.unit },
      v.id === 'diode'
        ? { label: 'sure to', value: DROP_V, unit: 'V' }
        : { label: 'sure to', value: 100 * m.spread, unit: '%' },
      { label: 'readings', value: readings, unit: '', origin: 'measured' },
    ],
    source: 'Levenberg and Marquardt’s method, every step solved by the program’s own solver.',
    assumes: [
      v.decidedBy === 'readings'
        ? 'The readings took more than half of what was unsure of it.'
        : 'The readings say little of it: what is believed of its kind decides.',
    ],
  };
}

/** The working of what a fitted design says of itself. */
function forecastFigure(f: Omit<Forecast, 'figure'>, mainsV: number): Figure {
  return {
    id: `forecast-${f.label}`,
    label: f.label,
    value: f.value,
    unit: f.unit,
    origin: 'simulated',
    expression: 'the design solved once it has taken the fitted values',
    inputs: [
      { label: 'mains', value: mainsV, unit: 'V' },
      { label: 'before the fit', value: f.before, unit: f.unit },
      { label: 'sure to', value: f.sigma, unit: f.unit },
    ],
    source: 'Periodic steady state; the spread from the covariance of the fitted values.',
    assumes: [],
  };
}

/** Which values belief decides where there are fewer readings than values. */
function tooFew(values: readonly FittedValue[], used: number): string[] {
  const believed = values.filter((v) => v.decidedBy === 'belief').map((v) => lowerFirst(v.label));
  if (used >= values.length || believed.length === 0) return [];
  return [
    `${used} ${used === 1 ? 'reading' : 'readings'} for ${values.length} values: what is believed of ${believed.join(' and ')} decides there.`,
  ];
}

/** Chi-square in words: what is left over against what the instruments may be off. */
function agreement({ posterior, outliers }: Fit, count: number): string {
  const used = count - outliers.length;
  const off = Math.sqrt(posterior.chiSquare / Math.max(1, used));
  const named =
    outliers.length === 0
      ? ''
      : outliers.length === 1
        ? ' One reading is left out.'
        : ` ${outliers.length} readings are left out.`;
  if (off < 0.5) return `They agree better than your instruments promise.${named}`;
  if (off < 1.5) return `They agree as well as your instruments allow.${named}`;
  if (off < 3)
    return `They agree less well than your instruments promise: something is a little other than this model.${named}`;
  return `They do not agree with this model: something is wrong that no value cures. Look for a fault.${named}`;
}

/** Loads a next reading is looked for at, as shares of the full one. */
const NEXT_SHARES = [0.05, 0.25, 0.5, 0.75, 1];
/** A reading that takes less off the spread than this is not worth the walk. */
const WORTH = 0.1;

/** The one more reading that most shrinks what is unsure of the deciding valley. */
function nextWorth(
  design: Design,
  unknowns: readonly Unknown[],
  found: Fit,
  ask: (list: readonly Asked[]) => (values: readonly number[]) => number[],
  deciding: Asked,
): string | null {
  const mainsV = mainsVolts(design, 'nominal');
  const candidates: Asked[] = NEXT_SHARES.flatMap((share) =>
    (['reservoir', 'ripple'] as const).map((quantity) => ({
      quantity,
      state: { mainsV, load: share * design.demand.outputA },
    })),
  );
  const list = [deciding, ...candidates];
  const { posterior } = found;
  const values = ask(list)(valuesAt(unknowns, posterior.z));
  const columns = slopeColumns(unknowns, posterior.z, values, ask(list));
  const slopes = list.map((_, n) => columns.map((c) => c[n]!));
  const now = spreadOf(slopes[0]!, posterior.covariance);
  const ranked = candidates
    .map((asked, k) => {
      const own = slopes[k + 1]!;
      const sigma = readingSigma(design, asked.quantity as Measured['quantity'], values[k + 1]!);
      let shared = 0;
      slopes[0]!.forEach((a, i) => own.forEach((b, j) => (shared += a * posterior.covariance[i]![j]! * b)));
      const variance = now ** 2 - shared ** 2 / (sigma ** 2 + spreadOf(own, posterior.covariance) ** 2);
      return { asked, left: Math.sqrt(Math.max(0, variance)) };
    })
    .sort((a, b) => a.left - b.left);
  const { asked, left } = ranked[0]!;
  if (left > (1 - WORTH) * now) return null;
  const what = asked.quantity === 'ripple' ? 'the ripple' : 'the reservoir’s volts';
  return `${what} at ${q(asked.state.load as number, 'A')}: the valley at ${termsOf(design).low} would be sure to ±${q(left, 'V', 2)} instead of ±${q(now, 'V', 2)}`;
}

/** The values as the design's own, with what is left unsure as its tolerances. */
function patchOf(design: Design, may: readonly Movable[], told: readonly FactorId[], found: Fit): Patch {
  const of = (id: FactorId) => {
    const n = told.includes(id) ? may.findIndex((m) => m.id === id) : -1;
    return n < 0 ? null : found.fitted[n]!;
  };
  const [open, copper, capacitance, sink] = [of('open'), of('copper'), of('capacitance'), of('sink')];
  const model = modelOf(design);
  const { transformer, mains, reservoir, heat } = design;
  const ends = (relativeSigma: number) => Number(Math.max(0.1, (100 / OF_PRINTED) * relativeSigma).toPrecision(2));
  const rounded = (value: number) => Number(value.toPrecision(4));
  const spread = sourceSpread(transformer.source);
  return {
    ...(open || copper
      ? {
          transformer: {
            source: {
              kind: 'fitted',
              openV: rounded(model.openCircuitV * (open?.value ?? 1)),
              mainsV: mains.voltageRms,
              ownOhm: rounded(model.ownColdOhm * copperRatio(READ_AT_C) * (copper?.value ?? 1)),
              sharedOhm: rounded(model.sharedColdOhm * copperRatio(READ_AT_C) * (copper?.value ?? 1)),
              voltsPct: open ? ends(open.relativeSigma) : spread.voltsPct,
              ohmPct: copper ? ends(copper.relativeSigma) : spread.ohmPct,
            },
          },
        }
      : {}),
    ...(capacitance
      ? {
          reservoir: {
            capacitanceF: rounded(reservoir.capacitanceF * capacitance.value),
            tolerancePct: Math.min(60, Math.max(1, ends(capacitance.relativeSigma))),
          },
        }
      : {}),
    ...(sink ? { heat: { sinkKPerW: rounded(heat.sinkKPerW! * sink.value) } } : {}),
  } as Patch;
}

const lowerFirst = (text: string) => text[0]!.toLowerCase() + text.slice(1);
