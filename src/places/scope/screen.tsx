'use client';

import { useRef, type KeyboardEvent, type PointerEvent, type Ref } from 'react';
import { polyline } from '@/core/picture/polyline';
import type { MeasuredTrace } from '@/core/study/scope-shapes';
import { apart } from '@/core/picture/terrace-geometry';
import { formatQuantity } from '@/core/quantity/format';
import { DIVISIONS, STROKES, type Shown } from './channel';

export interface Overlay {
  trace: MeasuredTrace;
  shiftS: number;
  offset: number;
  factor: number;
}

interface Props {
  shown: readonly Shown[];
  stepS: number;
  fromS: number;
  /** Seconds across the whole screen. */
  spanS: number;
  cursors: readonly [number, number];
  onCursor(which: 0 | 1, t: number): void;
  overlay: Overlay | null;
  width: number;
  height: number;
  svgRef: Ref<SVGSVGElement>;
}

const LABELS_PX = 150;
const FOOT_PX = 22;

/** The screen: divisions, traces, cursors. Every trace carries its own scale at the right, at its own height. */
export function Screen({ shown, stepS, fromS, spanS, cursors, onCursor, overlay, width, height, svgRef }: Props) {
  const dragged = useRef<0 | 1 | null>(null);
  const right = width - LABELS_PX;
  const bottom = height - FOOT_PX;
  const x = (t: number) => ((t - fromS) / spanS) * right;
  const y = (s: Shown, v: number) => bottom / 2 - ((v - s.middle) / s.perDivision) * (bottom / DIVISIONS.up);
  const time = (px: number) => fromS + (Math.min(Math.max(px, 0), right) / right) * spanS;

  function path(s: Shown): string {
    const first = Math.max(0, Math.floor(fromS / stepS));
    const last = Math.min(s.values.length - 1, Math.ceil((fromS + spanS) / stepS));
    const every = Math.max(1, Math.floor((last - first) / 4000));
    const points: [number, number][] = [];
    for (let k = first; k <= last; k += every) points.push([x(k * stepS), y(s, s.values[k]!)]);
    return polyline(points);
  }

  const first = shown[0];
  const measured =
    overlay && first
      ? polyline(
          overlay.trace.t.map((t, k): [number, number] => [
            x(t + overlay.shiftS),
            y(first, overlay.factor * overlay.trace.values[k]! + overlay.offset),
          ]),
        )
      : '';

  function grab(event: PointerEvent<SVGSVGElement>) {
    const box = event.currentTarget.getBoundingClientRect();
    const t = time(event.clientX - box.left);
    const which = Math.abs(t - cursors[0]) <= Math.abs(t - cursors[1]) ? 0 : 1;
    dragged.current = which;
    event.currentTarget.setPointerCapture(event.pointerId);
    onCursor(which, t);
  }

  function drag(event: PointerEvent<SVGSVGElement>) {
    if (dragged.current === null) return;
    const box = event.currentTarget.getBoundingClientRect();
    onCursor(dragged.current, time(event.clientX - box.left));
  }

  function key(which: 0 | 1) {
    return (event: KeyboardEvent) => {
      const step = (event.shiftKey ? 10 : 1) * (spanS / 240);
      const move = { ArrowRight: step, ArrowLeft: -step, ArrowUp: step, ArrowDown: -step }[event.key];
      if (move === undefined) return;
      event.preventDefault();
      onCursor(which, Math.min(fromS + spanS, Math.max(fromS, cursors[which] + move)));
    };
  }

  return (
    <div className="relative" style={{ width, height }}>
      <svg
        ref={svgRef}
        width={width}
        height={height}
        role="img"
        aria-label={`Traces: ${shown.map((s) => s.trace.label).join(', ') || 'none'}`}
        className="block touch-none select-none"
        onPointerDown={grab}
        onPointerMove={drag}
        onPointerUp={() => (dragged.current = null)}
      >
        <defs>
          <clipPath id="scope-glass">
            <rect width={right} height={bottom} />
          </clipPath>
        </defs>
        <rect width={right} height={bottom} fill="var(--raised)" />
        {Array.from({ length: DIVISIONS.across + 1 }, (_, n) => (
          <path
            key={`x${n}`}
            d={`M${(n / DIVISIONS.across) * right} 0V${bottom}`}
            stroke="var(--rule)"
            strokeWidth={n % 6 === 0 ? 1.2 : 0.6}
          />
        ))}
        {Array.from({ length: DIVISIONS.up + 1 }, (_, n) => (
          <path
            key={`y${n}`}
            d={`M0 ${(n / DIVISIONS.up) * bottom}H${right}`}
            stroke="var(--rule)"
            strokeWidth={n === DIVISIONS.up / 2 ? 1.2 : 0.6}
          />
        ))}
        <g clipPath="url(#scope-glass)">
          {shown.map((s) => (
            <g key={s.trace.id}>
              {Math.abs(s.middle) < (DIVISIONS.up / 2) * s.perDivision && (
                <path d={`M0 ${y(s, 0)}h14`} stroke={STROKES[s.place]!.colour} strokeWidth="3" />
              )}
              <path
                d={path(s)}
                fill="none"
                stroke={STROKES[s.place]!.colour}
                strokeWidth={s.place === 0 ? 2.4 : 1.8}
                strokeDasharray={STROKES[s.place]!.dash}
                strokeLinejoin="round"
                data-trace={s.trace.id}
              />
            </g>
          ))}
          {measured && (
            <path
              d={measured}
              fill="none"
              stroke="var(--fail)"
              strokeWidth="1.4"
              opacity="0.85"
              data-testid="measured"
            />
          )}
        </g>
        {cursors.map((t, n) => {
          const inside = t >= fromS - 1e-12 && t <= fromS + spanS + 1e-12;
          return (
            inside && (
              <g key={n} className="cursor-ew-resize">
                <path d={`M${x(t)} 0V${bottom}`} stroke="var(--edge)" strokeWidth="1.4" strokeDasharray="3 3" />
                <path d={`M${x(t) - 5} 0h10l-5 8z`} fill="var(--edge)" />
                <text x={x(t)} y={bottom + 15} textAnchor="middle" fontSize="13" fontWeight="600" fill="var(--ink)">
                  {`${n === 0 ? 'A' : 'B'} ${formatQuantity(t, 's')}`}
                </text>
              </g>
            )
          );
        })}
        {labels(shown, y, bottom).map(({ s, at }) => (
          <g key={s.trace.id}>
            <text x={right + 10} y={at} fontSize="13.5" fontWeight="650" fill={STROKES[s.place]!.colour}>
              {s.trace.label}
            </text>
            <text x={right + 10} y={at + 16} fontSize="12.5" fill="var(--quiet)">
              {`${formatQuantity(s.perDivision, s.trace.unit)}/div${s.channel.ac ? ', AC' : ''}${s.channel.probe === 10 ? ', ×10' : ''}`}
            </text>
          </g>
        ))}
      </svg>
      {/* The cursors for the keyboard: outside the picture, over its lines. */}
      {cursors.map((t, n) => (
        <div
          key={n}
          role="slider"
          tabIndex={0}
          aria-label={`Cursor ${n === 0 ? 'A' : 'B'}`}
          aria-valuemin={Number((1000 * fromS).toPrecision(6))}
          aria-valuemax={Number((1000 * (fromS + spanS)).toPrecision(6))}
          aria-valuenow={Number((1000 * t).toPrecision(6))}
          aria-valuetext={formatQuantity(t, 's')}
          onKeyDown={key(n as 0 | 1)}
          className="pointer-events-none absolute top-0 w-[24px] -translate-x-1/2"
          style={{ left: Math.min(right, Math.max(0, x(t))), height: bottom + 18 }}
        />
      ))}
    </div>
  );
}

/** Labels at the heights where their traces leave the screen, none on another. */
function labels(shown: readonly Shown[], y: (s: Shown, v: number) => number, bottom: number) {
  const list = shown.map((s) => Math.min(Math.max(y(s, s.values[s.values.length - 1]!), 14), bottom - 22));
  const at = apart(list, 38, bottom - 22);
  return shown.map((s, n) => ({ s, at: at[n]! }));
}
