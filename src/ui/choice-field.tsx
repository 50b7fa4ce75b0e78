'use client';

import { useId } from 'react';

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange(value: T): void;
}

/** One of a few, as a plain list box. */
export function ChoiceField<T extends string>({ label, value, options, onChange }: Props<T>) {
  const id = useId();
  return (
    <div className="min-w-0" data-hint={`choice ${label}`}>
      <label htmlFor={id} title={label} className="block truncate text-[13px] text-quiet">
        {label}
      </label>
      <select id={id} className="field" value={value} onChange={(e) => onChange(e.target.value as T)}>
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </div>
  );
}
