import * as yup from 'yup';
import { PACKAGES, type PackageId } from '@/core/parts/packages';
import type { RegulatorKind } from '@/core/parts/regulators';
import { ADJUSTABLE_IDS } from '@/core/parts/regulators/adjustable';
import { REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import { LOW_DROPOUT_PARTS, type LowDropoutId } from '@/core/parts/regulators/low-dropout';
import { PASS_TRANSISTORS } from '@/core/parts/transistor';
import { byKind, field, flag, group, oneOf, orNull, wholeField } from './schema-pieces';

/** A fixed regulator of the 78 family: only what is made. */
const made = {
  size: oneOf(REGULATOR_SIZES.map((r) => r.id)),
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
};

const transistor = oneOf(PASS_TRANSISTORS.map((t) => t.id));

/** Transistors side by side: how many, what makes them share, and how strong they are. */
const passStage = {
  passes: wholeField('regulator.passes'),
  emitterOhm: field('regulator.emitterOhm'),
  gain: field('regulator.gain'),
};

/** What each family's document holds: one that is forgotten does not compile. */
const FAMILY_SHAPES = {
  fixed: made,
  adjustable: {
    part: oneOf(ADJUSTABLE_IDS),
    r1Ohm: field('regulator.r1Ohm'),
    r2Ohm: field('regulator.r2Ohm'),
    potOhm: field('regulator.potOhm'),
    adjCapacitor: flag,
  },
  'low-dropout': {
    part: oneOf(Object.keys(LOW_DROPOUT_PARTS) as LowDropoutId[]),
    outputV: field('regulator.outputV'),
    boardCm2: field('regulator.boardCm2'),
  },
  follower: {
    ...passStage,
    zenerV: field('regulator.zenerV'),
    zenerW: field('regulator.zenerW'),
    transistor,
    seriesOhm: field('regulator.seriesOhm'),
    limitOhm: field('regulator.limitOhm'),
  },
  'error-transistor': {
    ...passStage,
    zenerV: field('regulator.zenerV'),
    upperOhm: field('regulator.upperOhm'),
    potOhm: field('regulator.potOhm'),
    lowerOhm: field('regulator.lowerOhm'),
    transistor,
    driveOhm: field('regulator.driveOhm'),
    limitOhm: field('regulator.limitOhm'),
  },
  bench: {
    maxV: field('regulator.maxV'),
    limitA: field('regulator.limitA'),
    referenceV: field('regulator.referenceV').test(
      'below',
      '${path} has to be below the top of the volts knob: the amplifier can only multiply it',
      function (v) {
        return v! <= (this.parent as { maxV: number }).maxV;
      },
    ),
    shuntOhm: field('regulator.shuntOhm'),
    transistor,
    ...passStage,
    referencePct: field('regulator.referencePct'),
    opampRail: oneOf(['raw', 'own']),
    opampMaxV: field('regulator.opampMaxV'),
    shuntPct: field('regulator.shuntPct'),
    resistorPct: field('regulator.resistorPct'),
  },
} satisfies Record<RegulatorKind, yup.ObjectShape>;

export const regulatorSchema = byKind({ none: {}, ...FAMILY_SHAPES });

/** Members as they are in `parts/regulators/ahead.ts`, which models them. */
export const preRegulatorSchema = byKind({
  none: {},
  fixed: made,
  tracking: { aboveV: field('regulator.aboveV'), transistor },
  zener: { zenerV: field('regulator.zenerV'), seriesOhm: field('regulator.seriesOhm'), transistor },
});

/** Figures of the part at hand that overrule those of its class; null where the class speaks. */
export const regulatorSheetSchema = orNull(
  group({
    inputMaxV: field('regulator.inputMaxV'),
    dropoutV: field('regulator.dropoutV'),
    ratedA: field('regulator.ratedA'),
    jcKPerW: field('regulator.jcKPerW'),
    jaKPerW: field('regulator.jaKPerW'),
    /** Its housing. */
    package: yup
      .mixed<PackageId>()
      .nullable()
      .defined('${path} is missing')
      .oneOf([null, ...PACKAGES.map((p) => p.id)], '${path} is none of the housings this program knows'),
    /** Of a pass transistor: its watts with the case at 25 °C, and the volts from which second breakdown allows less. */
    powerW: field('regulator.powerW'),
    breakdownV: field('regulator.breakdownV'),
  }),
);
