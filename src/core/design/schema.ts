import * as yup from 'yup';
import { DIODE_CLASSES } from '@/core/parts/diode';
import { RECTIFIER_KINDS } from '@/core/parts/arrangement';
import { INTERFACES } from '@/core/parts/heatsink';
import { REGULATOR_SIZES } from '@/core/parts/regulator';
import type { Design } from './design';
import { firstFault, type Fault } from './fault';
import { fieldLimit, FILTER_STEPS_MAX, NAME_MAX, NOTE_MAX, rangeFault, READINGS_MAX, type FieldPath } from './limits';

function field(path: FieldPath) {
  const base = yup
    .number()
    .strict(true)
    .typeError('${path} has to be a number')
    .test('range', (value, ctx) => {
      if (value === undefined || value === null) return true;
      const fault = rangeFault(path, value);
      return fault === null || ctx.createError({ message: fault });
    });
  return fieldLimit(path).optional
    ? base.nullable().defined('${path} is missing')
    : base.required('${path} is missing');
}

const oneOf = (values: readonly string[]) =>
  yup
    .string()
    .strict(true)
    .required('${path} is missing')
    .oneOf([...values], `\${path} has to be one of ${values.join(', ')}`);
const group = <T extends yup.ObjectShape>(shape: T) =>
  yup
    .object(shape)
    .strict(true)
    .noUnknown(true, '${path} has a member that no design has: ${unknown}')
    .required('${path} is missing')
    .typeError('${path} has to be a group of values');

const regulator = yup.lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  if (kind === 'fixed') {
    const sizes = REGULATOR_SIZES.map((r) => r.id as string);
    return group({
      kind: oneOf(['fixed']),
      size: oneOf(sizes),
      outputV: yup
        .number()
        .strict(true)
        .required('${path} is missing')
        .test('made', function (v) {
          const size = REGULATOR_SIZES.find((r) => r.id === (this.parent as { size?: string }).size);
          return (
            !size ||
            size.outputsV.includes(v!) ||
            this.createError({ message: `there is no ${size.id} regulator for ${v} V` })
          );
        }),
    });
  }
  return group({ kind: oneOf(['none', 'fixed']) });
});

const step = yup.lazy((value: unknown) => {
  switch ((value as { kind?: unknown } | null)?.kind) {
    case 'choke':
      return group({
        kind: oneOf(['choke']),
        inductanceH: field('filter.choke.inductanceH'),
        resistanceOhm: field('filter.choke.resistanceOhm'),
        ratedA: field('filter.choke.ratedA'),
        swinging: yup.boolean().strict(true).required('${path} is missing'),
      });
    case 'resistor':
      return group({ kind: oneOf(['resistor']), resistanceOhm: field('filter.resistor.resistanceOhm') });
    case 'capacitor':
      return group({
        kind: oneOf(['capacitor']),
        capacitanceF: field('filter.capacitor.capacitanceF'),
        ratedV: field('filter.capacitor.ratedV'),
      });
    default:
      return group({ kind: oneOf(['choke', 'resistor', 'capacitor']) });
  }
});
const steps = yup
  .array()
  .strict(true)
  .required('${path} is missing')
  .max(FILTER_STEPS_MAX, `\${path} holds more than ${FILTER_STEPS_MAX} parts`)
  .of(step);

