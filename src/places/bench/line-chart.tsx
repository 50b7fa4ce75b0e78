'use client';

import { useCallback } from 'react';
import type { ComputedLine } from '@/core/bench/load-line';
import type { LoadRow } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { useChart, type Colour } from '@/ui/chart';
import { bandChart } from './band-chart';

/** Readings over the computed line and its band. */
export function LineChart({ computed, rows }: { computed: ComputedLine; rows: readonly LoadRow[] }) {
  const make = useCallback(
    (colour: Colour) => {
      const read = rows.flatMap((r, n) => (r.reservoirV === null ? [] : [{ x: r.loadA, y: r.reservoirV, n }]));
      return bandChart(colour, {
        line: computed.line.map((p) => ({ x: p.loadA, y: p.value, sigma: p.sigma })),
        label: 'design',
        read,
        own: {
          label: 'design, at that row’s volts',
          points: read.flatMap(({ x, n }) => {
            const at = computed.at[`row-${n}-reservoirV`];
            return at ? [{ x, y: at.value }] : [];
          }),
        },
        x: (amps) => formatQuantity(amps, 'A', 2),
        unit: 'V',
      });
    },
    [computed, rows],
  );
  return <canvas ref={useChart(make)} aria-hidden="true" />;
}
