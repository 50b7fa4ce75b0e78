import fc from 'fast-check';
import { blankDesign, MAINS_PRESETS } from '@/core/design/defaults';
import type { Consumer, Design, FilterStep, FurtherOutput, OutputDemand, OutputId } from '@/core/design/design';
import { FIELD_LIMITS, type FieldPath } from '@/core/design/limits';
import { RECTIFIER_KINDS } from '@/core/parts/arrangements';
import type { PackageId } from '@/core/parts/packages';
import { DIODE_CLASSES } from '@/core/parts/diode';
import type { SomeRegulator } from '@/core/parts/regulators';
import { ADJUSTABLE_PARTS, type AdjustableId } from '@/core/parts/regulators/adjustable';
import type { PreRegulator } from '@/core/parts/regulators/ahead';
import { REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import { LOW_DROPOUT_PARTS, type LowDropoutId } from '@/core/parts/regulators/low-dropout';
import type { TransformerSource } from '@/core/parts/transformer-source';
import { PASS_TRANSISTORS } from '@/core/parts/transistor';

/** Anywhere in a field's range, evenly over the decades. */
function anywhere(path: FieldPath) {
  const { min, max } = FIELD_LIMITS[path];
  if (min < 0) return fc.double({ min, max, noNaN: true });
  const low = Math.log(Math.max(min, max * 1e-12));
  return fc.double({ min: low, max: Math.log(max), noNaN: true }).map((x) => Math.min(max, Math.max(min, Math.exp(x))));
}

const transistor = fc.constantFrom(...PASS_TRANSISTORS.map((t) => t.id));

const passes = {
  passes: fc.integer({ min: 1, max: 12 }),
  emitterOhm: anywhere('regulator.emitterOhm'),
  gain: fc.option(anywhere('regulator.gain')),
};

const someRegulator: fc.Arbitrary<SomeRegulator> = fc.oneof(
  fc
    .constantFrom(...REGULATOR_SIZES)
    .chain((size) =>
      fc.constantFrom(...size.outputsV).map((outputV) => ({ kind: 'fixed' as const, size: size.id, outputV })),
    ),
  fc.record({
    kind: fc.constant('adjustable' as const),
    part: fc.constantFrom(...(Object.keys(ADJUSTABLE_PARTS) as AdjustableId[])),
    r1Ohm: anywhere('regulator.r1Ohm'),
    r2Ohm: anywhere('regulator.r2Ohm'),
    potOhm: fc.option(anywhere('regulator.potOhm')),
    adjCapacitor: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('low-dropout' as const),
    part: fc.constantFrom(...(Object.keys(LOW_DROPOUT_PARTS) as LowDropoutId[])),
    outputV: anywhere('regulator.outputV'),
    boardCm2: anywhere('regulator.boardCm2'),
  }),
  fc.record({
    kind: fc.constant('follower' as const),
    zenerV: anywhere('regulator.zenerV'),
    zenerW: anywhere('regulator.zenerW'),
    transistor,
    seriesOhm: anywhere('regulator.seriesOhm'),
    limitOhm: fc.option(anywhere('regulator.limitOhm')),
    ...passes,
  }),
  fc.record({
    kind: fc.constant('error-transistor' as const),
    zenerV: anywhere('regulator.zenerV'),
    upperOhm: anywhere('regulator.upperOhm'),
    potOhm: fc.option(anywhere('regulator.potOhm')),
    lowerOhm: anywhere('regulator.lowerOhm'),
    transistor,
    driveOhm: anywhere('regulator.driveOhm'),
    limitOhm: fc.option(anywhere('regulator.limitOhm')),
    ...passes,
  }),
  fc
    .record({
      kind: fc.constant('bench' as const),
      maxV: anywhere('regulator.maxV'),
      limitA: anywhere('regulator.limitA'),
      referenceV: anywhere('regulator.referenceV'),
      shuntOhm: anywhere('regulator.shuntOhm'),
      transistor,
      referencePct: anywhere('regulator.referencePct'),
      opampRail: fc.constantFrom<'raw' | 'own'>('raw', 'own'),
      ...passes,
      opampMaxV: anywhere('regulator.opampMaxV'),
      shuntPct: anywhere('regulator.shuntPct'),
      resistorPct: anywhere('regulator.resistorPct'),
    })
    .map((r) => ({ ...r, referenceV: Math.min(r.referenceV, r.maxV) })),
);

const regulator = fc.oneof(
  { weight: 1, arbitrary: fc.constant({ kind: 'none' as const }) },
  { weight: 6, arbitrary: someRegulator },
);

const preRegulator: fc.Arbitrary<PreRegulator> = fc.oneof(
  fc.constant({ kind: 'none' as const }),
  fc.constant({ kind: 'fixed' as const, size: '78' as const, outputV: 15 }),
  fc.record({ kind: fc.constant('tracking' as const), aboveV: anywhere('regulator.aboveV'), transistor }),
  fc.record({
    kind: fc.constant('zener' as const),
    zenerV: anywhere('regulator.zenerV'),
    seriesOhm: anywhere('regulator.seriesOhm'),
    transistor,
  }),
);

const filterPart: fc.Arbitrary<FilterStep> = fc.oneof(
  fc.record({
    kind: fc.constant('choke' as const),
    inductanceH: anywhere('filter.choke.inductanceH'),
    resistanceOhm: anywhere('filter.choke.resistanceOhm'),
    ratedA: anywhere('filter.choke.ratedA'),
    swinging: fc.boolean(),
  }),
  fc.record({ kind: fc.constant('resistor' as const), resistanceOhm: anywhere('filter.resistor.resistanceOhm') }),
  fc.record({
    kind: fc.constant('capacitor' as const),
    capacitanceF: anywhere('filter.capacitor.capacitanceF'),
    ratedV: anywhere('filter.capacitor.ratedV'),
  }),
);

const source: fc.Arbitrary<TransformerSource> = fc.oneof(
  fc.constant({ kind: 'plate' as const }),
  fc.record({
    kind: fc.constant('ohms' as const),
    primaryOhm: anywhere('transformer.primaryOhm'),
    secondaryOhm: anywhere('transformer.secondaryOhm'),
    openV: anywhere('transformer.openV'),
    mainsV: anywhere('mains.voltageRms'),
  }),
  fc
    .record({
      kind: fc.constant('test' as const),
      openV: anywhere('transformer.openV'),
      loadA: anywhere('transformer.loadA'),
      mainsV: anywhere('mains.voltageRms'),
      share: fc.double({ min: 0.05, max: 0.99, noNaN: true }),
    })
    .map(({ share, ...test }) => ({ ...test, loadedV: Math.max(0.1, share * test.openV) })),
);

const feed: fc.Arbitrary<Design['source']> = fc.oneof(
  { weight: 3, arbitrary: fc.constant({ kind: 'mains' as const }) },
  {
    weight: 1,
    arbitrary: fc
      .record({
        kind: fc.constant('battery' as const),
        freshV: anywhere('source.freshV'),
        share: fc.double({ min: 0.61, max: 0.99, noNaN: true }),
        resistanceOhm: anywhere('source.resistanceOhm'),
        capacityAh: anywhere('source.capacityAh'),
        reverseDiode: fc.boolean(),
      })
      .map(({ share, ...battery }) => ({ ...battery, emptyV: Math.max(0.3, share * battery.freshV) })),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant('adapter' as const),
      ratedV: anywhere('source.ratedV'),
      ratedA: anywhere('source.ratedA'),
      idlePct: anywhere('source.idlePct'),
      spreadPct: anywhere('source.spreadPct'),
      rippleVpp: anywhere('source.rippleVpp'),
      limitA: fc.option(anywhere('source.limitA')),
      reverseDiode: fc.boolean(),
    }),
  },
);

