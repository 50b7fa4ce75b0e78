'use client';

import { useRef, useState } from 'react';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { Alert } from '@/ui/alert';

export interface PairField {
  label: string;
  unit: Unit;
  placeholder: string;
  /** What is wrong with a number that can be read; null where nothing is. */
  fault(value: number): string | null;
}

/** Two numbers that belong together, kept with Enter: the next two are typed at once. What is wrong is said, and stays. */
export function PairForm({
  label,
  fields,
  onKeep,
}: {
  label: string;
  fields: readonly [PairField, PairField];
  onKeep(first: number, second: number): void;
}) {
  const [texts, setTexts] = useState(['', '']);
  const [fault, setFault] = useState<string | null>(null);
  const first = useRef<HTMLInputElement>(null);
  function take() {
    const values: number[] = [];
    for (const [n, field] of fields.entries()) {
      const read = parseQuantity(texts[n]!, field.unit);
      const wrong = read.ok ? field.fault(read.value) : `${field.label}: ${read.error}`;
      setFault(wrong);
      if (!read.ok || wrong !== null) return;
      values.push(read.value);
    }
    onKeep(values[0]!, values[1]!);
    setTexts(['', '']);
    first.current?.focus();
  }
  return (
    <form
      aria-label={label}
      className="mt-2 flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        take();
      }}
    >
      {fields.map((field, n) => (
        <label key={field.label} className="w-[84px] text-[13px] text-quiet">
          {field.label}
          <input
            ref={n === 0 ? first : undefined}
            className="field text-ink"
            inputMode="decimal"
            autoComplete="off"
            placeholder={field.placeholder}
            value={texts[n]}
            onChange={(e) => setTexts(texts.map((t, k) => (k === n ? e.target.value : t)))}
          />
        </label>
      ))}
      <button type="submit" className="btn">
        Keep it
      </button>
      {fault && <Alert className="text-[13.5px]">{fault}</Alert>}
    </form>
  );
}
