'use client';

import { useId } from 'react';

/** A field of a way in: a text as it is typed, with what is wrong with it under it. */
export function TextField({
  label,
  hint,
  value,
  placeholder,
  fault,
  onChange,
}: {
  label: string;
  hint?: string;
  value: string;
  placeholder?: string;
  fault?: string | null | undefined;
  onChange(text: string): void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-[14px] font-semibold">
        {label} {hint && <span className="font-normal text-quiet">{hint}</span>}
      </label>
      <input
        id={id}
        className="field"
        autoComplete="off"
        spellCheck={false}
        value={value}
        placeholder={placeholder}
        aria-invalid={fault !== null && fault !== undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onChange={(e) => onChange(e.target.value)}
      />
      {fault && (
        <p id={`${id}-fault`} role="alert" className="mt-0.5 text-[13.5px] leading-snug text-fail">
          {fault}
        </p>
      )}
    </div>
  );
}