/** Share of an output's current, or none given. */
const share = fc.option(fc.double({ min: 0, max: 1, noNaN: true }));

const demand: fc.Arbitrary<OutputDemand> = fc
  .record({
    outputV: anywhere('demand.outputV'),
    outputA: anywhere('demand.outputA'),
    tolerancePct: anywhere('demand.tolerancePct'),
    rippleVpp: anywhere('demand.rippleVpp'),
    kind: fc.constantFrom<'current' | 'resistance' | 'power'>('current', 'resistance', 'power'),
    lasting: share,
    least: share,
    below: fc.option(fc.double({ min: 0.01, max: 0.5, noNaN: true })),
    range: share,
  })
  .map(({ lasting, least, below, range, ...asked }) => ({
    ...asked,
    typicalA: lasting === null ? null : lasting * asked.outputA,
    leastA: (least ?? 0) * (lasting ?? 1) * asked.outputA,
    window: below === null ? null : { lowV: (1 - below) * asked.outputV, highV: (1 + 2 * below) * asked.outputV },
    range: range === null ? null : { lowV: 0.9 * range * asked.outputV, highV: asked.outputV },
  }));

const further: fc.Arbitrary<FurtherOutput> = fc.record({
  name: fc.constantFrom('', 'Logic'),
  rail: fc.constantFrom<'plus' | 'minus'>('plus', 'minus'),
  demand,
  regulator: fc.oneof(
    { weight: 1, arbitrary: fc.constant({ kind: 'none' as const }) },
    { weight: 4, arbitrary: someRegulator },
  ),
  regulatorSheet: fc.option(
    fc.record({
      inputMaxV: fc.option(anywhere('regulator.inputMaxV')),
      dropoutV: fc.option(anywhere('regulator.dropoutV')),
      ratedA: fc.option(anywhere('regulator.ratedA')),
      jcKPerW: fc.option(anywhere('regulator.jcKPerW')),
      jaKPerW: fc.option(anywhere('regulator.jaKPerW')),
      package: fc.constantFrom<PackageId | null>(null, 'TO-92', 'TO-220', 'TO-3'),
      powerW: fc.option(anywhere('regulator.powerW')),
      breakdownV: fc.option(anywhere('regulator.breakdownV')),
    }),
  ),
  sinkKPerW: fc.option(anywhere('output.sinkKPerW')),
});

