'use client';

import { holeName } from '@/core/board/strip-names';
import { EDGE_MM, onCopper, SIDE_MM, type StripDrawing, type StripShape } from '@/core/board/strip-drawing';
import { PITCH_MM } from '@/core/board/strip-footprint';
import type { Stripboard } from '@/core/board/on-strips';
import { useRef } from 'react';
import { PartHandle, type Hand } from './part-handle';

/** Size of the drawing, px a mm. */
const PX_PER_MM = 8;

/** A board of strips, from the side of the parts, or mirrored from that of the copper. */
export function StripFigure({
  drawing: { wMm, hMm, shapes },
  board,
  copperSide,
  net,
  hazardous,
  hand,
}: {
  drawing: StripDrawing;
  board: Stripboard;
  copperSide: boolean;
  /** The net that is lit up. */
  net: string | null;
  hazardous: ReadonlySet<string>;
  hand: Hand;
}) {
  const svg = useRef<SVGSVGElement>(null);

  const ink = (of: string | null) =>
    of !== null && of === net ? 'var(--volt)' : of !== null && hazardous.has(of) ? 'var(--fail)' : 'var(--ink)';
  const X = (x: number) => (copperSide ? wMm - x : x);
  const drawn = (s: StripShape) => {
    switch (s.kind) {
      case 'strip':
        return (
          <rect
            key={s.key}
            x={copperSide ? wMm - s.x - s.w : s.x}
            y={s.y}
            width={s.w}
            height={s.h}
            fill={s.net !== null && s.net === net ? 'var(--volt-soft)' : 'var(--sunk)'}
            stroke={s.net !== null && hazardous.has(s.net) ? 'var(--fail)' : 'none'}
            strokeWidth={0.15}
          />
        );
      case 'hole':
        return <circle key={s.key} cx={X(s.x)} cy={s.y} r={0.42} fill="var(--paper)" />;
      case 'cut':
        return (
          <path
            key={s.key}
            d={`M${X(s.x) - 0.9} ${s.y - 0.9}l1.8 1.8m0 -1.8l-1.8 1.8`}
            stroke="var(--fail)"
            strokeWidth={0.5}
          />
        );
      case 'link':
      case 'lead':
        return (
          <line
            key={s.key}
            x1={X(s.x1)}
            y1={s.y1}
            x2={X(s.x2)}
            y2={s.y2}
            stroke={s.kind === 'link' ? ink(s.net) : 'var(--ink)'}
            strokeWidth={s.kind === 'link' ? 0.7 : 0.3}
            strokeLinecap="round"
            strokeDasharray={s.kind === 'link' && s.insulated ? '1.6 1.2' : undefined}
          />
        );
      case 'body':
        return (
          <rect
            key={s.key}
            x={s.x}
            y={s.y}
            width={s.w}
            height={s.h}
            rx={s.round ? s.w / 2 : 0.6}
            ry={s.round ? s.h / 2 : 0.6}
            fill="var(--raised)"
            stroke="var(--ink)"
            strokeWidth={0.22}
          />
        );
      case 'pin':
        return <circle key={s.key} cx={X(s.x)} cy={s.y} r={s.wire ? 0.85 : 0.6} fill={ink(s.net)} />;
      case 'text':
        return (
          <text
            key={s.key}
            x={X(s.x)}
            y={s.y}
            fontSize={s.size}
            textAnchor={s.anchor}
            fill={s.of === 'part' ? 'var(--ink)' : 'var(--quiet)'}
          >
            {s.text}
          </text>
        );
    }
  };
  const shown = copperSide ? shapes.filter(onCopper) : shapes;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${wMm} ${hMm}`}
      width={wMm * PX_PER_MM}
      className="block h-auto max-w-full touch-none select-none"
      role="group"
      aria-label={copperSide ? 'The board from the side of its copper' : 'The board from the side of its parts'}
    >
      <rect
        x={SIDE_MM - PITCH_MM}
        y={EDGE_MM - PITCH_MM}
        width={wMm - 2 * (SIDE_MM - PITCH_MM)}
        height={hMm - 2 * (EDGE_MM - PITCH_MM)}
        rx={0.6}
        fill="none"
        stroke="var(--edge)"
        strokeWidth={0.2}
      />
      {shown.map(drawn)}
      {board.parts.map((p) => {
        const x0 = Math.min(p.body.holes[0], ...p.legs.map((l) => l.at.hole));
        const x1 = Math.max(p.body.holes[1], ...p.legs.map((l) => l.at.hole));
        const y0 = Math.min(p.body.strips[0], ...p.legs.map((l) => l.at.strip));
        const y1 = Math.max(p.body.strips[1], ...p.legs.map((l) => l.at.strip));
        const at = SIDE_MM + PITCH_MM * (copperSide ? board.holes - 1 - x1 : x0) - PITCH_MM / 2;
        return (
          <PartHandle
            key={p.key}
            id={p.key}
            hand={hand}
            x={at}
            y={EDGE_MM + PITCH_MM * (y0 - 0.5)}
            w={PITCH_MM * (x1 - x0 + 1)}
            h={PITCH_MM * (y1 - y0 + 1)}
            stepMm={PITCH_MM}
            mirrored={copperSide}
            words={`${p.ref}${p.wire ? ', a wire' : ''} in ${p.legs.map((l) => holeName(l.at)).join(', ')}`}
            pxPerMm={() => (svg.current ? svg.current.getBoundingClientRect().width / wMm : PX_PER_MM)}
          />
        );
      })}
    </svg>
  );
}
