'use client';

import { useRef, useState, type RefObject } from 'react';
import type { Instrument } from '@/core/study/instrument';
import { layOver, type ScopeRun, type Traces } from '@/core/study/scope-shapes';
import { formatQuantity } from '@/core/quantity/format';
import { ChoiceField } from '@/ui/choice-field';
import { MOST_SHOWN, STROKES, stepDivision, valueAt, type Channel, type Shown } from './channel';
import { save } from '@/ui/download';
import { screenPng, standaloneSvg, tracesCsv } from './export';
import { FigureRow } from '@/ui/figure-row';
import { RunSetting, runsOf } from './runs';
import type { Overlay } from './screen';
import { useDesign } from '@/ui/session';

interface Props {
  run: ScopeRun;
  onRun(run: ScopeRun): void;
  traces: Traces | null;
  channels: Channel[];
  onChannel(id: string, part: Partial<Channel>): void;
  shown: readonly Shown[];
  cursors: readonly [number, number];
  time: { perDivisionS: number | null; spanS: number; lengthS: number; fromS: number };
  onTime(perDivisionS: number | null, fromS: number): void;
  instrument: Instrument;
  onInstrument(instrument: Instrument): void;
  spectrum: boolean;
  onSpectrum(on: boolean): void;
  overlay: Overlay | null;
  onOverlay(overlay: Overlay | null): void;
  svg: RefObject<SVGSVGElement | null>;
  name: string;
}

const PER_DIVISION_S = [5e-4, 1e-3, 2e-3, 5e-3, 10e-3, 20e-3, 50e-3, 0.1];

/** A single pole of a limiter, a sound card, a cheap pocket scope. */
const BANDWIDTHS_HZ = [null, 20_000, 5_000, 1_000] as const;
/** From a quiet bench scope to a pocket one. */
const NOISES_RMS = [0, 0.2e-3, 1e-3, 5e-3, 20e-3] as const;

