import * as yup from 'yup';
import { PACKAGES } from '@/core/parts/packages';
import { DIODE_CLASSES } from '@/core/parts/diode';
import { RECTIFIER_KINDS } from '@/core/parts/arrangements';
import { DC_SOURCE_KINDS } from '@/core/parts/dc-source';
import { INTERFACES } from '@/core/parts/heatsink';
import { CONSUMER_KINDS, PART_ROLES, type Design } from './design';
import { firstFault, type Fault } from './fault';
import { CONSUMERS_MAX, FILTER_STEPS_MAX, NAME_MAX, NOTE_MAX, OUTPUTS_MAX, READINGS_MAX } from './limits';
import { DESIGN_VERSION, migrated } from './migrate';
import { preRegulatorSchema, regulatorSchema } from './regulator-schema';
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
  on: yup
    .number()
    .strict(true)
    .nullable()
    .defined('${path} is missing')
    .integer('${path} has to be a whole number')
    .min(0, '${path} cannot be negative')
    .max(10_000, '${path} is more than any supply feeds'),
  output: yup
    .string()
    .strict(true)
    .required('${path} is missing')
    .matches(/^(main|minus|out-[1-9])$/, '${path} names no output: main, minus, out-1 and so on'),
  kind: oneOf(CONSUMER_KINDS),
  standingA: field('load.standingA'),
  typicalA: field('load.typicalA'),
  peakA: field('load.peakA'),
  dutyPct: field('load.dutyPct'),
  startA: field('load.startA'),
});

const span = (path: 'demand.windowV' | 'demand.rangeV') =>
  orNull(
    group({
      lowV: field(path),
      highV: field(path).test('above', '${path} has to lie above the low end', function (v) {
        return v! > (this.parent as { lowV: number }).lowV;
      }),
    }),
  );

const outputDemandShape = {
  outputV: field('demand.outputV'),
  outputA: field('demand.outputA'),
  tolerancePct: field('demand.tolerancePct'),
  rippleVpp: field('demand.rippleVpp'),
  kind: oneOf(['current', 'resistance', 'power']),
  typicalA: field('demand.typicalA'),
  leastA: field('demand.leastA').test('least', '${path} cannot be more than the load current', function (v) {
    return v! <= (this.parent as { outputA: number }).outputA;
  }),
  window: span('demand.windowV'),
  range: span('demand.rangeV'),
};

const regulatorSheet = orNull(
  group({
    inputMaxV: field('regulator.inputMaxV'),
    dropoutV: field('regulator.dropoutV'),
    ratedA: field('regulator.ratedA'),
    jcKPerW: field('regulator.jcKPerW'),
    jaKPerW: field('regulator.jaKPerW'),
    package: yup
      .mixed()
      .nullable()
      .defined('${path} is missing')
      .oneOf([null, ...PACKAGES.map((p) => p.id)], '${path} is none of the housings this program knows'),
    powerW: field('regulator.powerW'),
    breakdownV: field('regulator.breakdownV'),
  }),
);

/** Two points of a forward curve: more current takes more volts. */
const diodeSheet = orNull(
  group({
    points: orNull(
      group({
        lowA: field('rectifier.lowA'),
        lowV: field('rectifier.lowV'),
        highA: field('rectifier.highA').test(
          'more',
          '${path} has to be at least three times the lower current',
          function (v) {
            return v! >= 3 * (this.parent as { lowA: number }).lowA;
          },
        ),
        highV: field('rectifier.highV').test(
          'more',
          '${path} has to lie above the volts at the lower current',
          function (v) {
            return v! > (this.parent as { lowV: number }).lowV;
          },
        ),
      }),
    ),
    jcKPerW: field('rectifier.jcKPerW'),
    jaKPerW: field('rectifier.jaKPerW'),
  }),
);

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
      .oneOf([DESIGN_VERSION], `this file has version \${value}; this program reads versions 1 to ${DESIGN_VERSION}`),
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
    demand: group({ ...outputDemandShape, negativeA: field('demand.negativeA') }),
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
      windingsOnPlate: yup
        .number()
        .strict(true)
        .nullable()
        .defined('${path} is missing')
        .oneOf([null, 1, 2], '${path} has to be 1 or 2'),
      sealed: flag,
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
      sheet: diodeSheet,
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
      gradeC: yup.number().strict(true).required('${path} is missing').oneOf([85, 105], '${path} has to be 85 or 105'),
      balanceOhm: field('reservoir.balanceOhm'),
    }),
    filter: group({ before: steps, after: steps, bleederOhm: field('filter.bleederOhm') }),
    heater: orNull(group({ ratedV: field('heater.ratedV'), currentA: field('heater.currentA') })),
    regulator: regulatorSchema,
    regulatorSheet,
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
          rail: oneOf(['plus', 'minus']),
          demand: group(outputDemandShape),
          regulator: regulatorSchema,
          regulatorSheet,
          sinkKPerW: field('output.sinkKPerW'),
        }),
      ),
    indicator: orNull(
      group({
        at: oneOf(['rail', 'output']),
        currentA: field('indicator.currentA'),
        forwardV: field('indicator.forwardV'),
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
      rectifierSinkKPerW: field('heat.rectifierSinkKPerW'),
      oneSink: flag,
      together: flag,
      fan: oneOf(['none', 'fixed', 'switched']),
      fanA: field('heat.fanA'),
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
    fixed: yup.array().strict(true).required('${path} is missing').max(20).of(oneOf(PART_ROLES)),
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
      design: designSchema.validateSync(migrated(value as Record<string, unknown>), {
        strict: true,
        abortEarly: false,
      }) as unknown as Design,
    };
  } catch (error) {
    return { ok: false, fault: firstFault(error) };
  }
}
