'use client';

import { useRef } from 'react';
import { boardWords, markOf } from '@/core/board/board-words';
import { GRID_MM, LINK_PAD, VIA_PAD, type EtchedBoard, type OnBoard } from '@/core/board/etched';
import { overlapsOf } from '@/core/board/overlaps';
import { courtyard } from '@/core/board/pad-footprint';
import { PartHandle, type Hand } from './part-handle';

/** Size of the drawing, px a mm, and most of it. */
const PX_PER_MM = 11;
const MOST_PX = { w: 880, h: 560 };
/** Letters stay legible: a tall board scrolls instead. */
const LEAST_PX_PER_MM = 8.5;
const NO_VOLTS = new Map<string, string>();

/** A board with tracks, from the side of the parts with its copper shining through, or from below. */
export function EtchedFigure({
  board,
  copperSide,
  loose,
  net,
  hazardous,
  hand,
}: {
  board: EtchedBoard;
  copperSide: boolean;
  /** Keys of parts whose tracks are not laid yet. */
  loose: ReadonlySet<string>;
  /** The net that is lit up. */
  net: string | null;
  hazardous: ReadonlySet<string>;
  hand: Hand;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const { wMm, hMm, parts, branches, tracks, links, vias, holes, sides } = board;
  const scale = Math.min(PX_PER_MM, MOST_PX.w / wMm, Math.max(LEAST_PX_PER_MM, MOST_PX.h / hMm));
  const X = (x: number) => (copperSide ? wMm - x : x);
  const looseBranches = new Set(parts.filter((p) => loose.has(p.key)).flatMap((p) => p.pads.map((pad) => pad.branch)));
  const ink = (of: string) => (of === net ? 'var(--volt)' : hazardous.has(of) ? 'var(--fail)' : 'var(--ink)');
  const copper = (branch: number) => {
    const of = branches[branch]!.net;
    return of === net ? 'var(--volt)' : hazardous.has(of) ? 'var(--fail)' : 'var(--edge)';
  };
  const bad = new Set(overlapsOf(board).flat());
  /** Faint: what is to be laid anew; less so: what is on the other side. */
  const opacityOf = (t: EtchedBoard['tracks'][number]) =>
    looseBranches.has(t.branch) ? 0.15 : (t.layer === 'under') === copperSide || sides === 1 ? 0.55 : 0.3;
  const grouped = [0.15, 0.3, 0.55].map((opacity) => ({
    opacity,
    tracks: tracks.filter((t) => opacityOf(t) === opacity),
  }));
  return (
    <svg
      ref={svg}
      viewBox={`-0.5 -0.5 ${wMm + 1} ${hMm + 1}`}
      width={(wMm + 1) * scale}
      className="block h-auto max-w-full touch-none select-none"
      role="group"
      aria-label={copperSide ? 'The board from the side of its copper' : 'The board from the side of its parts'}
    >
      <rect width={wMm} height={hMm} rx={0.8} fill="var(--raised)" stroke="var(--edge)" strokeWidth={0.2} />
      {holes.map((h) => (
        <circle
          key={`${h.xMm} ${h.yMm}`}
          cx={X(h.xMm)}
          cy={h.yMm}
          r={h.drillMm / 2}
          fill="var(--paper)"
          stroke="var(--edge)"
          strokeWidth={0.2}
        />
      ))}
      {grouped.map(({ opacity, tracks: these }) => (
        <g key={opacity} strokeLinecap="round" opacity={opacity}>
          {these.map((t, n) => (
            <line
              key={n}
              x1={X(t.x1)}
              y1={t.y1}
              x2={X(t.x2)}
              y2={t.y2}
              stroke={copper(t.branch)}
              strokeWidth={t.widthMm}
            />
          ))}
        </g>
      ))}
      <g strokeLinecap="round">
        {!copperSide &&
          links.map((l, n) => (
            <line
              key={n}
              x1={l.x1}
              y1={l.y1}
              x2={l.x2}
              y2={l.y2}
              stroke={ink(branches[l.branch]!.net)}
              strokeWidth={0.6}
            />
          ))}
      </g>
      {[
        ...links.flatMap((l) => [
          { x: l.x1, y: l.y1, d: LINK_PAD, branch: l.branch },
          { x: l.x2, y: l.y2, d: LINK_PAD, branch: l.branch },
        ]),
        ...vias.map((v) => ({ x: v.xMm, y: v.yMm, d: VIA_PAD, branch: v.branch })),
      ].map(({ x, y, d, branch }, n) => (
        <g key={n}>
          <circle cx={X(x)} cy={y} r={d.padMm / 2} fill={copper(branch)} />
          <circle cx={X(x)} cy={y} r={d.drillMm / 2} fill="var(--paper)" />
        </g>
      ))}
      {parts.map((p) => (
        <g key={p.key}>
          {!copperSide && !p.wire && <Body part={p} bad={bad.has(p.ref)} />}
          {p.pads.map((pad) => (
            <g key={pad.name}>
              <circle cx={X(pad.xMm)} cy={pad.yMm} r={pad.padMm / 2} fill={ink(pad.net)} />
              <circle cx={X(pad.xMm)} cy={pad.yMm} r={pad.drillMm / 2} fill="var(--paper)" />
            </g>
          ))}
        </g>
      ))}
      {boardWords(board, NO_VOLTS)
        .filter((w) => !copperSide || w.of === 'wire')
        .map((w) => (
          <text
            key={`${w.text} ${w.x} ${w.y}`}
            x={X(w.x)}
            y={w.y + w.mm * 0.36}
            fontSize={w.mm * 1.25}
            textAnchor="middle"
            fill={w.of === 'name' ? 'var(--ink)' : 'var(--quiet)'}
            stroke="var(--raised)"
            strokeWidth={0.5}
            paintOrder="stroke"
          >
            {w.text}
          </text>
        ))}
      {parts.map((p) => {
        const { x0, y0, x1, y1 } = courtyard(p);
        return (
          <PartHandle
            key={p.key}
            id={p.key}
            hand={hand}
            x={copperSide ? wMm - x1 : x0}
            y={y0}
            w={x1 - x0}
            h={y1 - y0}
            stepMm={GRID_MM}
            mirrored={copperSide}
            words={`${p.ref}${p.wire ? ', a wire' : `, ${p.value}`}${bad.has(p.ref) ? ', stands on something' : ''}`}
            pxPerMm={() => (svg.current ? svg.current.getBoundingClientRect().width / (wMm + 1) : scale)}
          />
        );
      })}
    </svg>
  );
}

function Body({ part, bad }: { part: OnBoard; bad: boolean }) {
  const { x0, y0, x1, y1 } = part.body;
  const shape = {
    fill: bad ? 'var(--fail-soft)' : 'var(--raised)',
    fillOpacity: 0.7,
    stroke: bad ? 'var(--fail)' : 'var(--ink)',
    strokeWidth: 0.2,
  };
  return (
    <>
      {part.round ? (
        <circle cx={(x0 + x1) / 2} cy={(y0 + y1) / 2} r={(x1 - x0) / 2} {...shape} />
      ) : (
        <rect x={x0} y={y0} width={x1 - x0} height={y1 - y0} rx={0.5} {...shape} />
      )}
      {markOf(part).map(
        (m, n) =>
          m.kind === 'stroke' && (
            <line
              key={n}
              x1={m.x1}
              y1={m.y1}
              x2={m.x2}
              y2={m.y2}
              stroke="var(--ink)"
              strokeWidth={Math.max(0.25, m.w)}
            />
          ),
      )}
    </>
  );
}
