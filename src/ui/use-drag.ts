'use client';

import { useState, type PointerEvent } from 'react';

/**
 * Something dragged by a pointer, told from where and how far, mm, rightwards and downwards.
 * @param now where it is; what it is when the hand takes it is handed on until it lets go
 */
export function useDrag<T>(
  now: T,
  {
    pxPerMm,
    onTake,
    onDrag,
    onDrop,
    onCancel,
  }: {
    pxPerMm(): number;
    onTake(): void;
    onDrag(from: T, dx: number, dy: number): void;
    onDrop(from: T, dx: number, dy: number): void;
    onCancel(): void;
  },
) {
  const [from, setFrom] = useState<{ x: number; y: number; was: T } | null>(null);
  const by = (e: PointerEvent): [number, number] => {
    const mm = pxPerMm();
    return [(e.clientX - from!.x) / mm, (e.clientY - from!.y) / mm];
  };
  return {
    onPointerDown(e: PointerEvent) {
      e.currentTarget.setPointerCapture(e.pointerId);
      setFrom({ x: e.clientX, y: e.clientY, was: now });
      onTake();
    },
    onPointerMove(e: PointerEvent) {
      if (from) onDrag(from.was, ...by(e));
    },
    onPointerUp(e: PointerEvent) {
      if (!from) return;
      setFrom(null);
      onDrop(from.was, ...by(e));
    },
    onPointerCancel() {
      setFrom(null);
      onCancel();
    },
  };
}
