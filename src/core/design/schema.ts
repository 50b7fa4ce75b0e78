import * as yup from 'yup';
import { DIODE_CLASSES } from '@/core/parts/diode';
import { RECTIFIER_KINDS } from '@/core/parts/arrangement';
import { DC_SOURCE_KINDS } from '@/core/parts/dc-source';
import { INTERFACES } from '@/core/parts/heatsink';
import { blankDesign, MAINS_PRESETS } from './defaults';
import { CONSUMER_KINDS, PART_ROLES, type Ask, type Design } from './design';
import { firstFault, type Fault } from './fault';
import { CONSUMERS_MAX, FILTER_STEPS_MAX, NAME_MAX, NOTE_MAX, OUTPUTS_MAX, READINGS_MAX } from './limits';
import { preRegulatorSchema, regulatorSchema, someRegulatorSchema } from './regulator-schema';
import { field, flag, group, oneOf } from './schema-pieces';

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

const orNull = (schema: yup.Schema) => yup.lazy((value: unknown) => (value === null ? yup.mixed().nullable() : schema));

const consumer = group({
  name: yup
    .string()
    .strict(true)
    .defined('${path} is missing')
    .max(NAME_MAX, `\${path} is longer than ${NAME_MAX} letters`),
  count: yup
    .number()
    .strict(true)
    .required('${path} is missing')
    .integer('${path} has to be a whole number')
    .min(0, '${path} cannot be negative')
    .max(10_000, '${path} is more than any supply feeds'),
  rail: oneOf(['plus', 'minus']),
  kind: oneOf(CONSUMER_KINDS),
  standingA: field('load.standingA'),
  typicalA: field('load.typicalA'),
  peakA: field('load.peakA'),
  dutyPct: field('load.dutyPct'),
});

const transformerSource = yup.lazy((value: unknown) => {
  switch ((value as { kind?: unknown } | null)?.kind) {
    case 'ohms':
      return group({
        kind: oneOf(['ohms']),
        primaryOhm: field('transformer.primaryOhm'),
        secondaryOhm: field('transformer.secondaryOhm'),
        openV: field('transformer.openV'),
        mainsV: field('mains.voltageRms'),
      });
    case 'test':
      return group({
        kind: oneOf(['test']),
        openV: field('transformer.openV'),
        loadedV: field('transformer.loadedV').test(
          'drops',
          '${path} has to be below the open volts: a load pulls a winding down',
          function (v) {
            return v! < (this.parent as { openV: number }).openV;
          },
        ),
        loadA: field('transformer.loadA'),
        mainsV: field('mains.voltageRms'),
      });
    case 'wound':
      return group({
        kind: oneOf(['wound']),
        plan: group({
          areaMm2: field('winding.areaMm2'),
          windowMm2: field('winding.windowMm2'),
          meanTurnMm: field('winding.meanTurnMm'),
          fluxT: field('winding.fluxT'),
          turnsPerVolt: field('winding.turnsPerVolt'),
          primaryTurns: field('winding.turns'),
          primaryWireMm: field('winding.wireMm'),
          secondaryTurns: field('winding.turns'),
          secondaryWireMm: field('winding.wireMm'),
        }),
      });
    default:
      return group({ kind: oneOf(['plate', 'ohms', 'test', 'wound']) });
  }
});

const sourceSchema = yup.lazy((value: unknown) => {
  switch ((value as { kind?: unknown } | null)?.kind) {
    case 'battery':
      return group({
        kind: oneOf(['battery']),
        freshV: field('source.freshV'),
        emptyV: field('source.emptyV').test(
          'falls',
          '${path} has to be below the fresh volts: a battery falls as it empties',
          function (v) {
            return v! < (this.parent as { freshV: number }).freshV;
          },
        ),
        resistanceOhm: field('source.resistanceOhm'),
        capacityAh: field('source.capacityAh'),
        reverseDiode: flag,
      });
    case 'adapter':
      return group({
        kind: oneOf(['adapter']),
        ratedV: field('source.ratedV'),
        ratedA: field('source.ratedA'),
        idlePct: field('source.idlePct'),
        spreadPct: field('source.spreadPct'),
        rippleVpp: field('source.rippleVpp'),
        limitA: field('source.limitA'),
        reverseDiode: flag,
      });
    default:
      return group({ kind: oneOf(['mains', ...DC_SOURCE_KINDS]) });
  }
});

