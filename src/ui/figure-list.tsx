'use client';

import { useState } from 'react';
import { figureText, type Figure } from '@/core/study/figure';
import { Working } from '@/ui/working';

/** Figures one below the other, each the button of its working; one at a time. */
export function FigureList({ label, figures }: { label: string; figures: readonly Figure[] }) {
  const [opened, setOpened] = useState<string | null>(null);
  return (
    <ul aria-label={label} className="my-1 space-y-0.5 text-[14px]">
      {figures.map((f) => {
        const open = f.id === opened;
        return (
          <li key={f.id} className={open ? 'border-l-2 border-volt pl-2' : ''}>
            <button
              type="button"
              className="flex min-h-[24px] w-full items-baseline justify-between gap-3 text-left"
              aria-expanded={open}
              onClick={() => setOpened(open ? null : f.id)}
            >
              <span className="min-w-0 text-quiet">{f.label}</span>
              <span className={`num shrink-0 font-semibold ${open ? '!border-solid !border-volt' : ''}`}>
                {figureText(f)}
                {f.origin === 'rule of thumb' && <span className="font-normal text-quiet"> ≈</span>}
              </span>
            </button>
            {open && (
              <div className="pb-1.5">
                <Working figure={f} named={false} />
              </div>
            )}
          </li>
        );
      })}
    </ul>
  );
}
