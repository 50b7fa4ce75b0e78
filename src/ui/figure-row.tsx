'use client';

import { useState } from 'react';
import type { Figure } from '@/core/study/figure';
import { FigureButtons } from './figure-buttons';
import { Working } from './working';

/** Figures side by side; each opens its working below them, one at a time, and closes it again. */
export function FigureRow({ label, figures }: { label: string; figures: readonly Figure[] }) {
  const [opened, setOpened] = useState<string | null>(null);
  const open = figures.find((f) => f.id === opened);
  return (
    <div>
      <FigureButtons
        label={label}
        figures={figures}
        open={open}
        onOpen={(f) => setOpened(f.id === opened ? null : f.id)}
      />
      {open && (
        <div className="mt-1.5 border-l-2 border-volt pl-3">
          <Working figure={open} />
        </div>
      )}
    </div>
  );
}
