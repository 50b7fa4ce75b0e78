'use client';

import {
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js';
import { useCallback } from 'react';
import type { Soak } from '@/core/bench/soak';
import type { Bench } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { useChart, type Colour } from '@/ui/chart';

Chart.register(Filler, LineController, LineElement, PointElement, LinearScale, Tooltip);

/** Temperatures read over the fitted course and its band, plus and minus two standard deviations. */
export function SoakChart({ soak, rows }: { soak: Soak; rows: Bench['soak'] }) {
  const make = useCallback(
    (colour: Colour): ChartConfiguration<'line'> => {
      const band = (sign: number) => soak.course.map((p) => ({ x: p.minutes, y: p.value + sign * 2 * p.sigma }));
      const line = { pointRadius: 0, borderColor: colour('--volt'), borderWidth: 0 };
      return {
        type: 'line',
        data: {
          datasets: [
            { ...line, label: 'most', data: band(1), fill: '+1', backgroundColor: `${colour('--volt')}26` },
            { ...line, label: 'least', data: band(-1), fill: false },
            {
              ...line,
              label: 'course',
              data: soak.course.map((p) => ({ x: p.minutes, y: p.value })),
              borderWidth: 2.4,
            },
            {
              label: 'read',
              data: rows.map((r) => ({ x: r.afterS / 60, y: r.tempC })),
              showLine: false,
              pointRadius: 4.5,
              backgroundColor: colour('--ember'),
              borderColor: colour('--ink'),
              borderWidth: 1.2,
            },
          ],
        },
        options: {
          scales: {
            x: {
              type: 'linear',
              min: 0,
              ticks: { color: colour('--ink'), callback: (v) => `${formatQuantity(Number(v), '')} min` },
              grid: { color: colour('--rule') },
            },
            y: {
              ticks: { color: colour('--ink'), callback: (v) => formatQuantity(Number(v), '°C') },
              grid: { color: colour('--rule') },
            },
          },
          plugins: { legend: { display: false }, tooltip: { filter: (item) => item.datasetIndex >= 2 } },
        },
      };
    },
    [soak, rows],
  );
  return <canvas ref={useChart(make)} aria-hidden="true" />;
}
