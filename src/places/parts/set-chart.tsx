'use client';

import { Chart, LinearScale, PointElement, ScatterController, Tooltip, type ChartConfiguration } from 'chart.js';
import { useCallback } from 'react';
import { useChart, type Colour } from '@/ui/chart';
import { formatQuantity } from '@/core/quantity/format';
import type { SizedSet } from '@/core/size/sized-set';

Chart.register(ScatterController, PointElement, LinearScale, Tooltip);

/** Margins beyond this many wanted ones are not told apart on the picture. */
const MOST = 3;
const LEAST = -3;

/** Cost against the worst margin of every set; a point is taken by a click. The list beside it holds the same sets. */
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
      const groups = [
        {
          label: 'hold',
          sets: sets.filter((s) => s.fails === 0 && s !== chosen),
          colour: colour('--volt'),
          shape: 'circle',
        },
        {
          label: 'fail',
          sets: sets.filter((s) => s.fails > 0 && s !== chosen),
          colour: colour('--fail'),
          shape: 'crossRot',
        },
        { label: 'chosen', sets: chosen ? [chosen] : [], colour: colour('--ink'), shape: 'rectRot' },
      ] as const;
      return {
        type: 'scatter',
        data: {
          datasets: groups.map((g) => ({
            label: g.label,
            data: g.sets.map((s) => ({ x: s.toPayEur, y: Math.min(Math.max(s.worstLeft, LEAST), MOST) })),
            borderColor: g.colour,
            backgroundColor: g.colour,
            pointStyle: g.shape,
            radius: g.label === 'chosen' ? 8 : 4,
          })),
        },
        options: {
          onClick: (_event, hits) => {
            const hit = hits[0];
            const set = hit && groups[hit.datasetIndex]?.sets[hit.index];
            if (set) onChoose(set);
          },
          scales: {
            x: {
              title: { display: true, text: 'to pay, EUR', color: colour('--ink') },
              ticks: { color: colour('--ink') },
              grid: { color: colour('--rule') },
            },
            y: {
              title: { display: true, text: 'worst margin, 1 = all that is wanted', color: colour('--ink') },
              suggestedMin: -1,
              suggestedMax: 1.5,
              ticks: { color: colour('--ink') },
              grid: { color: (line) => colour(line.tick.value === 0 ? '--edge' : '--rule') },
            },
          },
          plugins: {
            tooltip: {
              callbacks: {
                label: (item) => {
                  const set = groups[item.datasetIndex]!.sets[item.dataIndex]!;
                  return [`${formatQuantity(set.toPayEur, 'EUR')}`, ...set.parts.map((p) => p.name)];
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
        aria-label="Cost against worst margin of every set; the list beside it holds the same"
      />
    </div>
  );
}
