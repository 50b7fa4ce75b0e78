import { ofDiodeClass } from '@/core/design/diode-edit';
import { mainModel } from '@/core/design/outputs';
import { withWindingVolts } from '@/core/design/winding-edit';
import { arrangementOf, dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { sourceOhm, shiftedSource } from '@/core/parts/dc-source';
import type { Design, FilterStep, Patch } from '@/core/design/design';
import { bankWords, isSplit, windingWords } from '@/core/design/words';
import type { Band, Picture } from '@/core/picture/picture';
import type { StationId } from '@/core/judge/verdict';
import { ARRANGEMENTS, RECTIFIER_KINDS } from '@/core/parts/arrangements';
import { diodeClass, JUNCTION_CLASSES } from '@/core/parts/diode';
import { steppedOutput } from '@/core/design/regulator-edit';
import { STANDARD_SECONDARY_V } from '@/core/parts/transformer';
import type { FieldPath } from '@/core/design/limits';
import { capitalised, formatNominal, formatQuantity } from '@/core/quantity/format';
import { E12, E6, stepInDecades, stepInList } from '@/core/quantity/preferred';

/** What a station shows in its head and what the arrow keys do to it. `direction` is ±1, or ±10 with Shift. */
export interface StationControl {
  name(design: Design): string;
  value(design: Design): string;
  /** A short second line from the solution. */
  reading(picture: Picture, band: Band): string;
  step(design: Design, direction: number): Patch | null;
  /** The main value as one number that can be typed over where it stands; null where it is none. */
  typed?(design: Design): TypedValue | null;
}

/** A number that is typed over in place: which field it is, and what another value does to the design. */
export interface TypedValue {
  path: FieldPath;
  value: number;
  patch(value: number): Patch;
}

/** A tenfold step in a decade series keeps the mantissa. */
function inDecades(value: number, series: readonly number[], direction: number): number {
  return Math.abs(direction) >= 10
    ? Number((value * 10 ** Math.sign(direction)).toPrecision(6))
    : stepInDecades(value, series, direction);
}

function stepWords(step: FilterStep): string {
  if (step.kind === 'choke') return formatNominal(step.inductanceH, 'H');
  return step.kind === 'resistor' ? formatNominal(step.resistanceOhm, 'ohm') : formatNominal(step.capacitanceF, 'F');
}

function chokeReading(picture: Picture, band: Band, side: 'before'): string {
  const { design, points } = picture;
  const at = design.filter[side].findIndex((s) => s.kind === 'choke');
  const choke = at < 0 ? undefined : points[band].solution.elements[0]?.[at];
  if (!choke) return '';
  return choke.minA <= 1e-6 * choke.maxA ? 'current ceases' : `never below ${formatQuantity(choke.minA, 'A')}`;
}

/** Steps the part of a filter that decides: its choke, else its resistor, else its capacitor. */
function stepMainPart(design: Design, side: 'before' | 'after', direction: number): Patch | null {
  const list = design.filter[side];
  const kind = (['choke', 'resistor', 'capacitor'] as const).find((k) => list.some((s) => s.kind === k));
  const at = list.findIndex((s) => s.kind === kind);
  if (at < 0) return null;
  const next = list.map((s, n): FilterStep => {
    if (n !== at) return s;
    if (s.kind === 'choke') return { ...s, inductanceH: clampStep(s.inductanceH, E12, direction, 1e-6, 200) };
    if (s.kind === 'resistor') return { ...s, resistanceOhm: clampStep(s.resistanceOhm, E12, direction, 1e-3, 1e6) };
    return { ...s, capacitanceF: clampStep(s.capacitanceF, E6, direction, 1e-9, 1) };
  });
  return { filter: { [side]: next } };
}

const clampStep = (value: number, series: readonly number[], direction: number, least: number, most: number) =>
  Math.min(most, Math.max(least, inDecades(value, series, direction)));

const few = (direction: number) => (Math.abs(direction) >= 10 ? 4 * Math.sign(direction) : direction);

export const STATION_CONTROLS: Readonly<Record<StationId, StationControl>> = {
  mains: {
    name: (d) => capitalised(termsOf(d).source),
    value: (d) =>
      d.source.kind === 'mains'
        ? formatNominal(d.mains.voltageRms, 'V')
        : formatNominal(d.source.kind === 'battery' ? d.source.freshV : d.source.ratedV, 'V'),
    reading: ({ design: { source, mains }, life }) =>
      source.kind === 'mains'
        ? `−${mains.lowPct}/+${mains.highPct} %`
        : life
          ? `lasts ${formatQuantity(life.hours, 'h')}`
          : `±${source.kind === 'adapter' ? source.spreadPct : 0} %`,
    step: ({ source, mains }, direction) => {
      if (source.kind === 'mains')
        return { mains: { voltageRms: Math.min(480, Math.max(12, mains.voltageRms + direction)) } };
      return { source: shiftedSource(source, 0.1 * direction) };
    },
    typed: ({ source, mains }) => {
      if (source.kind === 'mains')
        return {
          path: 'mains.voltageRms',
          value: mains.voltageRms,
          patch: (voltageRms) => ({ mains: { voltageRms } }),
        };
      return source.kind === 'battery'
        ? { path: 'source.freshV', value: source.freshV, patch: (freshV) => ({ source: { ...source, freshV } }) }
        : { path: 'source.ratedV', value: source.ratedV, patch: (ratedV) => ({ source: { ...source, ratedV } }) };
    },
  },
  winding: {
    name: (d) => (dcSourceOf(d) ? 'Inside it' : 'Winding'),
    value: (d) => {
      const dc = dcSourceOf(d);
      return dc ? formatNominal(Number(sourceOhm(dc).toPrecision(3)), 'ohm') : windingWords(d);
    },
    reading: ({ design, points }, band) =>
      dcSourceOf(design)
        ? `gives ${formatQuantity(points[band].solution.windings[0]!.rmsA, 'A')}`
        : formatNominal(design.transformer.ratedVA, 'VA'),
    step: (d, direction) =>
      dcSourceOf(d)
        ? null
        : withWindingVolts(d, stepInList(d.transformer.ratedV, STANDARD_SECONDARY_V, few(direction))),
    typed: (d) =>
      dcSourceOf(d)
        ? null
        : { path: 'transformer.ratedV', value: d.transformer.ratedV, patch: (v) => withWindingVolts(d, v) },
  },
  rectifier: {
    name: (d) => (dcSourceOf(d) ? 'Diode' : 'Rectifier'),
    value: (d) => {
      const dc = dcSourceOf(d);
      if (!dc) return arrangementOf(d).words.name;
      return dc.reverseDiode ? capitalised(diodeClass(d.rectifier.diode).technology) : 'none';
    },
    reading: (p) =>
      hasDiodes(p.design)
        ? diodeClass(p.design.rectifier.diode).name.split(',')[0]!.replace('bridge class ', '')
        : 'leads may be swapped',
    step: (d, direction) => {
      if (!hasDiodes(d)) return null;
      // Behind a DC source there is one diode and no arrangement: then its class is what is stepped.
      if (dcSourceOf(d)) {
        const n = JUNCTION_CLASSES.findIndex((c) => c.id === d.rectifier.diode);
        const next = JUNCTION_CLASSES[Math.min(JUNCTION_CLASSES.length - 1, Math.max(0, n + few(direction)))]!;
        return { rectifier: ofDiodeClass(next.id) };
      }
      // A rail that comes or goes is more than a step: that is chosen from the cards.
      const among = RECTIFIER_KINDS.filter((k) => ARRANGEMENTS[k].rails === arrangementOf(d).rails);
      const n = among.indexOf(d.rectifier.kind);
      const kind = among[Math.min(among.length - 1, Math.max(0, n + Math.sign(direction)))]!;
      return kind === d.rectifier.kind ? null : { rectifier: { kind } };
    },
  },
  before: {
    name: () => 'Input filter',
    value: (d) => d.filter.before.map(stepWords).join(', '),
    reading: (p, band) => chokeReading(p, band, 'before'),
    step: (d, direction) => stepMainPart(d, 'before', direction),
  },
  after: {
    name: () => 'Filter',
    value: (d) => d.filter.after.map(stepWords).join(', '),
    reading: (p, band) => `ripple ${formatQuantity(p.points[band].rail.ripplePeakToPeakV, 'V')} p-p`,
    step: (d, direction) => stepMainPart(d, 'after', direction),
  },
  reservoir: {
    name: () => 'Reservoir',
    value: (d) => (d.reservoir.capacitanceF > 0 ? bankWords(d.reservoir) : 'none'),
    reading: (p, band) => {
      const { minV, maxV } = p.points[band].reservoir;
      return `valley ${formatQuantity(minV, 'V')}, ripple ${formatQuantity(maxV - minV, 'V')} p-p`;
    },
    step: (d, direction) => {
      const now = d.reservoir.capacitanceF;
      if (now <= 0) return direction > 0 ? { reservoir: { capacitanceF: 100e-6 } } : null;
      return { reservoir: { capacitanceF: Math.min(1, Math.max(1e-7, inDecades(now, E6, direction))) } };
    },
    typed: ({ reservoir: { capacitanceF, cans } }) =>
      capacitanceF > 0 && cans === 1
        ? {
            path: 'reservoir.capacitanceF',
            value: capacitanceF,
            patch: (value) => ({ reservoir: { capacitanceF: value } }),
          }
        : null,
  },
  regulator: {
    name: () => 'Regulator',
    value: (d) => mainModel(d)?.name ?? 'none',
    reading: (p, band) => {
      const { heat, watts } = p.points[band];
      return heat ? `${formatQuantity(watts.regulator, 'W')}, junction ${formatQuantity(heat.junctionC, '°C')}` : '';
    },
    step: (d, direction) => {
      if (d.regulator.kind === 'none') return null;
      return { regulator: steppedOutput(d.regulator, few(direction)) };
    },
  },
  load: {
    name: () => 'Load',
    value: (d) =>
      isSplit(d) && d.demand.negativeA !== null
        ? `${formatNominal(d.demand.outputA, 'A')}, ${formatNominal(d.demand.negativeA, 'A')}`
        : formatNominal(d.demand.outputA, 'A'),
    reading: (p, band) => `ripple ${formatQuantity(p.points[band].outputRippleVpp, 'V')}`,
    step: (d, direction) => ({
      demand: { outputA: Math.min(50, Math.max(1e-4, inDecades(d.demand.outputA, E12, direction))) },
    }),
    typed: (d) =>
      isSplit(d) && d.demand.negativeA !== null
        ? null
        : { path: 'demand.outputA', value: d.demand.outputA, patch: (outputA) => ({ demand: { outputA } }) },
  },
};
