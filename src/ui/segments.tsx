'use client';

import { useId } from 'react';

/** One of a few, side by side; arrows go from one to the next. */
export function Segments<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly { value: T; label: string; title?: string }[];
  onChange(value: T): void;
}) {
  const name = useId();
  return (
    <fieldset className="flex flex-wrap rounded border border-rule" aria-label={label}>
      {options.map((o) => (
        <label
          key={o.value}
          title={o.title}
          className="relative flex h-[28px] cursor-pointer items-center px-2.5 text-[14px] first:rounded-l last:rounded-r has-[:checked]:bg-ink has-[:checked]:text-paper has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-offset-2 has-[:focus-visible]:outline-volt"
        >
          <input
            type="radio"
            className="absolute inset-0 m-0 cursor-pointer opacity-0"
            name={name}
            value={o.value}
            checked={o.value === value}
            onChange={() => onChange(o.value)}
          />
          {o.label}
        </label>
      ))}
    </fieldset>
  );
}
