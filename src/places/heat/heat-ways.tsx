'use client';

import { useEffect, useRef, useState } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import type { HeatRow, HeatView } from '@/core/study/heat-report';

const FIRST_WIDTH = 780;
const LEFT = 212;
const RIGHT = 26;
const ROW = 74;
const TOP = 34;
/** Metal above this burns a finger, °C. */
const TOUCH_C = 60;
const HOTTEST_SHOWN_C = 260;

/** The way heat takes, on one thermometer: from the room on the left to each part's hottest spot, as wide as its watts. */
export function HeatWays({ view }: { view: HeatView }) {
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(FIRST_WIDTH);
  useEffect(() => {
    // Drawn at its own size, so that its words keep theirs on a narrow screen.
    const observer = new ResizeObserver(([entry]) => setWidth(Math.max(420, Math.round(entry!.contentRect.width))));
    observer.observe(frame.current!);
    return () => observer.disconnect();
  }, []);
  const { rows, roomC } = view;
  const hottest = Math.max(...rows.map((r) => Math.max(r.limitC, ...r.steps.map((s) => s.tempC))));
  const least = Math.floor((roomC - 6) / 10) * 10;
  const most = Math.min(HOTTEST_SHOWN_C, Math.ceil((hottest + 12) / 20) * 20);
  const x = (c: number) => LEFT + ((Math.min(c, most) - least) / (most - least)) * (width - LEFT - RIGHT);
  const height = TOP + rows.length * ROW + 22;
  const strongest = Math.max(...rows.map((r) => r.watts), 1e-9);
  const every = width < 700 ? 40 : 20;
  const ticks = Array.from(
    { length: Math.floor((most - least) / every) + 1 },
    (_, n) => Math.ceil(least / 20) * 20 + every * n,
  ).filter((c) => c <= most);
  const words = rows
    .map(
      (r) =>
        `${r.name} ${formatQuantity(r.watts, 'W')}, ${r.steps.map((s) => `${s.name} ${formatQuantity(s.tempC, '°C')}`).join(', ')}, limit ${r.limitC} °C`,
    )
    .join('; ');
  return (
    <div ref={frame}>
      <svg viewBox={`0 0 ${width} ${height}`} className="w-full" role="img" aria-label={`Heat: ${words}`}>
        {ticks.map((c) => (
          <g key={c}>
            <line x1={x(c)} x2={x(c)} y1={TOP - 8} y2={height - 20} stroke="var(--rule)" />
            <text x={x(c)} y={TOP - 14} textAnchor="middle" fontSize="12.5" fill="var(--quiet)">
              {c} °C
            </text>
          </g>
        ))}
        {TOUCH_C > least && (
          <g>
            <line
              x1={x(TOUCH_C)}
              x2={x(TOUCH_C)}
              y1={TOP - 8}
              y2={height - 20}
              stroke="var(--tight)"
              strokeDasharray="2 4"
            />
            <text x={x(TOUCH_C) + 4} y={height - 6} fontSize="12.5" fill="var(--tight)">
              metal burns a finger from here
            </text>
          </g>
        )}
        <line x1={x(roomC)} x2={x(roomC)} y1={TOP - 8} y2={height - 20} stroke="var(--volt)" strokeWidth="1.5" />
        <text x={x(roomC) + 4} y={height - 6} fontSize="12.5" fill="var(--volt)">
          room {formatQuantity(roomC, '°C')}
        </text>
        {rows.map((row, n) => (
          <Way
            key={row.id}
            row={row}
            y={TOP + n * ROW + 36}
            x={x}
            thick={4 + 16 * Math.sqrt(row.watts / strongest)}
            most={most}
          />
        ))}
      </svg>
    </div>
  );
}

function Way({
  row,
  y,
  x,
  thick,
  most,
}: {
  row: HeatRow;
  y: number;
  x: (c: number) => number;
  thick: number;
  most: number;
}) {
  const { steps, limitC } = row;
  const end = steps[steps.length - 1]!;
  const over = end.tempC > limitC;
  const tight = !over && end.tempC > limitC - 20;
  const colour = over ? 'var(--fail)' : 'var(--ember)';
  return (
    <g>
      <text x={0} y={y - 8} fontSize="15" fontWeight="600" fill="var(--ink)">
        {row.name}
      </text>
      <text x={0} y={y + 10} fontSize="13.5" fill="var(--quiet)">
        {formatQuantity(row.watts, 'W')}; {end.name} {formatQuantity(end.tempC, '°C')} of {limitC} °C
      </text>
      {steps.slice(1).map((s, n) => {
        const from = x(steps[n]!.tempC);
        return (
          <rect
            key={s.name}
            x={from}
            y={y - thick / 2}
            width={Math.max(0, x(s.tempC) - from)}
            height={thick}
            fill={colour}
            opacity={0.28 + (0.62 * (n + 1)) / (steps.length - 1)}
          />
        );
      })}
      {steps.slice(1).map((s, n) => {
        const last = n === steps.length - 2;
        const before = steps[n]!;
        // Steps closer than a word share their label with the next.
        if (!last && x(s.tempC) - x(before.tempC) < 26) return null;
        return (
          <text
            key={s.name}
            x={last ? Math.min(x(s.tempC), x(most) - 30) : x(s.tempC)}
            y={last ? y - thick / 2 - 7 : y + thick / 2 + 14}
            textAnchor={last ? 'middle' : 'end'}
            fontSize="12.5"
            fill="var(--ink)"
            fontWeight={last ? 600 : 400}
          >
            {s.name} {formatQuantity(s.tempC, '°C')}
            {s.tempC > most ? ' and more' : ''}
          </text>
        );
      })}
      <circle cx={x(end.tempC)} cy={y} r={thick / 2 + 2} fill={colour} />
      {(over || tight) && (
        <circle
          cx={x(end.tempC)}
          cy={y}
          r={thick / 2 + 6}
          fill="none"
          stroke={over ? 'var(--fail)' : 'var(--tight)'}
          strokeWidth="2"
        />
      )}
      <path d={`M${x(limitC)} ${y - 16}v32`} stroke="var(--ink)" strokeWidth="2.5" />
      <path d={`M${x(limitC)} ${y - 16}l5 -5h-10z`} fill="var(--ink)" />
    </g>
  );
}
