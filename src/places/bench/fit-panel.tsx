'use client';

import { useCallback, useState } from 'react';
import type { FactorId } from '@/core/bench/factors';
import type { DesignFit } from '@/core/bench/fit-design';
import { takenWords } from '@/core/bench/taken-words';
import { movables } from '@/core/bench/movables';
import type { Design, LogEntry } from '@/core/design/design';
import { LOG_MAX } from '@/core/design/how-many';
import { formatQuantity } from '@/core/quantity/format';
import type { Unit } from '@/core/quantity/parse';
import type { Figure } from '@/core/study/figure';
import { Alert } from '@/ui/alert';
import { keepRevision } from '@/ui/revisions';
import { FigureButton } from '@/ui/figure-button';
import { Working } from '@/ui/working';
import { useDesign, useSession, useView } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { endOf } from '@/workers/go-through';
import { Residuals } from './residuals';

/** So many rows and readings mostly are a fit. */
const LIKELY = 2;

/** Fit: the values with which the design behaves like the box, what decided them, and what it then says of itself. */
export function FitPanel() {
  const design = useDesign();
  const may = movables(design);
  const [held, setHeld] = useState<readonly FactorId[]>([]);
  const ask = useCallback(
    (solver: RemoteSolver, of: Design) =>
      endOf(solver, 'fit', {
        design: of,
        moving: movables(of)
          .map((m) => m.id)
          .filter((id) => !held.includes(id)),
      }),
    [held],
  );
  const { value: found, of, trouble } = useSolved(ask, { waitMs: 250 });
  const stale = of !== null && of !== design;
  // Room is kept for what is likely to come, so that nothing below it moves.
  const likely = design.bench.loadLine.length + design.bench.readings.length >= LIKELY;
  return (
    <section
      aria-label="Fit"
      className={`mt-5 border-t-2 border-ink pt-3 ${likely ? 'min-h-[440px]' : 'min-h-[72px]'}`}
    >
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <h2 className="text-[19px] font-semibold">The design that behaves like it</h2>
        <fieldset className="flex flex-wrap gap-x-4 text-[14px]">
          <legend className="float-left mr-3 text-quiet">May move:</legend>
          {may.map((m) => (
            <label key={m.id} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-volt"
                checked={!held.includes(m.id)}
                onChange={(e) => setHeld(e.target.checked ? held.filter((h) => h !== m.id) : [...held, m.id])}
              />
              {SHORT[m.id]}
            </label>
          ))}
        </fieldset>
      </div>
      {trouble && (
        <p role="alert" className="mt-2 text-fail">
          These readings could not be fitted. {trouble}
        </p>
      )}
      {found === null && !trouble && (
        <p className="mt-2 text-quiet" aria-live="polite">
          Fitting…
        </p>
      )}
      {typeof found === 'string' && <p className="mt-2 text-quiet">{found}</p>}
      {found !== null && typeof found !== 'string' && (
        <div className={stale ? 'opacity-60' : ''} aria-busy={stale}>
          <Found fit={found} />
        </div>
      )}
    </section>
  );
}

const SHORT: Readonly<Record<FactorId, string>> = {
  open: 'open volts',
  copper: 'copper',
  capacitance: 'reservoir',
  diode: 'rectifier drop',
  sink: 'heatsink',
};

/** A value with as many figures as its spread leaves sure. */
function plusMinus(value: number, sigma: number, unit: Unit): string {
  const sure = Math.ceil(Math.log10(Math.max(Math.abs(value) / Math.max(sigma, 1e-12), 1))) + 1;
  const figures = Math.min(5, Math.max(1, sure));
  const rounded = Number(value.toPrecision(figures));
  return `${formatQuantity(rounded, unit, figures)} ±${formatQuantity(Number(sigma.toPrecision(2)), unit === '°C' ? 'K' : unit, 2)}`;
}

/** A log with what was taken; as it is where it is full. */
const logged = (log: Design['log'], entry: LogEntry) => (log.length >= LOG_MAX ? {} : { log: [...log, entry] });

