'use client';

import dynamic from 'next/dynamic';
import { mainModel } from '@/core/design/outputs';
import { termsOf } from '@/core/design/source';
import type { Design } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { FigureRow } from '@/ui/figure-row';
import { orSay } from '@/ui/loading';
import { Room } from '@/ui/room';
import { useDesign, useView } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { useState } from 'react';
import { FitPanel } from './fit-panel';
import { LoadRows } from './load-rows';
import { SetAgainstRead } from './set-against-read';
import { Soak } from './soak';

const LineChart = dynamic(
  orSay(() => import('./line-chart').then((m) => m.LineChart)),
  { ssr: false },
);

const Sweep = dynamic(
  orSay(() => import('./sweep').then((m) => m.Sweep)),
  { ssr: false },
);

const askLine = (solver: RemoteSolver, design: Design) => solver.computedLine(design);

/** Load line and fit: what the built supply really does against load, and the design that behaves like it. */
export function LoadLine() {
  const design = useDesign();
  const hazard = useView((s) => s.picture?.hazard ?? null);
  const { value: computed, trouble } = useSolved(askLine, { waitMs: 150 });
  const say = termsOf(design);
  const [sweeps, setSweeps] = useState(false);
  return (
    <Room name={null} className="">
      <div className="mx-auto max-w-[1240px] px-5 pb-12 pt-4">
        <h1 className="text-[23px] font-semibold leading-7">What it really does under load</h1>
        <p className="text-quiet">
          Hang known loads on it, from none to full, and type what the meter says. Each row is held against the design
          at its own {say.source} volts.
        </p>
        <p className="mt-1 min-h-[24px] font-semibold text-fail">{hazard && `⚠ ${hazard}`}</p>
        {trouble && (
          <p role="alert" className="mt-2 text-fail">
            The computed line could not be drawn. {trouble}
          </p>
        )}
        <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-4 min-[1200px]:grid-cols-[minmax(0,1fr)_minmax(280px,324px)]">
          <div className="min-w-0">
            <LoadRows computed={computed} sweeps={sweeps} onSweep={() => setSweeps(!sweeps)} />
            {sweeps && (
              <div className="mt-3">
                <Sweep />
              </div>
            )}
          </div>
          <figure className="m-0">
            <div className="h-[290px]" role="img" aria-label={chartWords(design, computed)}>
              {computed && <LineChart computed={computed} rows={design.bench.loadLine} />}
            </div>
            <figcaption className="text-[13px] leading-snug text-quiet">
              Reservoir, mean, at {computed ? formatQuantity(computed.mainsV, 'V') : '…'}; the band is what the parts’
              tolerances leave. Points are your readings; the tick beside each is what the design says at that row’s own
              volts.
            </figcaption>
            <div className="min-h-[30px]">
              {computed?.droop && <FigureRow label="As it warms" figures={[computed.droop]} />}
            </div>
          </figure>
        </div>
        {mainModel(design) && <Soak />}
        <FitPanel />
        <SetAgainstRead />
      </div>
    </Room>
  );
}

function chartWords(design: Design, computed: { line: { loadA: number; value: number }[] } | null): string {
  if (!computed) return 'Load line, being computed';
  const [first, last] = [computed.line[0]!, computed.line.at(-1)!];
  return `Load line: ${formatQuantity(first.value, 'V')} without load to ${formatQuantity(last.value, 'V')} at ${formatQuantity(last.loadA, 'A')}; ${design.bench.loadLine.length} rows read`;
}
