'use client';

import { termsOf } from '@/core/design/source';
import { useEffect, useRef, useState } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import {
  passFigure,
  shareError,
  solvedFigure,
  type CheckSummary,
  type ToleranceSummary,
} from '@/core/picture/build-summary';
import { FigureButton } from '@/ui/figure-button';
import { useDesign } from '@/ui/session';
import { whenIdle } from '@/ui/when-idle';
import { Working } from '@/ui/working';
import { drawInPool, readyPool } from '@/workers/browser-pool';
import { Stopped } from '@/workers/pool';

const COUNTS = [1000, 10_000] as const;

/** Thousands of builds drawn from the parts' spreads: the share that pass, and what drives the misses. */
export function Tolerance() {
  const design = useDesign();
  const say = termsOf(design);
  const [seed, setSeed] = useState('1');
  const [count, setCount] = useState<number>(COUNTS[0]);
  const [progress, setProgress] = useState<[number, number] | null>(null);
  const [result, setResult] = useState<{ of: typeof design; summary: ToleranceSummary; seconds: number } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const stop = useRef<AbortController>(null);
  useEffect(() => () => stop.current?.abort(), []);
  useEffect(() => whenIdle(readyPool), []);
  const number = /^\d{1,9}$/.test(seed.trim()) ? Number(seed) : null;

  async function draw() {
    if (number === null) return;
    stop.current?.abort();
    const mine = new AbortController();
    stop.current = mine;
    setProgress([0, count]);
    setTrouble(null);
    const began = performance.now();
    try {
      const summary = await drawInPool(design, number, count, {
        signal: mine.signal,
        onProgress: (known) => setProgress([known, count]),
      });
      if (stop.current !== mine) return;
      setResult({ of: design, summary, seconds: (performance.now() - began) / 1000 });
    } catch (error) {
      if (!(error instanceof Stopped)) setTrouble(`The builds were not finished: ${(error as Error).message}`);
    }
    if (stop.current === mine) setProgress(null);
  }

  const summary = result?.summary;
  const [opened, setOpened] = useState<string | null>(null);
  const figures = summary
    ? [solvedFigure(summary), ...[null, ...summary.checks].map((c) => passFigure(summary, c))]
    : [];
  const open = figures.find((f) => f.id === opened);
  const stale = result !== null && result.of !== design;
  return (
    <section aria-label="Builds">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="mr-2 text-[18px] font-semibold">If it were built many times</h2>
        <select
          className="field !w-auto"
          aria-label="Builds"
          value={count}
          onChange={(e) => setCount(Number(e.target.value))}
        >
          {COUNTS.map((c) => (
            <option key={c} value={c}>
              {c.toLocaleString('en')} builds
            </option>
          ))}
        </select>
        <label className="flex items-center gap-1.5 text-[14px]">
          seed
          <input
            className="field !w-[84px]"
            value={seed}
            onChange={(e) => setSeed(e.target.value)}
            aria-invalid={number === null}
          />
        </label>
        {progress ? (
          <>
            <progress className="h-2 w-40" max={progress[1]} value={progress[0]} aria-label="Builds known" />
            <span aria-live="polite" className="text-[14px] text-quiet">
              {progress[0].toLocaleString('en')} of {progress[1].toLocaleString('en')}
            </span>
            <button
              type="button"
              className="btn"
              onClick={() => {
                stop.current?.abort();
                setProgress(null);
              }}
            >
              Stop
            </button>
          </>
        ) : (
          <button type="button" className="btn btn-main" disabled={number === null} onClick={() => void draw()}>
            Draw and solve them
          </button>
        )}
      </div>
      {number === null && (
        <p className="text-fail">A seed is a whole number: the same one draws the same builds again.</p>
      )}
      {trouble && (
        <p role="alert" className="text-fail">
          {trouble}
        </p>
      )}
      {!summary && !progress && (
        <p className="mt-1 text-[14px] text-quiet">
          Each build draws its own {say.winding} volts and resistance, capacitance, diode, dropout and sink from their
          tolerances. Some are solved at {say.low} loaded, {say.high} lasting, {say.high} idle and wherever else a limit
          is near; the others are read off what those came to, and solved where that leaves a doubt.
        </p>
      )}
      {summary && (
        <div className={stale ? 'opacity-60' : ''}>
          <p className="mt-2 text-[16px]" data-testid="builds-pass">
            <strong>
              <FigureButton figure={passFigure(summary, null)} open={opened} onOpen={setOpened} />
            </strong>{' '}
            of {summary.builds.toLocaleString('en')} builds pass everything
            <span className="text-quiet">
              {' '}
              (±{(100 * shareError(summary.pass, summary.builds)).toFixed(1)} %; seed {summary.seed};{' '}
              {result.seconds.toFixed(1)} s{summary.unsolved > 0 ? `; ${summary.unsolved} found no answer` : ''})
              {stale ? ', of the design before your last change' : ''}
            </span>
          </p>
          {summary.reading.solved < summary.reading.circumstances && (
            <p className="text-[14px] text-quiet" data-testid="builds-read">
              <FigureButton figure={solvedFigure(summary)} open={opened} onOpen={setOpened} /> of their{' '}
              {summary.reading.circumstances.toLocaleString('en')} circumstances were solved; the others are read off
              surfaces through those, too far from every limit for that to matter.
            </p>
          )}
          <table className="mt-1 w-full text-[14px]">
            <thead className="text-left text-[13px] text-quiet">
              <tr>
                <th className="font-normal">Margin</th>
                <th className="font-normal">least, middle, most</th>
                <th className="font-normal">spread of the margin</th>
                <th className="text-right font-normal">pass</th>
                <th className="pl-3 font-normal">driven by</th>
              </tr>
            </thead>
            <tbody>
              {summary.checks.map((c) => (
                <tr key={c.check.id} className="border-t border-rule/60 align-top">
                  <td className="py-1 pr-2">{c.check.title}</td>
                  <td className="whitespace-nowrap pr-2">
                    {[c.least, c.median, c.most].map((m) => formatQuantity(m, c.check.unit)).join(', ')}
                  </td>
                  <td>
                    <Histogram summary={c} />
                  </td>
                  <td className={`whitespace-nowrap text-right ${c.pass < 1 ? 'font-semibold text-fail' : ''}`}>
                    <FigureButton figure={passFigure(summary, c)} open={opened} onOpen={setOpened} />
                  </td>
                  <td className="pl-3 text-[13px] text-quiet">
                    {c.causes
                      .slice(0, 2)
                      .map(
                        (cause) =>
                          `${cause.label.replace(/,.*/, '')} ${Math.round(100 * cause.share)} % (when ${cause.hurts})`,
                      )
                      .join(', ')}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {open && (
            <div className="mt-1.5 border-l-2 border-volt pl-3">
              <Working figure={open} />
            </div>
          )}
        </div>
      )}
    </section>
  );
}

const WIDTH = 150;
const HEIGHT = 30;

/** How the builds' margins are spread, with the limit as a line where it falls among them. */
function Histogram({ summary: { histogram, least, most } }: { summary: CheckSummary }) {
  const tallest = Math.max(...histogram, 1);
  const step = WIDTH / histogram.length;
  const zero = most > least ? (-least / (most - least)) * WIDTH : -1;
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden="true">
      {histogram.map((count, n) => {
        const beyond = (n + 0.5) * step < zero;
        const tall = (count / tallest) * (HEIGHT - 3);
        return (
          <rect
            key={n}
            x={n * step}
            y={HEIGHT - tall}
            width={step - 1}
            height={tall}
            fill={beyond ? 'var(--fail)' : 'var(--volt)'}
          />
        );
      })}
      {zero >= 0 && zero <= WIDTH && (
        <line x1={zero} x2={zero} y1={0} y2={HEIGHT} stroke="var(--ink)" strokeWidth="2" />
      )}
    </svg>
  );
}
