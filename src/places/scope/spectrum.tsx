'use client';

import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  LogarithmicScale,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js';
import { useCallback, useMemo } from 'react';
import { useChart, type Colour } from '@/ui/chart';
import { noiseLine } from '@/core/study/instrument';
import { harmonics } from '@/core/study/scope-shapes';
import { formatQuantity } from '@/core/quantity/format';
import type { Shown } from './channel';

Chart.register(BarController, BarElement, CategoryScale, LogarithmicScale, Tooltip);

/** Harmonics of the mains in one trace, up to the twentieth, as peak amplitudes on a logarithmic scale. */
export function Spectrum({
  shown,
  perCycle,
  frequencyHz,
  noiseRms,
}: {
  shown: Shown;
  perCycle: number;
  frequencyHz: number;
  noiseRms: number;
}) {
  const lines = useMemo(() => harmonics(shown.values.slice(-perCycle)), [shown.values, perCycle]);
  const unit = shown.trace.unit;
  const strongest = Math.max(...lines.slice(1), 1e-12);
  /** Lines this low cannot be told from the instrument's noise. */
  const floor = 2 * noiseLine(noiseRms, perCycle);
  const make = useCallback(
    (colour: Colour): ChartConfiguration<'bar'> => {
      return {
        type: 'bar',
        data: {
          labels: lines.slice(1).map((_, n) => `${(n + 1) * frequencyHz}`),
          datasets: [
            {
              data: lines.slice(1).map((v) => Math.max(v, strongest * 1e-6)),
              backgroundColor: lines.slice(1).map((v) => colour(v < floor ? '--rule' : '--volt')),
            },
          ],
        },
        options: {
          scales: {
            x: {
              title: { display: true, text: 'Hz', color: colour('--ink') },
              ticks: { color: colour('--ink') },
              grid: { display: false },
            },
            y: {
              type: 'logarithmic',
              min: strongest * 1e-5,
              ticks: { color: colour('--ink'), callback: (v) => formatQuantity(Number(v), unit), maxTicksLimit: 7 },
              grid: { color: colour('--rule') },
            },
          },
          plugins: { tooltip: { callbacks: { label: (item) => formatQuantity(lines[item.dataIndex + 1]!, unit) } } },
        },
      };
    },
    [lines, floor, strongest, unit, frequencyHz],
  );
  const canvas = useChart(make);
  return (
    <figure className="flex h-full min-h-0 flex-col px-3 pb-1 pt-1">
      <figcaption className="text-[14px]">
        <strong>{shown.trace.label}</strong>, harmonics of {frequencyHz} Hz, peak. Strongest:{' '}
        {lines
          .map((v, n) => ({ v, n }))
          .slice(1)
          .sort((a, b) => b.v - a.v)
          .slice(0, 3)
          .map(({ v, n }) => `${n * frequencyHz} Hz ${formatQuantity(v, unit)}`)
          .join(', ')}
        .{floor > 0 && ` Pale lines, below ${formatQuantity(floor, unit)}, cannot be told from the instrument's noise.`}
      </figcaption>
      <div className="relative min-h-0 flex-1">
        <canvas ref={canvas} role="img" aria-label={`Spectrum of ${shown.trace.label}`} />
      </div>
    </figure>
  );
}
