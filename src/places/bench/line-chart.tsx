'use client';

import {
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js';
import { useCallback } from 'react';
import type { ComputedLine } from '@/core/bench/load-line';
import type { LoadRow } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { useChart, type Colour } from '@/ui/chart';

Chart.register(Filler, LineController, LineElement, PointElement, ScatterController, LinearScale, Tooltip);

/** Readings over the computed line and its band: plus and minus two standard deviations. */
export function LineChart({ computed, rows }: { computed: ComputedLine; rows: readonly LoadRow[] }) {
  const make = useCallback(
    (colour: Colour): ChartConfiguration<'line'> => {
      const band = (sign: number) => computed.line.map((p) => ({ x: p.loadA, y: p.value + sign * 2 * p.sigma }));
      const read = rows.flatMap((r, n) => (r.reservoirV === null ? [] : [{ x: r.loadA, y: r.reservoirV, n }]));
      const line = { pointRadius: 0, borderColor: colour('--volt'), borderWidth: 0 };
      return {
        type: 'line',
        data: {
          datasets: [
            { ...line, label: 'most', data: band(1), fill: '+1', backgroundColor: `${colour('--volt')}26` },
            { ...line, label: 'least', data: band(-1), fill: false },
            {
              ...line,
              label: 'design',
              data: computed.line.map((p) => ({ x: p.loadA, y: p.value })),
              borderWidth: 2.4,
            },
            {
              label: 'design, at that row’s volts',
              data: read.flatMap(({ x, n }) => {
                const at = computed.at[`row-${n}-reservoirV`];
                return at ? [{ x, y: at.value }] : [];
              }),
              showLine: false,
              pointStyle: 'line',
              pointRadius: 8,
              borderWidth: 2,
              borderColor: colour('--volt'),
            },
            {
              label: 'read',
              data: read,
              showLine: false,
              pointStyle: 'circle',
              pointRadius: 4.5,
              backgroundColor: colour('--ember'),
              borderColor: colour('--ink'),
              borderWidth: 1.2,
            },
          ],
        },
        options: {
          interaction: { mode: 'nearest', intersect: true },
          scales: {
            x: {
              type: 'linear',
              min: 0,
              ticks: { color: colour('--ink'), callback: (v) => formatQuantity(Number(v), 'A', 2) },
              grid: { color: colour('--rule') },
            },
            y: {
              ticks: { color: colour('--ink'), callback: (v) => formatQuantity(Number(v), 'V') },
              grid: { color: colour('--rule') },
            },
          },
          plugins: {
            legend: { display: false },
            tooltip: {
              filter: (item) => item.datasetIndex >= 2,
              callbacks: {
                title: (items) => (items[0] ? formatQuantity(Number(items[0].parsed.x), 'A') : ''),
                label: (item) => `${item.dataset.label}: ${formatQuantity(Number(item.parsed.y), 'V', 4)}`,
              },
            },
          },
        },
      };
    },
    [computed, rows],
  );
  return <canvas ref={useChart(make)} aria-hidden="true" />;
}