function Found({ fit }: { fit: DesignFit }) {
  const { document } = useSession();
  const designId = useView((s) => s.id);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [opened, setOpened] = useState<string | null>(null);
  const open = [...fit.values, ...fit.forecasts].map((v) => v.figure).find((f) => f.id === opened);
  const cell = (v: { figure: Figure; value: number; sigma: number; unit: Unit }) => (
    <FigureButton figure={v.figure} text={plusMinus(v.value, v.sigma, v.unit)} open={opened} onOpen={setOpened} />
  );
  /** Nothing is taken that is not kept first as it was. */
  async function take() {
    const { what, why } = takenWords(fit);
    const day = new Date().toISOString().slice(0, 10);
    const design = document.getState().design;
    const before = await keepRevision(designId, { name: `Before the fit of ${day}`, why: '', design }, true);
    if (!before.ok) return setTrouble(`Not taken: how it stands could not be kept. ${before.refusal.sentence}`);
    document
      .getState()
      .edit({ ...fit.patch, ...logged(document.getState().design.log, { day, what, why, photos: [] }) });
    const after = await keepRevision(
      designId,
      { name: `Fitted ${day}`, why: what, design: document.getState().design },
      true,
    );
    setTrouble(after.ok ? null : `Taken, but not kept as a revision. ${after.refusal.sentence}`);
  }
  const wrong = fit.rows.filter((r) => r.wrong);
  return (
    <div className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 min-[1000px]:grid-cols-[minmax(0,1fr)_minmax(320px,420px)]">
      <div className="space-y-3">
        <p className="text-[16px]" data-testid="fit-words">
          {fit.words}
        </p>
        {wrong.map((r) => (
          <p key={r.id} role="alert" className="font-semibold text-fail" data-testid="fit-wrong">
            ✕ {r.label} is {formatQuantity(Math.abs(r.computed - r.read), r.unit === '°C' ? 'K' : r.unit, 2)} off,
            everything else agrees: retype it? It is kept and left out of the fit.
          </p>
        ))}
        <table className="w-full text-[14.5px]">
          <thead className="text-left text-[13px] text-quiet">
            <tr>
              <th className="font-normal">Value</th>
              <th className="text-right font-normal">in the design</th>
              <th className="text-right font-normal">fitted</th>
              <th className="pl-4 font-normal">decided by</th>
            </tr>
          </thead>
          <tbody>
            {fit.values.map((v) => (
              <tr key={v.id} className="border-t border-rule/60">
                <td className="py-0.5">{v.label}</td>
                <td className="text-right tabular-nums">{formatQuantity(v.before, v.unit)}</td>
                <td className="text-right font-semibold tabular-nums">{cell(v)}</td>
                <td className="pl-4">
                  {v.decidedBy === 'readings' ? 'your readings' : 'what is believed of its kind'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="text-[13px] text-quiet">± holds two times of three; twice as much, nineteen of twenty.</p>
        {fit.entangled.map((e) => (
          <p key={e} className="text-[14px]">
            {e}
          </p>
        ))}
        <table className="w-full text-[14.5px]">
          <caption className="text-left text-[13px] text-quiet">What the design then says of itself</caption>
          <tbody>
            {fit.forecasts.map((f) => (
              <tr key={f.label} className="border-t border-rule/60">
                <td className="py-0.5">{f.label}</td>
                <td className="text-right tabular-nums text-quiet">before {formatQuantity(f.before, f.unit)}</td>
                <td className="text-right font-semibold tabular-nums">{cell(f)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {open && (
          <div className="border-l-2 border-volt pl-3">
            <Working figure={open} />
          </div>
        )}
        {fit.next && <p className="text-[14.5px]">Worth reading next: {fit.next}.</p>}
        <div>
          <button
            type="button"
            className="btn btn-main"
            disabled={Object.keys(fit.patch).length === 0}
            onClick={() => void take()}
          >
            Take these values
          </button>
          {trouble && <Alert className="mt-1">{trouble}</Alert>}
          <p className="mt-1 text-[13px] text-quiet">
            They become the design’s own, with what is left unsure as its tolerances; every verdict, corner and window
            follows. How it stood and how it then stands are kept as revisions, and the log says what was taken. The
            rectifier stays its class.
          </p>
        </div>
      </div>
      <Residuals rows={fit.rows} />
    </div>
  );
}
