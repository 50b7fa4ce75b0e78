'use client';

import Link from 'next/link';
import type { MainsSide as MainsSideValues } from '@/core/design/design';
import { FUSE_A } from '@/core/parts/mains-current';
import { formatNominal } from '@/core/quantity/format';
import { stepInList } from '@/core/quantity/preferred';
import { Alert } from '@/ui/alert';
import { ChoiceField } from '@/ui/choice-field';
import { TwoSides } from '@/ui/two-sides';
import { FigureList } from '@/ui/figure-list';
import { roomPath } from '@/ui/places';
import { QuantityField } from '@/ui/quantity-field';
import { Room } from '@/ui/room';
import { useDesign, useEdit, useView } from '@/ui/session';
import { CheckList } from './check-list';
import { MainsCaution } from './mains-caution';
import { useMainsReport } from './use-mains-report';

/** Mains side: fuses, switch, insulation and discharge, chosen and judged. */
export function MainsSide() {
  const design = useDesign();
  const edit = useEdit();
  const id = useView((s) => s.id);
  const { mainsSide: side } = design;
  const dc = design.source.kind !== 'mains';
  const set = (part: Partial<MainsSideValues>) => edit({ mainsSide: part });

  const { value: report, trouble } = useMainsReport();
  /** What is chosen here; what has to be looked at on the box itself is on the checklist. */
  const chosen = report?.points.filter((p) => p.state !== 'look') ?? [];
  const wrong = chosen.filter((p) => p.state === 'wrong').length;
  const left = report ? report.points.length - chosen.length : 0;
  return (
    <Room name={dc ? 'Source side' : 'Mains side'}>
      <MainsCaution />
      {trouble && <Alert className="mb-2">{trouble} What is shown is from the last values that could be solved.</Alert>}
      <div className="grid max-w-[1320px] grid-cols-[minmax(0,1fr)] gap-6 min-[800px]:grid-cols-[minmax(0,1fr)_minmax(300px,400px)]">
        <section aria-label="What is chosen">
          <h2 className="text-[20px] font-semibold" aria-live="polite">
            {!report
              ? 'Looking…'
              : wrong > 0
                ? `${wrong} ${wrong === 1 ? 'choice stands' : 'choices stand'} against plugging it in`
                : 'Nothing chosen here stands against plugging it in'}
          </h2>
          {report && <CheckList points={chosen} report={report} />}
          {left > 0 && (
            <p className="mt-2 border-t border-rule/60 pt-2">
              {left} more to look at on the box itself:{' '}
              <Link className="font-semibold underline" href={roomPath(id, 'checklist')}>
                the checklist
              </Link>
              , under Build.
            </p>
          )}
        </section>
        <aside className="space-y-4">
          <div className="grid grid-cols-2 gap-3">
            {!dc && (
              <ChoiceField
                label="Insulation"
                value={side.insulation}
                options={[
                  { value: 'class I', label: 'class I, earthed' },
                  { value: 'class II', label: 'class II, double' },
                ]}
                onChange={(insulation: 'class I' | 'class II') => set({ insulation })}
              />
            )}
            <ChoiceField
              label="Box"
              value={side.box}
              options={[
                { value: 'metal', label: 'metal' },
                { value: 'plastic', label: 'plastic' },
              ]}
              onChange={(box: 'metal' | 'plastic') => set({ box })}
            />
            {!dc && (
              <QuantityField
                path="mainsSide.primaryFuseA"
                value={side.primaryFuseA}
                placeholder={report?.primaryFuseA ? `${formatNominal(report.primaryFuseA, 'A')} fits` : 'not chosen'}
                step={(v, d) => stepInList(v, FUSE_A, d)}
                onCommit={(v) => set({ primaryFuseA: v })}
              />
            )}
            <QuantityField
              path="mainsSide.secondaryFuseA"
              label={dc ? 'Fuse in the lead' : undefined}
              value={side.secondaryFuseA}
              placeholder="none"
              step={(v, d) => stepInList(v, FUSE_A, d)}
              onCommit={(v) => set({ secondaryFuseA: v })}
            />
            {!dc && (
              <>
                <ChoiceField
                  label="Plug"
                  value={side.polarised ? 'one' : 'both'}
                  options={[
                    { value: 'both', label: 'either way round' },
                    { value: 'one', label: 'one way only' },
                  ]}
                  onChange={(v: string) => set({ polarised: v === 'one' })}
                />
                <ChoiceField
                  label="Switch"
                  value={String(side.switchPoles)}
                  options={[
                    { value: '2', label: 'two poles' },
                    { value: '1', label: 'one pole' },
                  ]}
                  onChange={(v: string) => set({ switchPoles: v === '1' ? 1 : 2 })}
                />
                <div className="col-start-2 self-end">
                  <TwoSides question="switch" />
                </div>
              </>
            )}
          </div>
          {!dc && (
            <div className="space-y-1 text-[14px]">
              {(
                [
                  ['homeWound', 'The transformer is home-wound'],
                  ['softStart', 'Soft start'],
                  ['thermalCutout', 'Thermal cut-out'],
                ] as const
              ).map(([key, label]) => (
                <label key={key} className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="accent-volt"
                    checked={side[key]}
                    onChange={(e) => set({ [key]: e.target.checked })}
                  />
                  {label}
                </label>
              ))}
            </div>
          )}
          <FigureList label="Figures" figures={report?.figures ?? []} />
        </aside>
      </div>
    </Room>
  );
}
