'use client';

import { ToggleGroup } from 'radix-ui';

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
  return (
    <ToggleGroup.Root
      type="single"
      value={value}
      onValueChange={(next) => next && onChange(next as T)}
      aria-label={label}
      className="flex rounded border border-rule"
    >
      {options.map((o) => (
        <ToggleGroup.Item
          key={o.value}
          value={o.value}
          title={o.title}
          className="h-[28px] px-2.5 text-[14px] first:rounded-l last:rounded-r data-[state=on]:bg-ink data-[state=on]:text-paper"
        >
          {o.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
