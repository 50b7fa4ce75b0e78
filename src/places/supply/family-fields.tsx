'use client';

import { regulatorOfKind } from '@/core/design/regulator-edit';
import type { Design, Regulator } from '@/core/design/design';
import type { FieldPath } from '@/core/design/limits';
import { REGULATOR_SIZES, regulatorSize } from '@/core/parts/regulators/fixed';
import { regulatorModel } from '@/core/parts/regulators';
import { ADJUSTABLE_IDS, ADJUSTABLE_PARTS } from '@/core/parts/regulators/adjustable';
import { LOW_DROPOUT_PARTS } from '@/core/parts/regulators/low-dropout';
import { PASS_TRANSISTORS } from '@/core/parts/transistor';
import { formatNominal } from '@/core/quantity/format';
import { E12, E24, nearestInList } from '@/core/quantity/preferred';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { by, inDecades } from '@/ui/stepping';

const FAMILY_NAMES: Readonly<Record<Regulator['kind'], string>> = {
  none: 'None',
  fixed: 'Fixed three-terminal',
  adjustable: 'Adjustable three-terminal',
  'low-dropout': 'Low-dropout',
  follower: 'Zener and follower',
  'error-transistor': 'Zener, error and pass transistor',
  bench: 'Op-amp, volts and amps set',
};
const FAMILIES = (Object.keys(FAMILY_NAMES) as Regulator['kind'][]).map((value) => ({
  value,
  label: FAMILY_NAMES[value],
}));

type Values = Record<string, number | string | boolean | null>;

/** The family of one regulator and what sets it. */
export function FamilyFields({
  regulator,
  design,
  onChange,
}: {
  regulator: Regulator;
  /** What another family is made to suit: its load and its present output. */
  design: Design;
  onChange(regulator: Regulator): void;
}) {
  const model = regulatorModel(regulator);
  const set = (values: Values) => onChange({ ...regulator, ...values } as Regulator);

  /** A field of the regulator whose member is called as its limit. */
  const quantity = (name: string, step?: (v: number, d: number) => number, placeholder?: string) => (
    <QuantityField
      key={name}
      path={`regulator.${name}` as FieldPath}
      value={(regulator as unknown as Record<string, number | null>)[name] ?? null}
      {...(step ? { step } : {})}
      {...(placeholder ? { placeholder } : {})}
      onCommit={(v) => set({ [name]: name === 'passes' ? Math.round(v!) : v })}
    />
  );
  const transistor = 'transistor' in regulator && (
    <ChoiceField
      label="Pass transistor"
      value={regulator.transistor}
      options={PASS_TRANSISTORS.map((t) => ({ value: t.id, label: t.name }))}
      onChange={(id) => set({ transistor: id })}
    />
  );

  return (
    <>
      <ChoiceField
        label="Family"
        value={regulator.kind}
        options={FAMILIES}
        onChange={(kind) => kind !== regulator.kind && onChange(regulatorOfKind(design, kind))}
      />
      {regulator.kind === 'fixed' && (
        <>
          <ChoiceField
            label="Part"
            value={regulator.size}
            options={REGULATOR_SIZES.map((s) => ({ value: s.id, label: `${s.id}, ${formatNominal(s.ratedA, 'A')}` }))}
            onChange={(size) => set({ size, outputV: nearestInList(regulator.outputV, regulatorSize(size).outputsV) })}
          />
          <ChoiceField
            label="Output"
            value={String(regulator.outputV)}
            options={regulatorSize(regulator.size).outputsV.map((v) => ({
              value: String(v),
              label: formatNominal(v, 'V'),
            }))}
            onChange={(v) => set({ outputV: Number(v) })}
          />
        </>
      )}
      {regulator.kind === 'adjustable' && (
        <>
          <ChoiceField
            label="Part"
            value={regulator.part}
            options={ADJUSTABLE_IDS.map((value) => ({
              value,
              label: `${value}, ${formatNominal(ADJUSTABLE_PARTS[value].ratedA, 'A')}`,
            }))}
            onChange={(part) => set({ part })}
          />
          {quantity('r1Ohm', inDecades(E24))}
          {quantity('r2Ohm', inDecades(E24))}
          {quantity('potOhm', inDecades(E12), 'none')}
        </>
      )}
      {regulator.kind === 'low-dropout' && (
        <>
          <ChoiceField
            label="Part"
            value={regulator.part}
            options={Object.entries(LOW_DROPOUT_PARTS).map(([value, p]) => ({ value, label: p.name }))}
            onChange={(part) => set({ part })}
          />
          {quantity('outputV', by(0.1))}
          {model && !model.pass.takesSink && quantity('boardCm2', by(1))}
        </>
      )}
      {regulator.kind === 'follower' && (
        <>
          {quantity('zenerV', inDecades(E24))}
          {transistor}
          {quantity('seriesOhm', inDecades(E12))}
          {quantity('limitOhm', inDecades(E12), 'no limit')}
        </>
      )}
      {regulator.kind === 'error-transistor' && (
        <>
          {quantity('zenerV', inDecades(E24))}
          {quantity('upperOhm', inDecades(E24))}
          {quantity('potOhm', inDecades(E12), 'none')}
          {quantity('lowerOhm', inDecades(E24))}
          {transistor}
          {quantity('driveOhm', inDecades(E12))}
          {quantity('limitOhm', inDecades(E12), 'no limit')}
        </>
      )}
      {regulator.kind === 'bench' && (
        <>
          {quantity('maxV', by(1))}
          {quantity('limitA', by(0.1))}
          {transistor}
          {quantity('passes', by(1))}
          {quantity('shuntOhm', inDecades(E12))}
          {quantity('opampMaxV', by(2))}
        </>
      )}
    </>
  );
}