const consumer: fc.Arbitrary<Consumer> = fc.record({
  name: fc.constantFrom('', 'Lamp'),
  count: fc.integer({ min: 0, max: 9 }),
  on: fc.option(fc.integer({ min: 0, max: 9 })),
  output: fc.constantFrom<OutputId>('main', 'minus', 'out-1'),
  kind: fc.constantFrom<Consumer['kind']>('current', 'resistance', 'power', 'motor', 'lamp'),
  standingA: anywhere('load.standingA'),
  typicalA: anywhere('load.typicalA'),
  peakA: anywhere('load.peakA'),
  dutyPct: anywhere('load.dutyPct'),
  startA: fc.option(anywhere('load.startA')),
});

/** Any design the fields let somebody type, however absurd. */
export const absurd: fc.Arbitrary<Design> = fc
  .record({
    demand: fc.tuple(demand, fc.option(anywhere('demand.negativeA'))).map(([of, negativeA]) => ({ ...of, negativeA })),
    load: fc.record({
      consumers: fc.array(consumer, { maxLength: 2 }),
      togetherPct: anywhere('load.togetherPct'),
      reservePct: anywhere('load.reservePct'),
    }),
    indicator: fc.option(
      fc.record({
        at: fc.constantFrom<'rail' | 'output'>('rail', 'output'),
        currentA: anywhere('indicator.currentA'),
        forwardV: anywhere('indicator.forwardV'),
      }),
    ),
    source: feed,
    outputs: fc.array(further, { maxLength: 2 }),
    mains: fc.record({
      voltageRms: anywhere('mains.voltageRms'),
      frequencyHz: anywhere('mains.frequencyHz'),
      lowPct: anywhere('mains.lowPct'),
      highPct: anywhere('mains.highPct'),
      flatTopPct: anywhere('mains.flatTopPct'),
    }),
    transformer: fc.record({
      ratedV: anywhere('transformer.ratedV'),
      ratedVA: anywhere('transformer.ratedVA'),
      regulationPct: fc.option(anywhere('transformer.regulationPct')),
      hotC: anywhere('transformer.hotC'),
      leakageH: fc.oneof(fc.constant(0), anywhere('transformer.leakageH')),
      core: fc.constantFrom<'laminated' | 'toroid'>('laminated', 'toroid'),
      windingsOnPlate: fc.constantFrom(null, 2),
      sealed: fc.boolean(),
      source,
    }),
    rectifier: fc.record({
      kind: fc.constantFrom(...RECTIFIER_KINDS),
      diode: fc.constantFrom(...DIODE_CLASSES.map((d) => d.id)),
      rated: fc.constant(null),
      sheet: fc.option(
        fc.record({
          points: fc.constantFrom(null, { lowA: 0.01, lowV: 0.6, highA: 1, highV: 0.9 }),
          jcKPerW: fc.option(anywhere('rectifier.jcKPerW')),
          jaKPerW: fc.option(anywhere('rectifier.jaKPerW')),
        }),
      ),
    }),
    reservoir: fc.record({
      cans: fc.integer({ min: 1, max: 40 }),
      pair: fc.boolean(),
      capacitanceF: fc.oneof(fc.constant(0), anywhere('reservoir.capacitanceF')),
      ratedV: anywhere('reservoir.ratedV'),
      esrOhm: fc.option(anywhere('reservoir.esrOhm')),
      rippleA: fc.option(anywhere('reservoir.rippleA')),
      tolerancePct: anywhere('reservoir.tolerancePct'),
      agedPct: anywhere('reservoir.agedPct'),
      gradeC: fc.constantFrom<85 | 105>(85, 105),
      balanceOhm: fc.option(anywhere('reservoir.balanceOhm')),
    }),
    filter: fc.record({
      before: fc.array(filterPart, { maxLength: 2 }),
      after: fc.array(filterPart, { maxLength: 3 }),
      bleederOhm: fc.option(anywhere('filter.bleederOhm')),
    }),
    heater: fc.option(fc.record({ ratedV: anywhere('heater.ratedV'), currentA: anywhere('heater.currentA') })),
    regulator,
    preRegulator,
    heat: fc.record({
      ambientC: anywhere('heat.ambientC'),
      sinkKPerW: fc.option(anywhere('heat.sinkKPerW')),
      interface: fc.constantFrom<'dry' | 'paste' | 'mica' | 'pad'>('dry', 'paste', 'mica', 'pad'),
      box: fc.constantFrom<'open' | 'closed' | 'vented'>('open', 'closed', 'vented'),
      boxCm2: anywhere('heat.boxCm2'),
      sinkOutside: fc.boolean(),
      sharedWithRectifier: fc.boolean(),
      rectifierSinkKPerW: fc.option(anywhere('heat.rectifierSinkKPerW')),
      fanA: fc.option(anywhere('heat.fanA')),
      fan: fc.constantFrom<'none' | 'fixed' | 'switched'>('none', 'fixed', 'switched'),
      fanOnC: anywhere('heat.fanOnC'),
      oneSink: fc.boolean(),
      together: fc.boolean(),
    }),
  })
  .map((parts) => ({ ...blankDesign('Absurd', parts.demand, parts.mains), ...parts }));