/** Everything that is set on the scope, in the order it is used: what runs, what is probed, what is read off, what is kept. */
export function Panel(p: Props) {
  const { run, onRun, traces, channels, onChannel: change, shown, cursors, time, onTime } = p;
  const runs = runsOf(useDesign());
  const on = channels.filter((c) => c.shown).length;
  return (
    <aside
      aria-label="Scope settings"
      className="flex min-h-0 flex-col gap-3 overflow-y-auto border-l border-rule bg-raised px-4 py-2.5"
    >
      <div className="grid grid-cols-2 gap-x-3 gap-y-1.5">
        <ChoiceField
          label="Run"
          value={run.kind}
          options={runs}
          onChange={(kind) => onRun(runs.find((r) => r.value === kind)!.first)}
        />
        <RunSetting run={run} onRun={onRun} />
        <ChoiceField
          label="Time a division"
          value={time.perDivisionS === null ? 'fit' : String(time.perDivisionS)}
          options={[
            { value: 'fit', label: 'whole run' },
            ...PER_DIVISION_S.filter((s) => 12 * s < time.lengthS).map((s) => ({
              value: String(s),
              label: formatQuantity(s, 's'),
            })),
          ]}
          onChange={(v) => onTime(v === 'fit' ? null : Number(v), time.fromS)}
        />
        {time.spanS < time.lengthS - 1e-9 && (
          <label className="text-[13px] text-quiet">
            From
            <input
              type="range"
              className="mt-2 w-full accent-volt"
              min={0}
              max={time.lengthS - time.spanS}
              step={time.lengthS / 500}
              value={time.fromS}
              onChange={(e) => onTime(time.perDivisionS, Number(e.target.value))}
            />
          </label>
        )}
      </div>

      {/* Probes and cursors have their room before the first sweep is there. */}
      <section aria-label="Probes" className={traces ? '' : 'min-h-[218px]'}>
        <table className="w-full border-collapse text-[14px]">
          <thead className="text-left text-[12.5px] text-quiet">
            <tr>
              <th className="font-normal">Probe</th>
              <th className="font-normal">A division</th>
              <th className="px-1.5 text-center font-normal">AC</th>
              <th className="px-1.5 text-center font-normal">×10</th>
            </tr>
          </thead>
          <tbody>
            {channels.map((c) => {
              const trace = traces?.traces.find((t) => t.id === c.id);
              if (!trace) return null;
              const s = shown.find((x) => x.trace.id === c.id);
              return (
                <tr key={c.id} className="border-t border-rule/60">
                  <td className="py-[3px] text-[13.5px]">
                    <label className="flex items-center gap-1">
                      <input
                        type="checkbox"
                        className="accent-volt"
                        checked={c.shown}
                        disabled={!c.shown && on >= MOST_SHOWN}
                        onChange={(e) => change(c.id, { shown: e.target.checked })}
                      />
                      <span style={s ? { color: STROKES[s.place]!.colour, fontWeight: 650 } : undefined}>
                        {trace.label}
                      </span>
                    </label>
                  </td>
                  <td className="whitespace-nowrap pl-1.5">
                    {s && (
                      <>
                        <Nudge
                          label={`${trace.label}: fewer a division`}
                          sign="−"
                          onClick={() => change(c.id, { perDivision: stepDivision(s.perDivision, -1) })}
                        />
                        <button
                          type="button"
                          className={`min-w-[58px] text-center ${c.perDivision === null ? 'text-quiet' : 'font-semibold'}`}
                          title="Back to fitting the trace"
                          onClick={() => change(c.id, { perDivision: null })}
                        >
                          {formatQuantity(s.perDivision, trace.unit)}
                        </button>
                        <Nudge
                          label={`${trace.label}: more a division`}
                          sign="+"
                          onClick={() => change(c.id, { perDivision: stepDivision(s.perDivision, 1) })}
                        />
                      </>
                    )}
                  </td>
                  <td className="text-center">
                    {s && (
                      <input
                        type="checkbox"
                        className="accent-volt"
                        aria-label={`${trace.label}: AC coupled`}
                        checked={c.ac}
                        onChange={(e) => change(c.id, { ac: e.target.checked, perDivision: null })}
                      />
                    )}
                  </td>
                  <td className="text-center">
                    {s && (
                      <input
                        type="checkbox"
                        className="accent-volt"
                        aria-label={`${trace.label}: ×10 probe, scope set to ×1`}
                        checked={c.probe === 10}
                        onChange={(e) => change(c.id, { probe: e.target.checked ? 10 : 1 })}
                      />
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        {on >= MOST_SHOWN && (
          <p className="mt-1 text-[12.5px] text-quiet">Four traces fit; take one off for another.</p>
        )}
      </section>

      <section aria-label="Instrument" className="grid grid-cols-2 gap-x-3">
        <ChoiceField
          label="Bandwidth"
          value={String(p.instrument.bandwidthHz ?? 'all')}
          options={BANDWIDTHS_HZ.map((hz) => ({
            value: String(hz ?? 'all'),
            label: hz === null ? 'passes all' : formatQuantity(hz, 'Hz'),
          }))}
          onChange={(v) => p.onInstrument({ ...p.instrument, bandwidthHz: v === 'all' ? null : Number(v) })}
        />
        <ChoiceField
          label="Noise, RMS"
          value={String(p.instrument.noiseRms)}
          options={NOISES_RMS.map((v) => ({ value: String(v), label: v === 0 ? 'none' : formatQuantity(v, 'V') }))}
          onChange={(v) => p.onInstrument({ ...p.instrument, noiseRms: Number(v) })}
        />
      </section>

      {!traces && <div className="min-h-[142px]" />}
      {traces && shown.length > 0 && (
        <section aria-label="Cursors">
          <table className="w-full text-[14px] tabular-nums">
            <thead className="text-[12.5px] text-quiet">
              <tr>
                <th className="text-left font-normal">Cursors</th>
                <th className="text-right font-normal">A</th>
                <th className="text-right font-normal">B</th>
                <th className="text-right font-normal">B − A</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <td>t</td>
                <td className="text-right">{formatQuantity(cursors[0], 's')}</td>
                <td className="text-right">{formatQuantity(cursors[1], 's')}</td>
                <td className="text-right font-semibold">{formatQuantity(cursors[1] - cursors[0], 's')}</td>
              </tr>
              {shown.map((s) => {
                const a = valueAt(s.values, traces.stepS, cursors[0]);
                const b = valueAt(s.values, traces.stepS, cursors[1]);
                return (
                  <tr key={s.trace.id}>
                    <td style={{ color: STROKES[s.place]!.colour }}>{s.trace.label}</td>
                    <td className="text-right">{formatQuantity(a, s.trace.unit)}</td>
                    <td className="text-right">{formatQuantity(b, s.trace.unit)}</td>
                    <td className="text-right font-semibold">{formatQuantity(b - a, s.trace.unit)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <p className="mt-1 text-[13px] text-quiet">
            1/(B − A) ={' '}
            {Math.abs(cursors[1] - cursors[0]) > 1e-9
              ? formatQuantity(1 / Math.abs(cursors[1] - cursors[0]), 'Hz')
              : '–'}
          </p>
          <FigureRow label="Of this run" figures={traces.notes} />
        </section>
      )}

      {run.kind === 'steady' && <Measured {...p} />}

      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          aria-pressed={p.spectrum}
          disabled={shown.length === 0}
          onClick={() => p.onSpectrum(!p.spectrum)}
        >
          {p.spectrum ? 'Back to the traces' : 'Spectrum'}
        </button>
        <Exports {...p} />
      </div>
    </aside>
  );
}

function Nudge({ label, sign, onClick }: { label: string; sign: string; onClick(): void }) {
  return (
    <button
      type="button"
      aria-label={label}
      className="inline-grid h-[24px] w-[24px] place-items-center rounded border border-rule"
      onClick={onClick}
    >
      {sign}
    </button>
  );
}

/** A recording laid over the first trace: found by itself in time and level, its scale set by hand. */
/** What is asked of a scope: so many cycles of the mains over its divisions. */
const TRACE_CYCLES = 4;
const SCOPE_DIVISIONS = 10;

function Measured({ overlay, onOverlay, shown, traces }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [left, setLeft] = useState<number | null>(null);
  const [asking, setAsking] = useState(false);
  const [simulated, setSimulated] = useState(false);
  const { frequencyHz } = useDesign().mains;
  const first = shown[0];

  function lay(trace: Overlay['trace'], factor: number) {
    if (!first || !traces) return;
    const fit = layOver(trace, first.values, traces.stepS, traces.perCycle, factor);
    setLeft(fit.rmsLeft);
    onOverlay({ trace, factor, shiftS: fit.shiftS, offset: fit.offset });
  }

  async function read(file: File) {
    const { readTrace } = await import('./read-trace');
    const result = readTrace(await file.text());
    if (!result.ok) return setFault(`${file.name}: ${result.error}`);
    setFault(null);
    setSimulated(false);
    lay(result.trace, overlay?.factor ?? 1);
  }

  /** A trace of the entered scope, over a few cycles of what is shown. */
  async function take() {
    setAsking(true);
    const { traceFromScope } = await import('@/ui/instruments');
    const answer = await traceFromScope(TRACE_CYCLES / frequencyHz / SCOPE_DIVISIONS);
    setAsking(false);
    setFault(answer.ok ? null : answer.refusal.sentence);
    if (!answer.ok) return;
    setSimulated(answer.value.simulated);
    lay(answer.value, overlay?.factor ?? 1);
  }

  return (
    <section aria-label="Measured trace" className="border-t border-rule pt-2">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="text-[15px] font-semibold">Measured trace</h2>
        {overlay ? (
          <button type="button" className="btn" onClick={() => onOverlay(null)}>
            Remove it
          </button>
        ) : (
          <span className="flex gap-1.5">
            <button type="button" className="btn" disabled={!first || asking} onClick={() => void take()}>
              From the scope
            </button>
            <button type="button" className="btn" disabled={!first} onClick={() => input.current?.click()}>
              Lay a CSV over
            </button>
          </span>
        )}
      </div>
      <input
        ref={input}
        type="file"
        accept=".csv,.txt,.tsv,text/csv"
        className="sr-only"
        tabIndex={-1}
        aria-label="CSV of a measured trace"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void read(file);
          e.target.value = '';
        }}
      />
      {fault && (
        <p role="alert" className="mt-1 text-[13px] text-fail">
          {fault}
        </p>
      )}
      {overlay && first ? (
        <>
          <p className="mt-1 text-[13px] text-quiet">
            {simulated && <strong className="text-tight">Simulated, from a stand-in. </strong>}
            {overlay.trace.t.length} samples over “{first.trace.label}”: shifted by{' '}
            {formatQuantity(overlay.shiftS, 's')}, level by {formatQuantity(overlay.offset, first.trace.unit)}
            {left !== null ? `; ${formatQuantity(left, first.trace.unit)} RMS apart.` : '.'}
          </p>
          <div className="mt-1 flex gap-1.5" role="group" aria-label="Scale of the recording">
            {[0.1, 1, 10].map((f) => (
              <button
                key={f}
                type="button"
                className="btn"
                aria-pressed={overlay.factor === f}
                onClick={() => lay(overlay.trace, f)}
              >
                × {f}
              </button>
            ))}
          </div>
        </>
      ) : (
        <p className="mt-1 text-[13px] text-quiet">Two columns, time in seconds and value, lie over the first trace.</p>
      )}
    </section>
  );
}

function Exports({ shown, traces, svg, name, spectrum }: Props) {
  const file = (ending: string) =>
    `${
      name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'scope'
    }-scope.${ending}`;
  return (
    <>
      <button
        type="button"
        className="btn"
        disabled={!traces || shown.length === 0}
        onClick={() => save(file('csv'), new Blob([tracesCsv(shown, traces!.stepS)], { type: 'text/csv' }))}
      >
        CSV
      </button>
      <button
        type="button"
        className="btn"
        disabled={spectrum}
        onClick={() =>
          svg.current && save(file('svg'), new Blob([standaloneSvg(svg.current)], { type: 'image/svg+xml' }))
        }
      >
        SVG
      </button>
      <button
        type="button"
        className="btn"
        disabled={spectrum}
        onClick={() => svg.current && void screenPng(svg.current).then((blob) => save(file('png'), blob))}
      >
        PNG
      </button>
    </>
  );
}
