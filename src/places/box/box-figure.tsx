'use client';

import { useRef, type KeyboardEvent } from 'react';
import type { Inside, PlacedBlock, Spot } from '@/core/box/block';
import { solidOf } from '@/core/box/solid';
import type { BoxFace } from '@/core/design/design';
import { useDrag } from '@/ui/use-drag';

interface Props {
  inside: Inside;
  placed: readonly PlacedBlock[];
  /** Ids of what has volts on it that hurt. */
  hazardous: ReadonlySet<string>;
  /** Ids of what is too near to something. */
  broken: ReadonlySet<string>;
  selected: string | null;
  onSelect(id: string): void;
  /** While it is being moved; null once it lies. */
  onMoving(id: string, spot: Spot | null): void;
  onMove(id: string, spot: Spot): void;
}

/** Between the faces and above them, where their names stand, px. */
const GAP_PX = 24;
/** Most the drawing takes, px. */
const MOST_PX = { w: 850, h: 560 };
/** What is small is not drawn larger than this, px a mm. */
const MOST_PX_PER_MM = 3.2;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** The box taken apart: its floor, and beside it the rear and the front panel, all from where the builder stands. */
export function BoxFigure({ inside, placed, hazardous, broken, selected, onSelect, onMoving, onMove }: Props) {
  const { wMm, dMm, hMm } = inside;
  const scale = Math.min(
    (MOST_PX.w - GAP_PX) / (2 * wMm),
    (MOST_PX.h - GAP_PX) / dMm,
    (MOST_PX.h - 2 * GAP_PX) / (2 * hMm),
    MOST_PX_PER_MM,
  );
  const gap = GAP_PX / scale;
  const total = { w: 2 * wMm + gap + 2 / scale, h: Math.max(dMm + gap, 2 * (hMm + gap)) + 2 / scale };
  const text = 12.5 / scale;
  /** Where a face's lower left corner lies in the drawing, mm. */
  const base: Readonly<Record<BoxFace, { x: number; y: number }>> = {
    floor: { x: 0, y: gap + dMm },
    rear: { x: wMm + gap, y: gap + hMm },
    front: { x: wMm + gap, y: 2 * (gap + hMm) },
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
      viewBox={`${-1 / scale} 0 ${total.w} ${total.h}`}
      width={total.w * scale}
      className="block h-auto max-w-full touch-none select-none"
      role="group"
      aria-label={`Box, inside ${wMm} by ${dMm} by ${hMm} mm`}
    >
      {faces.map(([face, name, high]) => (
        <g key={face}>
          <rect
            x={base[face].x}
            y={base[face].y - high}
            width={wMm}
            height={high}
            fill="var(--raised)"
            stroke="var(--edge)"
            strokeWidth={1 / scale}
          />
          <text x={base[face].x} y={base[face].y - high - 6 / scale} fontSize={text} fill="var(--quiet)">
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
              y={base.floor.y - y[1]}
              width={x[1] - x[0]}
              height={y[1] - y[0]}
              fill="none"
              stroke={hazardous.has(block.id) ? 'var(--fail)' : 'var(--edge)'}
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
          hazardous={hazardous.has(p.block.id)}
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
  base: { x: number; y: number };
  scale: number;
  text: number;
  hazardous: boolean;
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
  hazardous,
  broken,
  selected,
  onSelect,
  onMoving,
  onMove,
  pxPerMm,
}: BlockProps) {
  const { block, spot } = placed;
  const { x: across, y, z, round } = solidOf(block, spot, inside);
  const x = across.map((v) => v + base.x) as [number, number];
  const up = spot.face === 'floor' ? y : z;
  const [w, h] = [x[1] - x[0], up[1] - up[0]];
  // What it is, where there is room for it.
  const name = block.what.split(/,| of | with /)[0]!;
  const named = name !== block.label && w * scale > 8 * name.length && h * scale > 40;
  const ink = broken || hazardous ? 'var(--fail)' : 'var(--ink)';
  const shape = {
    fill: broken ? 'var(--fail-soft)' : block.hot ? 'var(--ember-soft)' : 'var(--paper)',
    stroke: selected ? 'var(--volt)' : ink,
    strokeWidth: (selected || broken ? 2.4 : 1.2) / scale,
  };
  const at = (from: Spot, dx: number, dy: number): Spot => ({
    ...from,
    xMm: from.xMm + Math.round(dx),
    yMm: from.yMm - Math.round(dy),
  });
  const drag = useDrag(spot, {
    pxPerMm,
    onTake: onSelect,
    onDrag: (from, dx, dy) => onMoving(at(from, dx, dy)),
    onDrop: (from, dx, dy) => {
      const to = at(from, dx, dy);
      if (to.xMm !== from.xMm || to.yMm !== from.yMm) onMove(to);
      else onMoving(null);
    },
    onCancel: () => onMoving(null),
  });
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
  const words = `${block.label}: ${block.what}${hazardous ? ', hazardous volts' : ''}${broken ? ', too near' : ''}. Arrows move it, R turns it.`;
  return (
    <>
      <g
        tabIndex={0}
        role="button"
        aria-pressed={selected}
        aria-label={words}
        className="cursor-grab outline-none"
        onKeyDown={key}
        onFocus={onSelect}
        {...drag}
      >
        {round ? (
          <circle cx={x[0] + w / 2} cy={base.y - up[0] - h / 2} r={w / 2} {...shape} />
        ) : (
          <rect x={x[0]} y={base.y - up[1]} width={w} height={h} rx={1} {...shape} />
        )}
        {block.fins &&
          Array.from({ length: Math.floor(Math.max(w, h) / 6) }, (_, n) => {
            const along = (n + 0.5) * 6;
            return w >= h ? (
              <path
                key={n}
                d={`M${x[0] + along} ${base.y - up[0]}v${-h}`}
                stroke="var(--edge)"
                strokeWidth={1 / scale}
              />
            ) : (
              <path
                key={n}
                d={`M${x[0]} ${base.y - up[0] - along}h${w}`}
                stroke="var(--edge)"
                strokeWidth={1 / scale}
              />
            );
          })}
      </g>
      <text
        aria-hidden
        className="pointer-events-none"
        x={x[0] + w / 2}
        y={base.y - up[0] - h / 2 + text * (named ? -0.2 : 0.35)}
        fontSize={text}
        textAnchor="middle"
        fill={ink}
        stroke="var(--paper)"
        strokeWidth={3 / scale}
        paintOrder="stroke"
      >
        <tspan fontWeight={600}>
          {hazardous && '⚠ '}
          {cut(block.label, (w * scale) / LETTER_PX)}
        </tspan>
        {named && (
          <tspan x={x[0] + w / 2} dy={text * 1.2} fill="var(--quiet)">
            {name}
          </tspan>
        )}
      </text>
    </>
  );
}

/** Width of a letter in the drawing, px. */
const LETTER_PX = 7;

/** A name in so many letters; what it was goes with its words for who cannot see it. */
const cut = (name: string, letters: number) =>
  name.length <= Math.max(4, letters) ? name : `${name.slice(0, Math.max(3, Math.floor(letters) - 1))}…`;
