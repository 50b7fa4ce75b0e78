import * as yup from 'yup';
import { REGULATOR_KINDS, type RegulatorKind } from '@/core/parts/regulators';
import { ADJUSTABLE_PARTS } from '@/core/parts/regulators/adjustable';
import { REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import { LOW_DROPOUT_PARTS } from '@/core/parts/regulators/low-dropout';
import { PASS_TRANSISTORS } from '@/core/parts/transistor';
import { field, flag, group, oneOf } from './schema-pieces';

/** A fixed regulator of the 78 family: only what is made. */
const madeOutput = () =>
  yup
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
    });

/** Transistors side by side: how many, what makes them share, and how strong they are. */
const passStage = {
  passes: field('regulator.passes').integer('${path} has to be a whole number'),
  emitterOhm: field('regulator.emitterOhm'),
  gain: field('regulator.gain'),
};

/** What each family's document holds: one that is forgotten does not compile. */
const FAMILY_SCHEMAS: Readonly<Record<RegulatorKind, () => yup.Schema>> = {
  fixed: () =>
    group({
      kind: oneOf(['fixed']),
      size: oneOf(REGULATOR_SIZES.map((r) => r.id as string)),
      outputV: madeOutput(),
    }),
  adjustable: () =>
    group({
      kind: oneOf(['adjustable']),
      part: oneOf(Object.keys(ADJUSTABLE_PARTS)),
      r1Ohm: field('regulator.r1Ohm'),
      r2Ohm: field('regulator.r2Ohm'),
      potOhm: field('regulator.potOhm'),
      adjCapacitor: flag,
    }),
  'low-dropout': () =>
    group({
      kind: oneOf(['low-dropout']),
      part: oneOf(Object.keys(LOW_DROPOUT_PARTS)),
      outputV: field('regulator.outputV'),
      boardCm2: field('regulator.boardCm2'),
    }),
  follower: () =>
    group({
      kind: oneOf(['follower']),
      ...passStage,
      zenerV: field('regulator.zenerV'),
      zenerW: field('regulator.zenerW'),
      transistor: oneOf(PASS_TRANSISTORS.map((t) => t.id)),
      seriesOhm: field('regulator.seriesOhm'),
      limitOhm: field('regulator.limitOhm'),
    }),
  'error-transistor': () =>
    group({
      kind: oneOf(['error-transistor']),
      ...passStage,
      zenerV: field('regulator.zenerV'),
      upperOhm: field('regulator.upperOhm'),
      potOhm: field('regulator.potOhm'),
      lowerOhm: field('regulator.lowerOhm'),
      transistor: oneOf(PASS_TRANSISTORS.map((t) => t.id)),
      driveOhm: field('regulator.driveOhm'),
      limitOhm: field('regulator.limitOhm'),
    }),
  bench: () =>
    group({
      kind: oneOf(['bench']),
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
      transistor: oneOf(PASS_TRANSISTORS.map((t) => t.id)),
      ...passStage,
      referencePct: field('regulator.referencePct'),
      opampRail: oneOf(['raw', 'own']),
      opampMaxV: field('regulator.opampMaxV'),
      shuntPct: field('regulator.shuntPct'),
      resistorPct: field('regulator.resistorPct'),
    }),
};

export const regulatorSchema = yup.lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  const family = REGULATOR_KINDS.find((k) => k === kind);
  return family ? FAMILY_SCHEMAS[family]() : group({ kind: oneOf(['none', ...REGULATOR_KINDS]) });
});

export const preRegulatorSchema = yup.lazy((value: unknown) => {
  switch ((value as { kind?: unknown } | null)?.kind) {
    case 'fixed':
      return group({
        kind: oneOf(['fixed']),
        size: oneOf(REGULATOR_SIZES.map((r) => r.id as string)),
        outputV: madeOutput(),
      });
    case 'tracking':
      return group({
        kind: oneOf(['tracking']),
        aboveV: field('regulator.aboveV'),
        transistor: oneOf(PASS_TRANSISTORS.map((t) => t.id)),
      });
    case 'zener':
      return group({
        kind: oneOf(['zener']),
        zenerV: field('regulator.zenerV'),
        seriesOhm: field('regulator.seriesOhm'),
        transistor: oneOf(PASS_TRANSISTORS.map((t) => t.id)),
      });
    default:
      return group({ kind: oneOf(['none', 'fixed', 'tracking', 'zener']) });
  }
});
