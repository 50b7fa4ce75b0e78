'use client';

import { Trash2 } from 'lucide-react';
import dynamic from 'next/dynamic';
import { SOAK_MAX } from '@/core/design/how-many';
import { rangeFault } from '@/core/design/limits';
import type { Design } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { Alert } from '@/ui/alert';
import { download } from '@/ui/download';
import { IconButton } from '@/ui/icon-button';
import { FigureRow } from '@/ui/figure-row';
import { orSay } from '@/ui/loading';
import { useDesign, useEdit } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { PairForm, type PairField } from './pair-form';

const SoakChart = dynamic(
  orSay(() => import('./soak-chart').then((m) => m.SoakChart)),
  { ssr: false },
);
const FIELDS: readonly [PairField, PairField] = [
  { label: 'Minutes', unit: '', placeholder: '', fault: (minutes) => rangeFault('bench.loadedS', 60 * minutes) },
  { label: 'Degrees', unit: '°C', placeholder: '°C', fault: (tempC) => rangeFault('bench.sinkC', tempC) },
];
const askSoak = (solver: RemoteSolver, design: Design) => solver.soak(design);

/** The metal from cold at full load: a few temperatures tell where it ends, long before it is there. */
export function Soak() {
  const design = useDesign();
  const edit = useEdit();
  const { value: soak, trouble } = useSolved(askSoak, { waitMs: 150 });
  const rows = design.bench.soak;
  const keep = (next: typeof rows) => edit({ bench: { soak: [...next].sort((a, b) => a.afterS - b.afterS) } });
  return (
    <section aria-label="Soak" className="mt-6 border-t-2 border-ink pt-4">
      <h2 className="text-[19px] font-semibold">Where the metal ends</h2>
      <p className="text-[14.5px] text-quiet">
        Full load from cold: a temperature every few minutes. Its end is told with what is still open about it.
      </p>
      <div className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-3 min-[900px]:grid-cols-[300px_minmax(0,1fr)]">
        <div>
          <ul aria-label="Temperatures read">
            {rows.map((r, n) => (
              <li key={n} className="flex items-center gap-3 border-t border-rule/60 py-0.5 text-[15px]">
                <span className="w-[90px] text-quiet">{formatQuantity(r.afterS / 60, '')} min</span>
                <strong className="flex-1">{formatQuantity(r.tempC, '°C')}</strong>
                <IconButton
                  label={`Remove the temperature at ${formatQuantity(r.afterS / 60, '')} min`}
                  title="Remove it"
                  onClick={() => keep(rows.filter((_, k) => k !== n))}
                >
                  <Trash2 size={15} />
                </IconButton>
              </li>
            ))}
          </ul>
          {rows.length < SOAK_MAX && (
            <PairForm
              label="Next temperature"
              fields={FIELDS}
              onKeep={(minutes, tempC) => keep([...rows, { afterS: 60 * minutes, tempC }])}
            />
          )}
        </div>
        <div className="min-w-0">
          {trouble && <Alert>{trouble}</Alert>}
          {typeof soak === 'string' && <p className="text-[14.5px]">{soak}</p>}
          {soak !== null && typeof soak !== 'string' && (
            <>
              <p className="text-[18px] font-semibold" data-testid="soak-words">
                It ends at {formatQuantity(soak.final.value, '°C')} ±{formatQuantity(2 * soak.sigmaK, 'K')}, the chain
                says {formatQuantity(soak.chainC, '°C')}:{' '}
                {Math.abs(soak.final.value - soak.chainC) <= 2 * soak.sigmaK
                  ? 'they agree.'
                  : soak.final.value > soak.chainC
                    ? 'it is hotter than it should be. Paste, the sink’s stand, its air?'
                    : 'it is cooler than reckoned.'}
              </p>
              <FigureRow label="Of this run" figures={[soak.final]} />
              <div
                className="mt-1 h-[230px]"
                role="img"
                aria-label={`Temperature against minutes: within a degree of its end after ${soak.thereMin.toFixed(0)} minutes`}
              >
                <SoakChart soak={soak} rows={rows} />
              </div>
              <div className="mt-2 flex gap-2">
                <button
                  type="button"
                  className="btn"
                  onClick={() =>
                    void import('@/core/bench/soak-files').then(({ soakCsv }) =>
                      download('soak.csv', soakCsv(rows), 'text/csv'),
                    )
                  }
                >
                  CSV
                </button>
                <button
                  type="button"
                  className="btn"
                  onClick={() =>
                    void import('@/core/bench/soak-files').then(({ soakSvg }) =>
                      download('soak.svg', soakSvg(design.name, soak, rows), 'image/svg+xml'),
                    )
                  }
                >
                  SVG
                </button>
              </div>
            </>
          )}
        </div>
      </div>
    </section>
  );
}
