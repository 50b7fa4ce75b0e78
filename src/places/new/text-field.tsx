'use client';

import { useId, type ComponentProps } from 'react';

/** A field of a way in: a text as it is typed, with what is wrong with it under it. The rest goes to the input. */
export function TextField({
  label,
  hint,
  fault,
  ...input
}: ComponentProps<'input'> & { label: string; hint?: string; fault?: string | null | undefined }) {
  const own = useId();
  const id = input.id ?? own;
  return (
    <div>
      <label htmlFor={id} className="block text-[14px] font-semibold">
        {label} {hint && <span className="font-normal text-quiet">{hint}</span>}
      </label>
      <input
        className="field"
        autoComplete="off"
        spellCheck={false}
        aria-invalid={Boolean(fault)}
        aria-describedby={fault ? `${id}-fault` : undefined}
        {...input}
        id={id}
      />
      {fault && (
        <p id={`${id}-fault`} role="alert" className="mt-0.5 text-[13.5px] leading-snug text-fail">
          {fault}
        </p>
      )}
    </div>
  );
}
