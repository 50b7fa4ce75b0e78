'use client';

import type { MainsSide as MainsSideValues } from '@/core/design/design';
import { FUSE_A } from '@/core/parts/mains-current';
import { formatNominal } from '@/core/quantity/format';
import { nearestInDecades, E12, stepInList } from '@/core/quantity/preferred';
import { cautions } from '@/core/sheet/cautions';
import { ChoiceField } from '@/ui/choice-field';
import { FigureList } from '@/ui/figure-list';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit, useView } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { useSolved } from '@/ui/use-solved';
import type { Design } from '@/core/design/design';

const askSide = (solver: RemoteSolver, design: Design) => solver.mainsSide(design);

const SIGNS = { wrong: '✗', done: '●', look: '○' } as const;

/** Mains side: is it safe to plug in? */
export function MainsSide() {
  const design = useDesign();
  const edit = useEdit();
  const hazard = useView((s) => s.picture?.hazard ?? null);
  const { mainsSide: side } = design;
  const dc = design.source.kind !== 'mains';
  const set = (part: Partial<MainsSideValues>) => edit({ mainsSide: part });

  const { value: report, trouble } = useSolved(askSide);

  const wrong = report?.points.filter((p) => p.state === 'wrong').length ?? 0;
  const look = report?.points.filter((p) => p.state === 'look' && !side.ticked.includes(p.id)).length ?? 0;
  return (
    <main className="min-h-0 flex-1 overflow-auto px-4 py-3">
      <div className="mb-3 max-w-[1320px] rounded border-2 border-fail bg-fail-soft px-4 py-2 text-[14px]">
        <p className="font-semibold text-fail">
          {dc ? 'Where direct current comes in.' : 'Mains can kill.'} This page informs, it certifies nothing: local
          electrical codes and a licensed electrician decide.
        </p>
        <p>
          {cautions(design, hazard, null)
            .filter((line) => !line.includes('certifies nothing'))
            .slice(0, 3)
            .join(' ')}
        </p>
      </div>
      {trouble && (
        <p role="alert" className="mb-2 text-fail">
          {trouble} What is shown is from the last values that could be solved.
        </p>
      )}
      <div className="grid max-w-[1320px] grid-cols-[minmax(0,1fr)_400px] gap-6">
        <section aria-label="Checklist">
          <h2 className="text-[20px] font-semibold">
            {report
              ? wrong > 0
                ? `${wrong} ${wrong === 1 ? 'point stands' : 'points stand'} against plugging it in`
                : look > 0
                  ? `Nothing speaks against it; ${look} left to look at`
                  : 'Everything is looked at'
              : 'Looking…'}
          </h2>
          <ul className="mt-2">
            {report?.points.map((p) => {
              const ticked = side.ticked.includes(p.id);
              return (
                <li key={p.id} className="flex items-start gap-2.5 border-t border-rule/60 py-1.5">
                  {p.state === 'look' ? (
                    <input
                      type="checkbox"
                      className="mt-1 accent-volt"
                      aria-label={p.text}
                      checked={ticked}
                      onChange={(e) =>
                        set({
                          ticked: e.target.checked ? [...side.ticked, p.id] : side.ticked.filter((t) => t !== p.id),
                        })
                      }
                    />
                  ) : (
                    <span
                      className={`w-[13px] shrink-0 text-center font-bold ${p.state === 'wrong' ? 'text-fail' : 'text-volt'}`}
                      role="img"
                      aria-label={p.state === 'wrong' ? 'wrong' : 'done'}
                    >
                      {SIGNS[p.state]}
                    </span>
                  )}
                  <span className={p.state === 'wrong' ? 'font-medium' : ''}>
                    {p.text}
                    <span className="block text-[13px] font-normal text-quiet">{p.why}</span>
                  </span>
                  <span className="flex-1" />
                  {p.id === 'fuse' && p.state === 'wrong' && (
                    <button type="button" className="btn" onClick={() => set({ primaryFuseA: report.primaryFuseA })}>
                      {formatNominal(report.primaryFuseA!, 'A')}
                    </button>
                  )}
                  {(p.id === 'secondary-fuse' || p.id === 'lead-fuse') && p.state === 'wrong' && (
                    <button
                      type="button"
                      className="btn"
                      onClick={() => set({ secondaryFuseA: report.secondaryFuseA })}
                    >
                      {formatNominal(report.secondaryFuseA!, 'A')}
                    </button>
                  )}
                  {p.id === 'switch' && p.state === 'wrong' && (
                    <button type="button" className="btn" onClick={() => set({ switchPoles: 2 })}>
                      Both poles
                    </button>
                  )}
                  {p.id === 'bleeder' && p.state === 'wrong' && (
                    <button
                      type="button"
                      className="btn"
                      onClick={() => edit({ filter: { bleederOhm: nearestInDecades(0.9 * report.bleederOhm!, E12) } })}
                    >
                      Fit one
                    </button>
                  )}
                </li>
              );
            })}
          </ul>
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
    </main>
  );
}
