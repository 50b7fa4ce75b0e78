'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Inside, PlacedBlock, Spot } from '@/core/box/block';
import { solidOf } from '@/core/box/solid';
import type { BoxFace } from '@/core/design/design';

interface Props {
  inside: Inside;
  placed: readonly PlacedBlock[];
  /** Ids of what is too near to something. */
  broken: ReadonlySet<string>;
  selected: string | null;
  onSelect(id: string): void;
  /** While it is being moved; null once it lies. */
  onMoving(id: string, spot: Spot | null): void;
  onMove(id: string, spot: Spot): void;
}

/** Between the faces, mm, with room for their names. */
const GAP_MM = 16;
/** Most the drawing takes, px. */
const MOST_PX = { w: 760, h: 640 };
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** The box unfolded: the rear panel behind its floor, the front one before it, all seen from where the builder stands. */
export function BoxFigure({ inside, placed, broken, selected, onSelect, onMoving, onMove }: Props) {
  const { wMm, dMm, hMm } = inside;
  const total = { w: wMm + 2, h: 2 * hMm + dMm + 3 * GAP_MM + 2 };
  const scale = Math.min(MOST_PX.w / total.w, MOST_PX.h / total.h, 3.2);
  const text = 12.5 / scale;
  /** Where a face's lower edge lies in the drawing, mm. */
  const base: Readonly<Record<BoxFace, number>> = {
    rear: GAP_MM + hMm,
    floor: 2 * GAP_MM + hMm + dMm,
    front: 3 * GAP_MM + 2 * hMm + dMm,
  };
  const svg = useRef<SVGSVGElement>(null);
  const faces = [
    ['rear', 'Rear, seen from inside', hMm],
    ['floor', 'Floor, from above', dMm],
    ['front', 'Front, from outside', hMm],
  ] as const;
  return (
    <svg
      ref={svg}
      viewBox={`-1 0 ${total.w} ${total.h}`}
      width={total.w * scale}
      className="block h-auto max-w-full touch-none select-none"
      role="group"
      aria-label={`Box, inside ${wMm} by ${dMm} by ${hMm} mm`}
    >
      {faces.map(([face, name, high]) => (
        <g key={face}>
          <rect
            x={0}
            y={base[face] - high}
            width={wMm}
            height={high}
            fill="var(--raised)"
            stroke="var(--edge)"
            strokeWidth={1 / scale}
          />
          <text x={0} y={base[face] - high - 4 / scale} fontSize={text} fill="var(--quiet)">
            {name}
            {face === 'floor' && ` · ${wMm} × ${dMm} × ${hMm} mm inside`}
          </text>
        </g>
      ))}
      {placed
        .filter((p) => p.spot.face !== 'floor' && !p.block.outside)
        .map(({ block, spot }) => {
          const { x, y } = solidOf(block, spot, inside);
          return (
            <rect
              key={block.id}
              x={x[0]}
              y={base.floor - y[1]}
              width={x[1] - x[0]}
              height={y[1] - y[0]}
              fill="none"
              stroke={block.carries === 'mains' ? 'var(--fail)' : 'var(--edge)'}
              strokeWidth={1 / scale}
              strokeDasharray={`${3 / scale} ${3 / scale}`}
            />
          );
        })}
      {placed.map((p) => (
        <DrawnBlock
          key={p.block.id}
          placed={p}
          inside={inside}
          base={base[p.spot.face]}
          scale={scale}
          text={text}
          broken={broken.has(p.block.id)}
          selected={p.block.id === selected}
          onSelect={() => onSelect(p.block.id)}
          onMoving={(spot) => onMoving(p.block.id, spot)}
          onMove={(spot) => onMove(p.block.id, spot)}
          pxPerMm={() => (svg.current ? svg.current.getBoundingClientRect().width / total.w : scale)}
        />
      ))}
    </svg>
  );
}

interface BlockProps {
  placed: PlacedBlock;
  inside: Inside;
  base: number;
  scale: number;
  text: number;
  broken: boolean;
  selected: boolean;
  onSelect(): void;
  onMoving(spot: Spot | null): void;
  onMove(spot: Spot): void;
  pxPerMm(): number;
}

