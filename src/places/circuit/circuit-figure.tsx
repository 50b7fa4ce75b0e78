'use client';

import { useEffect, useRef } from 'react';
import { hopPath, flipped, local } from '@/core/build/circuit/circuit-svg';
import { LINE_PX, bodyOf, type CircuitDrawing, type DrawnSymbol } from '@/core/build/circuit/drawing';
import { strokesOf, type Convention } from '@/core/build/circuit/strokes';

interface Props {
  drawing: CircuitDrawing;
  convention: Convention;
  /** References of what is lit up. */
  lit: ReadonlySet<string>;
  /** Nets at volts that hurt. */
  hazardous: ReadonlySet<string>;
  /** What is in a part, for who cannot see it. */
  wordsOf(refs: readonly string[]): string;
  onOpen(ref: string): void;
}

/** A pointer that stays so long on a part means it, ms; on its way to the card it crosses others. */
const LINGERS_MS = 250;

/** The schematic, each part of it a button: looked at by pointer or focus, or opened. */
export function CircuitFigure({ drawing, convention, lit, hazardous, wordsOf, onOpen }: Props) {
  const { width, height, symbols, wires, loop, dots, hops, labels } = drawing;
  const ink = (net: string) => (hazardous.has(net) ? 'var(--fail)' : 'var(--ink)');
  const parts = symbols.filter((s) => s.refs.length > 0);
  const marks = symbols.filter((s) => s.refs.length === 0);
  const first = new Set<string>();
  const lingering = useRef<ReturnType<typeof setTimeout>>(undefined);
  const linger = (then: (() => void) | null) => {
    clearTimeout(lingering.current);
    if (then) lingering.current = setTimeout(then, LINGERS_MS);
  };
  useEffect(() => () => clearTimeout(lingering.current), []);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      className="block h-auto max-w-full"
      role="group"
      aria-label="Circuit"
      style={{ minWidth: Math.min(width, 900) }}
    >
      <g fill="none" strokeLinecap="round" strokeLinejoin="round" strokeWidth="1.3">
        {loop.map((w, n) => (
          <path key={n} d={`M${w.from.x} ${w.from.y}L${w.to.x} ${w.to.y}`} stroke="var(--volt-soft)" strokeWidth="7" />
        ))}
        {wires.map((w, n) => (
          <path key={n} d={`M${w.from.x} ${w.from.y}L${w.to.x} ${w.to.y}`} stroke={ink(w.net)} />
        ))}
        {hops.map(({ x, y }) => (
          <g key={`${x} ${y}`}>
            <path d={`M${x} ${y - 5}V${y + 5}`} stroke="var(--paper)" strokeWidth="3" />
            <path d={hopPath(x, y)} stroke="var(--ink)" />
          </g>
        ))}
        {marks.map((s, n) => (
          <Symbol key={n} symbol={s} convention={convention} stroke={ink(s.pins[0]!.net)} />
        ))}
      </g>
      <g fill="var(--ink)">
        {dots.map(({ x, y }) => (
          <circle key={`${x} ${y}`} cx={x} cy={y} r="2.6" />
        ))}
      </g>
      {labels.map((l, n) => {
        const x = l.align === 'start' ? l.x : l.align === 'end' ? l.x + l.width : l.x + l.width / 2;
        return (
          <text
            key={n}
            textAnchor={l.align}
            fontSize="12.5"
            fill={l.net && l.refs.length === 0 ? 'var(--quiet)' : 'var(--ink)'}
          >
            {l.lines.map((line, k) => (
              <tspan key={k} x={x} y={l.y + LINE_PX * k + 11} fontWeight={k === 0 ? 600 : 400}>
                {line}
              </tspan>
            ))}
          </text>
        );
      })}
      {parts.map((s, n) => {
        const on = s.refs.some((ref) => lit.has(ref));
        const body = bodyOf(s);
        // A part drawn in several pieces is one stop of the keyboard.
        const stop = !first.has(s.refs[0]!);
        first.add(s.refs[0]!);
        return (
          <g
            key={n}
            role="button"
            tabIndex={stop ? 0 : -1}
            aria-label={wordsOf(s.refs)}
            aria-pressed={on}
            data-part={s.refs[0]}
            className="cursor-pointer outline-none [&:focus-visible>rect]:stroke-[var(--volt)]"
            onClick={() => onOpen(s.refs[0]!)}
            onFocus={(e) => e.currentTarget.matches(':focus-visible') && onOpen(s.refs[0]!)}
            onPointerEnter={(e) => e.pointerType === 'mouse' && linger(() => onOpen(s.refs[0]!))}
            onPointerLeave={() => linger(null)}
            onKeyDown={(e) => {
              if (e.key !== 'Enter' && e.key !== ' ') return;
              e.preventDefault();
              onOpen(s.refs[0]!);
            }}
          >
            <rect
              x={body.x - 5}
              y={body.y - 5}
              width={body.width + 10}
              height={body.height + 10}
              rx="3"
              fill={on ? 'var(--volt-soft)' : 'transparent'}
              stroke="transparent"
              strokeWidth="2"
            />
            <g fill="none" strokeWidth={on ? 1.9 : 1.3} strokeLinecap="round" strokeLinejoin="round">
              <Symbol
                symbol={s}
                convention={convention}
                stroke={
                  on
                    ? 'var(--volt)'
                    : s.pins.length > 0 && s.pins.every((p) => hazardous.has(p.net))
                      ? 'var(--fail)'
                      : 'var(--ink)'
                }
              />
            </g>
          </g>
        );
      })}
    </svg>
  );
}

function Symbol({ symbol, convention, stroke }: { symbol: DrawnSymbol; convention: Convention; stroke: string }) {
  return (
    <g
      transform={`translate(${symbol.x} ${symbol.y}) rotate(${90 * symbol.turn}) scale(1 ${flipped(symbol) ? -1 : 1})`}
    >
      {strokesOf(local(symbol), convention).map((s, n) => (
        <path
          key={n}
          d={s.d}
          stroke={stroke}
          fill={s.solid ? stroke : 'none'}
          strokeDasharray={s.dashed ? '3 3' : undefined}
        />
      ))}
    </g>
  );
}
