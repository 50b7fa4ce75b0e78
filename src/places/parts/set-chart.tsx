'use client';

import {
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js';
import { useCallback } from 'react';
import { useChart, type Colour } from '@/ui/chart';
import { formatQuantity } from '@/core/quantity/format';
import type { SizedSet } from '@/core/size/sized-set';
import { bestFront, setPoints } from './set-points';

Chart.register(ScatterController, LineController, LineElement, PointElement, LinearScale, Tooltip);

/**
 * Cost against the worst margin of every set, the best of them joined: nothing costs less and holds more. A point is
 * taken by a click; the list beside it holds the same sets.
 */
export function SetChart({
  sets,
  chosen,
  onChoose,
}: {
  sets: readonly SizedSet[];
  chosen: SizedSet | null;
  onChoose(set: SizedSet): void;
}) {
  const make = useCallback(
    (colour: Colour): ChartConfiguration<'scatter'> => {
      const points = setPoints(sets);
      const groups = [
        { label: 'chosen', points: chosen ? setPoints([chosen]) : [], colour: colour('--ink'), shape: 'rectRot' },
        { label: 'best', points: bestFront(points), colour: colour('--volt'), shape: 'circle' },
        { label: 'pass', points: points.filter((p) => p.set.fails === 0), colour: colour('--volt'), shape: 'circle' },
        { label: 'fail', points: points.filter((p) => p.set.fails > 0), colour: colour('--fail'), shape: 'crossRot' },
      ] as const;
      const ys = points.map((p) => p.y);
      return {
        type: 'scatter',
        data: {
          // The first is drawn last: what passes lies over what fails.
          datasets: groups.map((g) => ({
            label: g.label,
            data: [...g.points],
            borderColor: g.colour,
            backgroundColor: g.colour,
            pointStyle: g.shape,
            radius: g.label === 'chosen' ? 8 : g.label === 'best' ? 5.5 : g.label === 'pass' ? 3.5 : 3,
            showLine: g.label === 'best',
            stepped: g.label === 'best' ? ('before' as const) : false,
            borderWidth: g.label === 'best' ? 2 : 1.4,
          })),
        },
        options: {
          onClick: (_event, hits) => {
            const hit = hits[0];
            const point = hit && groups[hit.datasetIndex]?.points[hit.index];
            if (point) onChoose(point.set);
          },
          scales: {
            x: {
              title: { display: true, text: 'to pay, EUR', color: colour('--ink') },
              ticks: { color: colour('--ink') },
              grid: { color: colour('--rule') },
            },
            y: {
              title: { display: true, text: 'worst margin', color: colour('--ink') },
              // Where the points are, with the limit and what a careful builder keeps in sight.
              min: Math.max(-3.2, Math.min(-0.2, ...ys) - 0.1),
              max: Math.min(3.2, Math.max(1.2, ...ys) + 0.1),
              ticks: {
                color: colour('--ink'),
                stepSize: 0.5,
                callback: (v) => (v === 0 ? 'limit' : v === 1 ? 'all wanted' : Number(v).toFixed(1)),
              },
              grid: {
                color: (line) => colour(line.tick.value === 0 ? '--ink' : line.tick.value === 1 ? '--edge' : '--rule'),
              },
            },
          },
          plugins: {
            tooltip: {
              callbacks: {
                label: (item) => {
                  const { set, sets: alike } = groups[item.datasetIndex]!.points[item.dataIndex]!;
                  return [
                    formatQuantity(set.toPayEur, 'EUR'),
                    ...set.parts.map((p) => p.name),
                    set.worst,
                    ...(alike > 1 ? [`and ${alike - 1} more of the same cost and margin`] : []),
                  ];
                },
              },
            },
          },
        },
      };
    },
    [sets, chosen, onChoose],
  );
  const canvas = useChart(make);
  return (
    <div className="relative h-full">
      <canvas
        ref={canvas}
        role="img"
        aria-label="Cost against worst margin of every set, the best joined by a line; the list beside it holds the same"
      />
    </div>
  );
}
