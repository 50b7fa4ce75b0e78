'use client';

import dynamic from 'next/dynamic';
import { useCallback, useLayoutEffect, useRef, useState } from 'react';
import type { Design } from '@/core/design/design';
import { IDEAL_INSTRUMENT, type Instrument } from '@/core/study/instrument';
import type { ScopeRun, Traces } from '@/core/study/scope-shapes';
import { useDesign, useView } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { endOf } from '@/workers/go-through';
import type { Answer } from '@/workers/answer';
import { BandSwitch } from '@/ui/terrace/band-switch';
import { Terrace } from '@/ui/terrace/terrace';
import { shownTraces, type Channel } from './channel';
import type { Overlay } from './screen';
import { orSay } from '@/ui/loading';
import { Room } from '@/ui/room';

const Panel = dynamic(
  orSay(() => import('./panel').then((m) => m.Panel)),
  {
    ssr: false,
    loading: () => <aside aria-busy="true" className="border-l border-rule bg-raised" />,
  },
);
const Screen = dynamic(
  orSay(() => import('./screen').then((m) => m.Screen)),
  { ssr: false },
);
const Spectrum = dynamic(
  orSay(() => import('./spectrum').then((m) => m.Spectrum)),
  { ssr: false },
);

/** Which traces are on at first: what a builder clips the probe to. */
const FIRST_SHOWN = ['reservoir-v-0', 'winding-a', 'output-v-0', 'input-v-0', 'rail-v-0'];

/** Scope: what a probe would show, in any run, with the terrace above it to pull at. */
export function Scope() {
  const design = useDesign();
  const band = useView((s) => s.band);
  const picture = useView((s) => s.picture);
  const trouble = useView((s) => s.trouble);
  const [run, setRun] = useState<ScopeRun>({ kind: 'steady' });
  /** What was changed on each probe; the rest is as a scope stands when it is switched on. */
  const [settings, setSettings] = useState<Record<string, Partial<Channel>>>({});
  const [perDivisionS, setPerDivisionS] = useState<number | null>(null);
  const [fromS, setFromS] = useState(0);
  const [cursors, setCursors] = useState<[number, number]>([0.25, 0.5]);
  const [overlay, setOverlay] = useState<Overlay | null>(null);
  const [spectrum, setSpectrum] = useState(false);
  const [instrument, setInstrument] = useState<Instrument>(IDEAL_INSTRUMENT);
  const svg = useRef<SVGSVGElement>(null);
  const glass = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });

  const ask = useCallback(
    async (solver: RemoteSolver, of: Design): Promise<Answer<{ traces: Traces; run: ScopeRun }>> => {
      const answer = await endOf(solver, 'scope', { design: of, run, band });
      return answer.ok ? { ok: true, value: { traces: answer.value, run } } : answer;
    },
    [run, band],
  );
  const { value: result, trouble: fault } = useSolved(ask);

  const traces = result?.traces;
  const ids = traces?.traces.map((t) => t.id) ?? [];
  const first = FIRST_SHOWN.filter((id) => ids.includes(id)).slice(0, 3);
  const channels = ids.map((id): Channel => ({
    id,
    shown: first.includes(id),
    perDivision: null,
    ac: false,
    probe: 1,
    ...settings[id],
  }));

  useLayoutEffect(() => {
    const element = glass.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) =>
      setSize({ width: entry!.contentRect.width, height: entry!.contentRect.height }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const lengthS = traces ? (traces.traces[0]!.values.length - 1) * traces.stepS : 0;
  const spanS = perDivisionS === null ? lengthS : Math.min(12 * perDivisionS, lengthS);
  const start = Math.min(fromS, lengthS - spanS);
  const shown = traces ? shownTraces(channels, traces, instrument, result?.run.kind === 'steady') : [];
  const at: [number, number] = [cursors[0] * lengthS, cursors[1] * lengthS];

  return (
    <Room name="Scope" className="grid min-h-0 full:grid-cols-[minmax(0,1fr)_320px]">
      <div className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_380px_420px] full:grid-rows-[auto_minmax(0,5fr)_minmax(0,6fr)]">
        <div className="flex min-h-[34px] items-center gap-x-4 px-3 py-[3px]">
          <BandSwitch />
        </div>
        <div id="drawing" tabIndex={-1} className="min-h-0 min-w-0 border-b border-rule px-2 outline-none">
          {picture ? (
            <Terrace picture={picture} band={band} stale={trouble !== null} />
          ) : (
            <p className="p-6 text-quiet">Solving the first cycle…</p>
          )}
        </div>
        <div className="relative min-h-0 min-w-0 px-3 pb-1 pt-2">
          <div ref={glass} className="h-full min-h-0 overflow-hidden" data-testid="scope-screen">
            {fault && (
              <p
                role="alert"
                className="absolute inset-x-6 top-4 z-10 rounded border-2 border-fail bg-raised px-3 py-2 text-fail"
              >
                {fault} The traces are those of the last run that could be solved.
              </p>
            )}
            {!traces && !fault && (
              <p className="p-6 text-quiet" aria-live="polite">
                Running the first sweep…
              </p>
            )}
            {traces && spectrum && shown[0] && (
              <Spectrum
                shown={shown[0]}
                perCycle={traces.perCycle}
                frequencyHz={design.mains.frequencyHz}
                noiseRms={instrument.noiseRms}
              />
            )}
            {traces && !spectrum && size.width > 200 && (
              <Screen
                shown={shown}
                stepS={traces.stepS}
                fromS={start}
                spanS={spanS}
                cursors={at}
                onCursor={(which, t) =>
                  setCursors((old) => (which === 0 ? [t / lengthS, old[1]] : [old[0], t / lengthS]))
                }
                overlay={overlay}
                width={size.width}
                height={size.height}
                svgRef={svg}
              />
            )}
          </div>
        </div>
      </div>
      <Panel
        run={run}
        onRun={(next) => {
          setRun(next);
          setFromS(0);
          if (next.kind !== run.kind) setPerDivisionS(null);
        }}
        traces={traces ?? null}
        channels={channels}
        onChannel={(id, part) => setSettings((old) => ({ ...old, [id]: { ...old[id], ...part } }))}
        shown={shown}
        cursors={at}
        time={{ perDivisionS, spanS, lengthS, fromS: start }}
        onTime={(perDivision, from) => {
          setPerDivisionS(perDivision);
          setFromS(from);
        }}
        instrument={instrument}
        onInstrument={setInstrument}
        spectrum={spectrum}
        onSpectrum={setSpectrum}
        overlay={overlay}
        onOverlay={setOverlay}
        svg={svg}
        name={design.name}
      />
    </Room>
  );
}
