'use client';

import type { Terms } from '@/core/design/source';
import {
  Chart,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js';
import { useCallback } from 'react';
import { useChart, type Colour } from '@/ui/chart';
import { formatQuantity } from '@/core/quantity/format';

Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip, Legend);

interface Props {
  say: Terms;
  amps: number[];
  bands: { band: 'low' | 'nominal' | 'high'; volts: (number | null)[]; valleys: (number | null)[] }[];
  neededV: number | null;
  /** Highest output a regulator holds at the lowest input, against load; null without one. */
  holdsV: (number | null)[] | null;
}

const DASH = { low: [6, 4], nominal: [], high: [2, 3] } as const;

/** Mean volts of the rail against load; of low line the valley too, for that is what a regulator lives on. */
export function LoadLineChart({ amps, bands, neededV, holdsV, say }: Props) {
  const make = useCallback(
    (colour: Colour): ChartConfiguration<'line'> => {
      const points = (values: (number | null)[]) => amps.map((x, n) => ({ x, y: values[n] ?? null }));
      const last = amps[amps.length - 1]!;
      return {
        type: 'line',
        data: {
          datasets: [
            ...bands.map(({ band, volts }) => ({
              label: `${say[band]}, mean`,
              data: points(volts),
              borderColor: colour('--volt'),
              backgroundColor: colour('--volt'),
              borderDash: [...DASH[band]],
              borderWidth: band === 'nominal' ? 2.6 : 1.6,
              pointRadius: band === 'nominal' ? 2.5 : 0,
            })),
            {
              label: `${say.low}, valley`,
              data: points(bands[0]!.valleys),
              borderColor: colour('--ink'),
              backgroundColor: colour('--ink'),
              borderDash: [6, 4],
              borderWidth: 1.4,
              pointRadius: 0,
            },
            ...(holdsV === null
              ? []
              : [
                  {
                    label: `highest volts held, ${say.low}`,
                    data: points(holdsV),
                    borderColor: colour('--ember'),
                    backgroundColor: colour('--ember'),
                    borderDash: [],
                    borderWidth: 1.6,
                    pointRadius: 0,
                  },
                ]),
            ...(neededV === null
              ? []
              : [
                  {
                    label: 'the regulator needs',
                    data: [
                      { x: 0, y: neededV },
                      { x: last, y: neededV },
                    ],
                    borderColor: colour('--ember'),
                    backgroundColor: colour('--ember'),
                    borderDash: [9, 4],
                    borderWidth: 1.6,
                    pointRadius: 0,
                  },
                ]),
          ],
        },
        options: {
          interaction: { mode: 'nearest', intersect: false },
          scales: {
            x: {
              type: 'linear',
              max: last,
              ticks: { color: colour('--ink'), callback: (v) => formatQuantity(Number(v), 'A') },
              grid: { color: colour('--rule') },
            },
            y: {
              ticks: { color: colour('--ink'), callback: (v) => formatQuantity(Number(v), 'V') },
              grid: { color: colour('--rule') },
            },
          },
          plugins: {
            legend: { position: 'bottom', labels: { color: colour('--ink'), boxHeight: 0, boxWidth: 28 } },
            tooltip: {
              callbacks: {
                title: (items) => formatQuantity(Number(items[0]?.parsed.x), 'A'),
                label: (item) => `${item.dataset.label}: ${formatQuantity(Number(item.parsed.y), 'V')}`,
              },
            },
          },
        },
      };
    },
    [amps, bands, neededV, holdsV, say],
  );
  const canvas = useChart(make);
  return (
    <div className="relative h-[46vh]">
      <canvas ref={canvas} role="img" aria-label="Volts against load in three mains bands" />
    </div>
  );
}
