'use client';

import { useState } from 'react';
import { formatNominal } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import { Working } from '@/ui/working';

/** Figures one below the other; each opens its working, one at a time. */
export function FigureList({ label, figures }: { label: string; figures: readonly Figure[] }) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <div aria-label={label} role="group" className="space-y-1">
      {figures.map((f) => (
        <details
          key={f.id}
          open={open === f.id}
          onToggle={(e) => {
            if (e.currentTarget.open) setOpen(f.id);
            else setOpen((old) => (old === f.id ? null : old));
          }}
          className="rounded border border-rule bg-raised px-3 py-1.5"
        >
          <summary className="flex cursor-pointer justify-between gap-3 text-[14px]">
            {f.label}
            <span className="whitespace-nowrap font-semibold">
              {formatNominal(Number(f.value.toPrecision(3)), f.unit)}
              {f.origin === 'rule of thumb' && <span className="font-normal text-quiet"> ≈</span>}
            </span>
          </summary>
          <Working figure={f} named={false} />
        </details>
      ))}
    </div>
  );
}