/** A part on its face: a button that is dragged, or moved by the arrows. */
function DrawnBlock({
  placed,
  inside,
  base,
  scale,
  text,
  broken,
  selected,
  onSelect,
  onMoving,
  onMove,
  pxPerMm,
}: BlockProps) {
  const { block, spot } = placed;
  const [from, setFrom] = useState<{ x: number; y: number; spot: Spot } | null>(null);
  const { x, y, z, round } = solidOf(block, spot, inside);
  const up = spot.face === 'floor' ? y : z;
  const [w, h] = [x[1] - x[0], up[1] - up[0]];
  const mains = block.carries === 'mains' || block.carries === 'both';
  const ink = broken || mains ? 'var(--fail)' : 'var(--ink)';
  const shape = {
    fill: broken ? 'var(--fail-soft)' : block.hot ? 'var(--ember-soft)' : 'var(--paper)',
    stroke: selected ? 'var(--volt)' : ink,
    strokeWidth: (selected || broken ? 2.4 : 1.2) / scale,
  };
  const at = (e: PointerEvent): Spot => {
    const mm = pxPerMm();
    return {
      ...from!.spot,
      xMm: Math.round(from!.spot.xMm + (e.clientX - from!.x) / mm),
      yMm: Math.round(from!.spot.yMm - (e.clientY - from!.y) / mm),
    };
  };
  const key = (e: KeyboardEvent) => {
    const arrow = ARROWS[e.key];
    const by = e.shiftKey ? 10 : 1;
    if (arrow) onMove({ ...spot, xMm: spot.xMm + by * arrow[0], yMm: spot.yMm + by * arrow[1] });
    else if (e.key === 'Enter' || e.key === ' ') onSelect();
    else if (e.key === 'r' || e.key === 'R') onMove({ ...spot, turned: !spot.turned });
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const words = `${block.label}: ${block.what}${mains ? ', mains' : ''}${broken ? ', too near' : ''}. Arrows move it, R turns it.`;
  return (
    <g
      tabIndex={0}
      role="button"
      aria-pressed={selected}
      aria-label={words}
      className="cursor-grab focus-visible:outline-2 focus-visible:outline-volt"
      onKeyDown={key}
      onFocus={onSelect}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        setFrom({ x: e.clientX, y: e.clientY, spot });
        onSelect();
      }}
      onPointerMove={(e) => from && onMoving(at(e))}
      onPointerUp={(e) => {
        if (!from) return;
        const to = at(e);
        setFrom(null);
        if (to.xMm !== from.spot.xMm || to.yMm !== from.spot.yMm) onMove(to);
        else onMoving(null);
      }}
      onPointerCancel={() => {
        setFrom(null);
        onMoving(null);
      }}
    >
      {round ? (
        <circle cx={x[0] + w / 2} cy={base - up[0] - h / 2} r={w / 2} {...shape} />
      ) : (
        <rect x={x[0]} y={base - up[1]} width={w} height={h} rx={1} {...shape} />
      )}
      {block.fins &&
        Array.from({ length: Math.floor(Math.max(w, h) / 6) }, (_, n) => {
          const along = (n + 0.5) * 6;
          return w >= h ? (
            <path key={n} d={`M${x[0] + along} ${base - up[0]}v${-h}`} stroke="var(--edge)" strokeWidth={1 / scale} />
          ) : (
            <path key={n} d={`M${x[0]} ${base - up[0] - along}h${w}`} stroke="var(--edge)" strokeWidth={1 / scale} />
          );
        })}
      <text
        x={x[0] + w / 2}
        y={base - up[0] - h / 2 + text * 0.35}
        fontSize={text}
        fontWeight={600}
        textAnchor="middle"
        fill={ink}
        stroke="var(--paper)"
        strokeWidth={3 / scale}
        paintOrder="stroke"
      >
        {mains && '⚠ '}
        {block.label}
      </text>
    </g>
  );
}
