'use client';

import { formatQuantity } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';

/** Figures side by side, each the button of its working. */
export function FigureButtons({
  label,
  figures,
  open,
  onOpen,
}: {
  label: string;
  figures: readonly Figure[];
  /** The one whose working stands below. */
  open: Figure | undefined;
  onOpen(figure: Figure): void;
}) {
  return (
    <ul aria-label={label} className="flex flex-wrap gap-x-4 gap-y-1">
      {figures.map((f) => (
        <li key={f.id}>
          <button
            type="button"
            className={`num text-[14px] ${f.id === open?.id ? '!border-solid !border-volt' : ''}`}
            aria-pressed={f.id === open?.id}
            onClick={() => onOpen(f)}
          >
            <span className="text-quiet">{f.label}</span>{' '}
            <span className="font-semibold">{formatQuantity(f.value, f.unit)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
