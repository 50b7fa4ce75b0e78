'use client';

import { useState } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import { Working } from './working';

/** Figures side by side; each opens its working below them, one at a time, and closes it again. */
export function FigureRow({ label, figures }: { label: string; figures: readonly Figure[] }) {
  const [opened, setOpened] = useState<string | null>(null);
  const open = figures.find((f) => f.id === opened);
  return (
    <div>
      <ul aria-label={label} className="flex flex-wrap gap-x-4 gap-y-1">
        {figures.map((f) => (
          <li key={f.id}>
            <button
              type="button"
              className={`num min-h-[24px] text-[14px] ${f === open ? '!border-solid !border-volt' : ''}`}
              aria-expanded={f === open}
              onClick={() => setOpened(f === open ? null : f.id)}
            >
              <span className="text-quiet">{f.label}</span>{' '}
              <span className="font-semibold">{formatQuantity(f.value, f.unit)}</span>
            </button>
          </li>
        ))}
      </ul>
      {open && (
        <div className="mt-1.5 border-l-2 border-volt pl-3">
          <Working figure={open} />
        </div>
      )}
    </div>
  );
}
