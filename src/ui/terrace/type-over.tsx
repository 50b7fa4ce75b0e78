'use client';

import { useRef, useState } from 'react';
import { fieldLimit, rangeFault } from '@/core/design/limits';
import { formatForInput } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import type { Patch } from '@/core/design/design';
import type { TypedValue } from './station-controls';

/** A number of the drawing being typed over where it stands. Enter takes it, Escape leaves it. */
export function TypeOver({
  typed: { path, value, patch },
  onCommit,
  onDone,
}: {
  typed: TypedValue;
  onCommit(patch: Patch): void;
  /** @param back whether the focus goes back to the station */
  onDone(back: boolean): void;
}) {
  const limit = fieldLimit(path);
  const was = formatForInput(value, limit.unit);
  const [text, setText] = useState(was);
  const [fault, setFault] = useState<string | null>(null);
  const settled = useRef(false);

  /** @returns whether there is nothing left to say */
  function take(): boolean {
    if (text.trim() === was) return true;
    const read = parseQuantity(text, limit.unit);
    const wrong = read.ok ? rangeFault(path, read.value) : read.error;
    setFault(wrong);
    if (wrong === null && read.ok) onCommit(patch(read.value));
    return wrong === null;
  }

  return (
    <div className="relative">
      <input
        autoFocus
        aria-label={`${limit.label}, typed over`}
        aria-invalid={fault !== null}
        className="w-full rounded border border-volt bg-paper px-1 text-[15px] font-semibold leading-[18px]"
        value={text}
        autoComplete="off"
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => {
          // Leaving it is taking it; what Enter or Escape has settled is settled.
          if (settled.current) return;
          take();
          onDone(false);
        }}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape' || (e.key === 'Enter' && take())) {
            settled.current = true;
            onDone(true);
          }
        }}
      />
      {fault && (
        <p
          role="alert"
          className="fixed z-40 mt-1 max-w-[260px] rounded border border-fail bg-raised px-2 py-0.5 text-[13px] font-normal leading-tight text-fail"
        >
          {fault}
        </p>
      )}
    </div>
  );
}
