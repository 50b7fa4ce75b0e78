'use client';

import { PASS_TRANSISTORS, passTransistor } from '@/core/parts/transistor';
import type { Regulator, RegulatorSheet } from '@/core/design/design';
import { NO_REGULATOR_SHEET } from '@/core/design/defaults';
import type { FieldPath } from '@/core/design/limits';
import { PACKAGES, packageOf, type PackageId } from '@/core/parts/packages';
import type { Unit } from '@/core/quantity/parse';
import { regulatorModel } from '@/core/parts/regulators';
import { formatNominal } from '@/core/quantity/format';
import { E12 } from '@/core/quantity/preferred';
import { ChoiceField } from '@/ui/choice-field';
import { TwoSides } from '@/ui/two-sides';
import { QuantityField } from '@/ui/quantity-field';
import { by, inDecades } from '@/ui/stepping';

export interface Props {
  regulator: Regulator;
  sheet: RegulatorSheet | null;
  onRegulator(regulator: Regulator): void;
  onSheet(sheet: RegulatorSheet | null): void;
}

export function Fields({ regulator, sheet, onRegulator, onSheet }: Props) {
  const model = regulatorModel(regulator);
  if (!model) return null;
  const set = (part: Partial<RegulatorSheet>) => {
    const next = { ...(sheet ?? NO_REGULATOR_SHEET), ...part };
    onSheet(Object.values(next).every((v) => v === null) ? null : next);
  };
  const own = sheet ?? NO_REGULATOR_SHEET;
  const transistor = 'transistor' in regulator ? passTransistor(regulator.transistor) : null;
  const figures: [Exclude<keyof RegulatorSheet, 'package'>, number, Unit][] = [
    ['inputMaxV', model.inputMaxV, 'V'],
    ['dropoutV', model.dropoutV + model.dropoutOhm * model.ratedA, 'V'],
    ['ratedA', model.ratedA, 'A'],
    ['jcKPerW', model.pass.jcKPerW, 'K/W'],
    ['jaKPerW', own.package ? packageOf(own.package).jaKPerW : model.pass.jaKPerW, 'K/W'],
    ...(transistor
      ? ([
          ['powerW', transistor.powerW, 'W'],
          ['breakdownV', transistor.secondBreakdownV, 'V'],
        ] as [Exclude<keyof RegulatorSheet, 'package'>, number, Unit][])
      : []),
  ];
  const typical = (v: number, unit: Unit) => `class ${formatNominal(Number(v.toPrecision(3)), unit)}`;
  return (
    <div className="space-y-4 text-[14px]">
      <Discrete regulator={regulator} onRegulator={onRegulator} />
      <section>
        <h3 className="text-[16px] font-semibold">By its data sheet</h3>
        <div className="grid grid-cols-3 gap-3">
          <ChoiceField
            label="Housing"
            value={own.package ?? 'class'}
            options={[
              { value: 'class', label: `class ${model.pass.package}` },
              ...PACKAGES.map((p) => ({ value: p.id, label: p.id })),
            ]}
            onChange={(id) => set({ package: id === 'class' ? null : (id as PackageId) })}
          />
          {figures.map(([name, value, unit]) => (
            <QuantityField
              key={name}
              path={`regulator.${name}`}
              value={own[name]}
              placeholder={typical(value, unit)}
              onCommit={(v) => set({ [name]: v })}
            />
          ))}
        </div>
      </section>
    </div>
  );
}

/** Transistors of a discrete regulator as they were measured, its reference and its tolerances. */
function Discrete({ regulator, onRegulator }: Pick<Props, 'regulator' | 'onRegulator'>) {
  if (regulator.kind !== 'follower' && regulator.kind !== 'error-transistor' && regulator.kind !== 'bench') return null;
  const field = (name: string, step?: (v: number, d: number) => number, placeholder?: string) => (
    <QuantityField
      key={name}
      path={`regulator.${name}` as FieldPath}
      value={(regulator as unknown as Record<string, number | null>)[name] ?? null}
      {...(step ? { step } : {})}
      {...(placeholder ? { placeholder } : {})}
      onCommit={(v) => onRegulator({ ...regulator, [name]: name === 'passes' ? Math.round(v!) : v })}
    />
  );
  return (
    <section>
      <h3 className="text-[16px] font-semibold">As it is built</h3>
      <div className="grid grid-cols-3 gap-3">
        <ChoiceField
          label="Pass transistor"
          value={regulator.transistor}
          options={PASS_TRANSISTORS.map((t) => ({ value: t.id, label: t.name }))}
          onChange={(transistor) => onRegulator({ ...regulator, transistor })}
        />
        {field('passes', by(1))}
        {field('emitterOhm', inDecades(E12))}
        {field('gain', by(5), `class ${passTransistor(regulator.transistor).gain}`)}
        {regulator.kind === 'follower' && field('zenerW', by(0.5))}
        {regulator.kind === 'bench' && (
          <>
            {field('referenceV', by(0.1))}
            {field('referencePct', by(0.5))}
            {field('shuntPct', by(0.5))}
            {field('resistorPct', by(0.5))}
            <div className="self-end">
              <TwoSides question="precision" />
            </div>
            <ChoiceField
              label="Op-amps fed from"
              value={regulator.opampRail}
              options={[
                { value: 'raw', label: 'the raw rail' },
                { value: 'own', label: 'a rail of their own' },
              ]}
              onChange={(opampRail) => onRegulator({ ...regulator, opampRail })}
            />
          </>
        )}
      </div>
    </section>
  );
}
