'use client';

import { termsOf } from '@/core/design/source';
import { mainModel } from '@/core/design/outputs';
import { dropoutAt } from '@/core/parts/regulators/model';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { LOAD_LINE_SHARES, loadLineVariations } from '@/core/study/load-line';
import type { VariationResult } from '@/core/study/variation';
import { formatQuantity } from '@/core/quantity/format';
import { useDesign, useView } from '@/ui/session';
import { solveInPool } from '@/workers/browser-pool';
import { Stopped } from '@/workers/pool';
import { MostItGives } from './most-it-gives';
import { orSay } from '@/ui/loading';

const LoadLineChart = dynamic(
  orSay(() => import('./load-line-chart').then((m) => m.LoadLineChart)),
  { ssr: false },
);

export function Line() {
  const design = useDesign();
  const needed = useView((s) => s.picture?.neededV ?? null);
  const [progress, setProgress] = useState<[number, number]>([0, 1]);
  const [results, setResults] = useState<VariationResult[] | null>(null);
  const [stopped, setStopped] = useState(false);
  const [stop] = useState(() => new AbortController());
  useEffect(() => {
    const own = new AbortController();
    const end = () => own.abort();
    stop.signal.addEventListener('abort', end);
    solveInPool(design, loadLineVariations(design), {
      chunk: 6,
      signal: own.signal,
      onProgress: (done, of) => setProgress([done, of]),
    })
      .then(setResults)
      .catch((error: unknown) => {
        if (!(error instanceof Stopped)) throw error;
        if (stop.signal.aborted) setStopped(true);
      });
    return () => {
      own.abort();
      stop.signal.removeEventListener('abort', end);
    };
  }, [design, stop]);

  if (stopped) return <p className="py-8 text-center text-quiet">Stopped. Close and open it again to start afresh.</p>;
  if (!results) {
    return (
      <div className="flex items-center gap-3 py-10">
        <progress className="h-2 flex-1 accent-volt" value={progress[0]} max={progress[1]} aria-label="Points solved" />
        <span className="text-[14px] tabular-nums text-quiet">
          {progress[0]} of {progress[1]}
        </span>
        <button type="button" className="btn" onClick={() => stop.abort()}>
          Stop
        </button>
      </div>
    );
  }
  const count = LOAD_LINE_SHARES.length;
  const amps = LOAD_LINE_SHARES.map((s) => s * design.demand.outputA);
  const bands = (['low', 'nominal', 'high'] as const).map((band, b) => ({
    band,
    volts: results.slice(b * count, (b + 1) * count).map((r) => (r.ok ? r.railMeanV : null)),
    valleys: results.slice(b * count, (b + 1) * count).map((r) => (r.ok ? r.railMinV : null)),
  }));
  // The highest output a regulator could hold at the lowest input: the valley less its dropout at that load.
  const model = mainModel(design);
  const holdsV = model
    ? bands[0]!.valleys.map((v, n) => (v === null ? null : Math.max(0, v - dropoutAt(model, amps[n]!, 100))))
    : null;
  const nominal = bands[1]!.volts;
  const light = nominal[LOAD_LINE_SHARES.indexOf(0.1)];
  const full = nominal[LOAD_LINE_SHARES.indexOf(1)];
  return (
    <>
      <LoadLineChart amps={amps} bands={bands} neededV={needed} holdsV={holdsV} say={termsOf(design)} />
      <MostItGives />
      {typeof light === 'number' && typeof full === 'number' && (
        <p className="mt-2 text-[14px]">
          At {termsOf(design).nominal} {formatQuantity(nominal[0] ?? NaN, 'V')} without load,{' '}
          {formatQuantity(light, 'V')} at a tenth, {formatQuantity(full, 'V')} at full load: the rail behaves like{' '}
          <strong>{formatQuantity((light - full) / (0.9 * design.demand.outputA), 'ohm')}</strong> in series.
        </p>
      )}
    </>
  );
}
