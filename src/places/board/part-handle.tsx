'use client';

import type { KeyboardEvent } from 'react';
import { useDrag } from '@/ui/use-drag';

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** What a hand does with the parts of a board; steps of its grid to the right and down. */
export interface Hand {
  /** Key of the part in hand. */
  selected: string | null;
  onSelect(key: string): void;
  onMoving(key: string, right: number, down: number): void;
  /** From where it lay when it was taken. */
  onMove(key: string, right: number, down: number): void;
  /** From where it was last put, even where it does not lie yet. */
  onNudge(key: string, right: number, down: number): void;
  onRest(): void;
  onTurn(key: string): void;
}

/** What a part of a board is taken by: dragged, or moved by the arrows and turned by R. Steps of the grid, mm. */
export function PartHandle({
  id,
  hand,
  x,
  y,
  w,
  h,
  stepMm,
  mirrored,
  words,
  pxPerMm,
}: {
  id: string;
  hand: Hand;
  x: number;
  y: number;
  w: number;
  h: number;
  stepMm: number;
  /** Seen from below: what goes right is left. */
  mirrored: boolean;
  words: string;
  pxPerMm(): number;
}) {
  const sign = mirrored ? -1 : 1;
  const steps = (dx: number, dy: number): [number, number] => [sign * Math.round(dx / stepMm), Math.round(dy / stepMm)];
  const selected = hand.selected === id;
  const drag = useDrag(null, {
    pxPerMm,
    onTake: () => hand.onSelect(id),
    onDrag: (_, dx, dy) => hand.onMoving(id, ...steps(dx, dy)),
    onDrop: (_, dx, dy) => {
      const [right, down] = steps(dx, dy);
      if (right === 0 && down === 0) hand.onRest();
      else hand.onMove(id, right, down);
    },
    onCancel: hand.onRest,
  });
  const key = (e: KeyboardEvent) => {
    const arrow = ARROWS[e.key];
    const by = e.shiftKey ? 5 : 1;
    if (arrow) hand.onNudge(id, sign * by * arrow[0], by * arrow[1]);
    else if (e.key === 'Enter' || e.key === ' ') hand.onSelect(id);
    else if (e.key === 'r' || e.key === 'R') hand.onTurn(id);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <rect
      x={x}
      y={y}
      width={w}
      height={h}
      rx={0.6}
      fill="transparent"
      stroke={selected ? 'var(--volt)' : 'none'}
      strokeWidth={0.5}
      tabIndex={0}
      role="button"
      aria-pressed={selected}
      aria-label={`${words}. Arrows move it, R turns it.`}
      className="cursor-grab"
      // What has the focus is the part in hand, framed in its own scale.
      style={{ outline: 'none' }}
      onKeyDown={key}
      onFocus={() => hand.onSelect(id)}
      {...drag}
    />
  );
}
