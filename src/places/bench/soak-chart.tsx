'use client';

import { useCallback } from 'react';
import type { Soak } from '@/core/bench/soak';
import type { Bench } from '@/core/design/design';
import { formatQuantity } from '@/core/quantity/format';
import { useChart, type Colour } from '@/ui/chart';
import { bandChart } from './band-chart';

/** Temperatures read over the fitted course and its band. */
export function SoakChart({ soak, rows }: { soak: Soak; rows: Bench['soak'] }) {
  const make = useCallback(
    (colour: Colour) =>
      bandChart(colour, {
        line: soak.course.map((p) => ({ x: p.minutes, y: p.value, sigma: p.sigma })),
        label: 'course',
        read: rows.map((r) => ({ x: r.afterS / 60, y: r.tempC })),
        x: (minutes) => `${formatQuantity(minutes, '')} min`,
        unit: '°C',
      }),
    [soak, rows],
  );
  return <canvas ref={useChart(make)} aria-hidden="true" />;
}
