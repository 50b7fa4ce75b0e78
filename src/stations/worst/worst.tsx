'use client';

import { useEffect, useState } from 'react';
import type { Grid } from '@/core/judge/corners';
import { useDesign } from '@/ui/session';
import { solver } from '@/workers/client';
import { Changes } from './changes';
import { CornerGrid } from './corner-grid';
import { Tolerance } from './tolerance';

/** Worst case: does it still hold when everything is against it? */
export function WorstCase() {
  const design = useDesign();
  const [grid, setGrid] = useState<Grid | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let current = true;
    void solver('edit')
      .corners(design)
      .then((answer) => {
        if (!current) return;
        if (answer.ok) {
          setGrid(answer.value);
          setTrouble(null);
        } else setTrouble(answer.error);
      });
    return () => {
      current = false;
    };
  }, [design]);
  return (
    <main className="min-h-0 flex-1 overflow-auto px-4 py-3">
      {trouble && (
        <p role="alert" className="mb-2 text-fail">
          {trouble} What is shown is from the last values that could be solved.
        </p>
      )}
      <div className="grid max-w-[1340px] gap-6 min-[1180px]:grid-cols-[minmax(0,1fr)_372px]">
        <div className="min-w-0 space-y-5">
          <CornerGrid grid={grid} />
          <Tolerance />
        </div>
        <Changes />
      </div>
    </main>
  );
}