export const designSchema = yup
  .object({
    format: yup.string().required().oneOf(['ember-rail-design']),
    version: yup
      .number()
      .required('${path} is missing')
      .oneOf([5], 'this file has version ${value}; this program reads versions 1 to 5'),
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
      typicalA: field('demand.typicalA'),
    }),
    load: group({
      consumers: yup
        .array()
        .strict(true)
        .required('${path} is missing')
        .max(CONSUMERS_MAX, `\${path} holds more than ${CONSUMERS_MAX} lines`)
        .of(consumer),
      togetherPct: field('load.togetherPct'),
      reservePct: field('load.reservePct'),
    }),
    source: sourceSchema,
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
      core: oneOf(['laminated', 'toroid']),
      source: transformerSource,
    }),
    rectifier: group({
      kind: oneOf(RECTIFIER_KINDS),
      diode: oneOf(DIODE_CLASSES.map((d) => d.id)),
      rated: orNull(
        group({
          averageA: field('rectifier.averageA'),
          reverseV: field('rectifier.reverseV'),
          surgeA: field('rectifier.surgeA'),
        }),
      ),
    }),
    reservoir: group({
      cans: field('reservoir.cans').integer('${path} has to be a whole number'),
      pair: flag,
      capacitanceF: field('reservoir.capacitanceF'),
      ratedV: field('reservoir.ratedV'),
      esrOhm: field('reservoir.esrOhm'),
      rippleA: field('reservoir.rippleA'),
      tolerancePct: field('reservoir.tolerancePct'),
      agedPct: field('reservoir.agedPct'),
    }),
    filter: group({ before: steps, after: steps, bleederOhm: field('filter.bleederOhm') }),
    heater: orNull(group({ ratedV: field('heater.ratedV'), currentA: field('heater.currentA') })),
    regulator: regulatorSchema,
    preRegulator: preRegulatorSchema,
    outputs: yup
      .array()
      .strict(true)
      .required('${path} is missing')
      .max(OUTPUTS_MAX, `\${path} holds more than ${OUTPUTS_MAX}`)
      .of(
        group({
          name: yup
            .string()
            .strict(true)
            .defined('${path} is missing')
            .max(NAME_MAX, `\${path} is longer than ${NAME_MAX} letters`),
          currentA: field('output.currentA'),
          regulator: someRegulatorSchema,
          sinkKPerW: field('output.sinkKPerW'),
        }),
      ),
    heat: group({
      ambientC: field('heat.ambientC'),
      sinkKPerW: field('heat.sinkKPerW'),
      interface: oneOf(INTERFACES.map((i) => i.id)),
      box: oneOf(['open', 'closed', 'vented']),
      boxCm2: field('heat.boxCm2'),
      sinkOutside: flag,
      sharedWithRectifier: flag,
      oneSink: flag,
      together: flag,
      fan: oneOf(['none', 'fixed', 'switched']),
      fanOnC: field('heat.fanOnC'),
    }),
    mainsSide: group({
      insulation: oneOf(['class I', 'class II']),
      box: oneOf(['metal', 'plastic']),
      polarised: flag,
      homeWound: flag,
      primaryFuseA: field('mainsSide.primaryFuseA'),
      secondaryFuseA: field('mainsSide.secondaryFuseA'),
      switchPoles: yup.number().strict(true).required('${path} is missing').oneOf([1, 2], '${path} has to be 1 or 2'),
      softStart: flag,
      thermalCutout: flag,
      ticked: yup
        .array()
        .strict(true)
        .required('${path} is missing')
        .max(100)
        .of(yup.string().strict(true).required().max(60)),
    }),
    picked: yup
      .array()
      .strict(true)
      .required('${path} is missing')
      .max(20, '${path} holds more than 20 parts')
      .of(
        group({
          role: oneOf(PART_ROLES),
          partId: yup.string().strict(true).required('${path} is missing').max(60),
          name: yup.string().strict(true).required('${path} is missing').max(120),
          priceEur: yup
            .number()
            .strict(true)
            .nullable()
            .defined('${path} is missing')
            .min(0, '${path} cannot be negative'),
          values: yup.object().required('${path} is missing'),
        }),
      ),
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
            mainsV: field('bench.sourceV'),
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
  const part = (of: Record<string, unknown>, key: string, more: Record<string, unknown>) => {
    const old = of[key];
    return typeof old === 'object' && old !== null ? { ...more, ...old } : old;
  };
  let next = value;
  if (next['version'] === 1) {
    next = {
      ...next,
      version: 2,
      demand: part(next, 'demand', { negativeA: null }),
      mains: part(next, 'mains', { flatTopPct: 0 }),
      transformer: part(next, 'transformer', { leakageH: 0 }),
      filter: { before: [], after: [], bleederOhm: null },
      heater: null,
    };
  }
  if (next['version'] === 2) {
    const { load, mainsSide, picked } = blankDesign('', BLANK_ASK, MAINS_PRESETS[0]!.mains);
    next = {
      ...next,
      version: 3,
      demand: part(next, 'demand', { typicalA: null }),
      load,
      transformer: part(next, 'transformer', { core: 'laminated', source: { kind: 'plate' } }),
      rectifier: part(next, 'rectifier', { rated: null }),
      reservoir: part(next, 'reservoir', { cans: 1, pair: false }),
      mainsSide,
      picked,
    };
  }
  if (next['version'] === 3) {
    const { heat } = blankDesign('', BLANK_ASK, MAINS_PRESETS[0]!.mains);
    next = { ...next, version: 4, preRegulator: { kind: 'none' }, heat: part(next, 'heat', { ...heat }) };
  }
  if (next['version'] === 4) {
    next = {
      ...next,
      version: 5,
      source: { kind: 'mains' },
      outputs: [],
      heat: part(next, 'heat', { oneSink: false, together: false }),
    };
  }
  return next;
}

const BLANK_ASK: Ask = { outputV: 1, outputA: 1, tolerancePct: 1, rippleVpp: 1, kind: 'current' };