/** A supply somebody might build. */
export const plausible: fc.Arbitrary<Design> = fc
  .record({
    outputV: fc.constantFrom(5, 8, 9, 12, 15, 18, 24),
    outputA: fc.double({ min: 0.05, max: 0.9, noNaN: true }),
    over: fc.double({ min: 1.05, max: 1.6, noNaN: true }),
    size: fc.double({ min: 1.5, max: 4, noNaN: true }),
    farad: fc.double({ min: 0.5, max: 4, noNaN: true }),
    kind: fc.constantFrom<'centre-tap' | 'bridge'>('centre-tap', 'bridge'),
  })
  .map(({ outputV, outputA, over, size, farad, kind }) => {
    const ratedV = Math.round(2 * (over * outputV + 1)) / 2;
    const base = blankDesign(
      'Plausible',
      { outputV, outputA, tolerancePct: 5, rippleVpp: 0.01, kind: 'current' },
      MAINS_PRESETS[0]!.mains,
    );
    return {
      ...base,
      transformer: {
        ratedV,
        ratedVA: Math.max(3, size * ratedV * outputA),
        regulationPct: null,
        hotC: 75,
        leakageH: 0,
        core: 'laminated' as const,
        windingsOnPlate: null,
        sealed: false,
        source: { kind: 'plate' as const },
      },
      rectifier: { ...base.rectifier, kind, diode: 'si-1a' },
      reservoir: { ...base.reservoir, capacitanceF: farad * 2e-3 * outputA, ratedV: 63 },
      regulator: { kind: 'fixed' as const, size: '78' as const, outputV },
      heat: { ...base.heat, ambientC: 40, sinkKPerW: 5, interface: 'paste' as const },
    };
  });
