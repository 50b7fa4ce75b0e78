'use client';

import { useRef, type PointerEvent } from 'react';
import { useEdit, useSession } from '@/ui/session';
import type { DragEdit } from './drag-edits';

interface Props {
  x: number;
  y: number;
  label: string;
  edit: DragEdit;
}

/**
 * A handle on the drawing for the pointer. The keyboard has the station's own head for the same values, so the grip
 * itself is no tab stop.
 */
export function Grip({ x, y, label, edit }: Props) {
  const session = useSession();
  const apply = useEdit();
  const held = useRef<{ fromY: number; edit: DragEdit } | null>(null);

  function down(event: PointerEvent<HTMLDivElement>) {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { fromY: event.clientY, edit };
    session.document.beginGesture();
  }
  function move(event: PointerEvent<HTMLDivElement>) {
    if (held.current) apply(held.current.edit(held.current.fromY - event.clientY));
  }
  function up() {
    if (!held.current) return;
    held.current = null;
    session.document.endGesture();
  }
  return (
    <div
      data-testid={label}
      title={label}
      aria-hidden="true"
      className="group absolute grid h-7 w-7 -translate-x-1/2 -translate-y-1/2 cursor-ns-resize touch-none place-items-center"
      style={{ left: x, top: y }}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
    >
      <span className="grid h-[15px] w-[11px] place-items-center rounded-[3px] border border-paper bg-volt shadow-sm transition-transform group-hover:scale-125 group-active:scale-125">
        <span className="h-[7px] w-[5px] border-y border-paper" />
      </span>
    </div>
  );
}
