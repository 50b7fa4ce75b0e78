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
import type { Unit } from '@/core/quantity/parse';
import { formatQuantity } from '@/core/quantity/format';
import type { Colour } from '@/ui/chart';

Chart.register(Filler, LineController, LineElement, PointElement, ScatterController, LinearScale, Tooltip);

interface Point {
  x: number;
  y: number;
}

interface BandChart {
  /** What is computed, with its standard deviation. */
  line: readonly (Point & { sigma: number })[];
  label: string;
  /** What was read. */
  read: readonly Point[];
  /** What is computed for each reading by itself, where it differs from the line. */
  own?: { label: string; points: Point[] };
  x: (value: number) => string;
  unit: Unit;
}

/** Readings over a computed line and its band: plus and minus two standard deviations. */
export function bandChart(colour: Colour, { line, label, read, own, x, unit }: BandChart): ChartConfiguration<'line'> {
  const band = (sign: number) => line.map((p) => ({ x: p.x, y: p.y + sign * 2 * p.sigma }));
  const bare = { pointRadius: 0, borderColor: colour('--volt'), borderWidth: 0 };
  return {
    type: 'line',
    data: {
      datasets: [
        { ...bare, label: 'most', data: band(1), fill: '+1', backgroundColor: `${colour('--volt')}26` },
        { ...bare, label: 'least', data: band(-1), fill: false },
        { ...bare, label, data: line.map((p) => ({ x: p.x, y: p.y })), borderWidth: 2.4 },
        ...(own
          ? [
              {
                label: own.label,
                data: own.points,
                showLine: false,
                pointStyle: 'line' as const,
                pointRadius: 8,
                borderWidth: 2,
                borderColor: colour('--volt'),
              },
            ]
          : []),
        {
          label: 'read',
          data: [...read],
          showLine: false,
          pointStyle: 'circle' as const,
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
          ticks: { color: colour('--ink'), callback: (v) => x(Number(v)) },
          grid: { color: colour('--rule') },
        },
        y: {
          ticks: { color: colour('--ink'), callback: (v) => formatQuantity(Number(v), unit) },
          grid: { color: colour('--rule') },
        },
      },
      plugins: {
        legend: { display: false },
        tooltip: {
          filter: (item) => item.datasetIndex >= 2,
          callbacks: {
            title: (items) => (items[0] ? x(Number(items[0].parsed.x)) : ''),
            label: (item) => `${item.dataset.label}: ${formatQuantity(Number(item.parsed.y), unit, 4)}`,
          },
        },
      },
    },
  };
}
