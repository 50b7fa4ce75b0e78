'use client';

import type { RemoteSolver } from '@/workers/client';
import { endOf } from '@/workers/go-through';
import { Changes } from './changes';
import { CornerGrid } from './corner-grid';
import { Tolerance } from './tolerance';
import { useSolved } from '@/ui/use-solved';
import type { Design } from '@/core/design/design';
import { Room } from '@/ui/room';

const askCorners = (solver: RemoteSolver, design: Design) => endOf(solver, 'corners', design);

/** Worst case: does it still hold when everything is against it? */
export function WorstCase() {
  const { value: grid, trouble } = useSolved(askCorners);
  return (
    <Room name="Worst case">
      {trouble && (
        <p role="alert" className="mb-2 text-fail">
          {trouble} What is shown is from the last values that could be solved.
        </p>
      )}
      <div className="grid max-w-[1340px] grid-cols-[minmax(0,1fr)] gap-6 min-[1180px]:grid-cols-[minmax(0,1fr)_372px]">
        <div className="min-w-0 space-y-5">
          <CornerGrid grid={grid} />
          <Tolerance />
        </div>
        <Changes />
      </div>
    </Room>
  );
}