export const designSchema = yup
  .object({
    format: yup.string().required().oneOf(['ember-rail-design']),
    version: yup
      .number()
      .required('${path} is missing')
      .oneOf([2], 'this file has version ${value}; this program reads versions 1 and 2'),
    name: yup
      .string()
      .strict(true)
      .required('${path} is empty: give the design a name')
      .max(NAME_MAX, `\${path} is longer than ${NAME_MAX} letters`),
    note: yup
      .string()
      .strict(true)
      .defined('${path} is missing')
      .max(NOTE_MAX, `\${path} is longer than ${NOTE_MAX} letters`),
    demand: group({
      outputV: field('demand.outputV'),
      outputA: field('demand.outputA'),
      tolerancePct: field('demand.tolerancePct'),
      rippleVpp: field('demand.rippleVpp'),
      kind: oneOf(['current', 'resistance', 'power']),
      negativeA: field('demand.negativeA'),
    }),
    mains: group({
      voltageRms: field('mains.voltageRms'),
      frequencyHz: field('mains.frequencyHz'),
      lowPct: field('mains.lowPct'),
      highPct: field('mains.highPct'),
      flatTopPct: field('mains.flatTopPct'),
    }),
    transformer: group({
      ratedV: field('transformer.ratedV'),
      ratedVA: field('transformer.ratedVA'),
      regulationPct: field('transformer.regulationPct'),
      hotC: field('transformer.hotC'),
      leakageH: field('transformer.leakageH'),
    }),
    rectifier: group({
      kind: oneOf(RECTIFIER_KINDS),
      diode: oneOf(DIODE_CLASSES.map((d) => d.id)),
    }),
    reservoir: group({
      capacitanceF: field('reservoir.capacitanceF'),
      ratedV: field('reservoir.ratedV'),
      esrOhm: field('reservoir.esrOhm'),
      rippleA: field('reservoir.rippleA'),
      tolerancePct: field('reservoir.tolerancePct'),
      agedPct: field('reservoir.agedPct'),
    }),
    filter: group({ before: steps, after: steps, bleederOhm: field('filter.bleederOhm') }),
    heater: yup.lazy((value: unknown) =>
      value === null
        ? yup.mixed().nullable()
        : group({ ratedV: field('heater.ratedV'), currentA: field('heater.currentA') }),
    ),
    regulator,
    heat: group({
      ambientC: field('heat.ambientC'),
      sinkKPerW: field('heat.sinkKPerW'),
      interface: oneOf(INTERFACES.map((i) => i.id)),
    }),
    bench: group({
      meterPct: field('bench.meterPct'),
      meterDigitsV: field('bench.meterDigitsV'),
      readings: yup
        .array()
        .strict(true)
        .required('${path} is missing')
        .max(READINGS_MAX, `\${path} holds more than ${READINGS_MAX} readings`)
        .of(
          group({
            point: yup.string().strict(true).required('${path} is missing').max(60, '${path} is too long'),
            value: yup
              .number()
              .strict(true)
              .required('${path} is missing')
              .min(-1e6, '${path} is no reading of a meter')
              .max(1e6, '${path} is no reading of a meter'),
            mainsV: field('mains.voltageRms'),
            at: yup
              .string()
              .strict(true)
              .required('${path} is missing')
              .matches(/^\d{4}-\d\d-\d\dT[\d:.]+Z$/, '${path} is not a time like 2026-01-31T21:00:00Z'),
          }),
        ),
    }),
  })
  .strict(true)
  .noUnknown(true, 'the file has a member that no design has: ${unknown}');

/** Validates a value of unknown origin as a design. Never throws: the first fault comes back with its path. */
export function readDesign(value: unknown): { ok: true; design: Design } | { ok: false; fault: Fault } {
  if (value === null || typeof value !== 'object' || Array.isArray(value)) {
    return { ok: false, fault: { path: '', sentence: 'a design has to be a JSON object' } };
  }
  // Said first: in a foreign file every member is wrong, and that is not what helps.
  if ((value as { format?: unknown }).format !== 'ember-rail-design') {
    return { ok: false, fault: { path: 'format', sentence: 'this is not a design file of this program' } };
  }
  try {
    return {
      ok: true,
      design: designSchema.validateSync(upgraded(value as Record<string, unknown>), {
        strict: true,
        abortEarly: false,
      }) as unknown as Design,
    };
  } catch (error) {
    return { ok: false, fault: firstFault(error) };
  }
}

/** A design of an earlier version as this one, with what that version did not know set to nothing. */
function upgraded(value: Record<string, unknown>): unknown {
  if (value['version'] !== 1) return value;
  const part = (key: string, more: Record<string, unknown>) => {
    const old = value[key];
    return typeof old === 'object' && old !== null ? { ...more, ...old } : old;
  };
  return {
    ...value,
    version: 2,
    demand: part('demand', { negativeA: null }),
    mains: part('mains', { flatTopPct: 0 }),
    transformer: part('transformer', { leakageH: 0 }),
    filter: { before: [], after: [], bleederOhm: null },
    heater: null,
  };
}
