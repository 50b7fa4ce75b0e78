'use client';

import { useCallback } from 'react';
import type { Design } from '@/core/design/design';
import type { Question } from '@/core/study/two-sides';
import type { RemoteSolver } from '@/workers/client';
import { Alert } from './alert';
import { FigureList } from './figure-list';
import { useEdit } from './session';
import { useSolved } from './use-solved';

/** Both answers to a question builders disagree about, on this design's own values. */
export function TwoSidesList({ question, onTaken }: { question: Question; onTaken(): void }) {
  const edit = useEdit();
  const ask = useCallback((solver: RemoteSolver, design: Design) => solver.twoSides(design, question), [question]);
  const { value: sides, trouble } = useSolved(ask);
  if (trouble) return <Alert>{trouble}</Alert>;
  if (!sides)
    return (
      <p className="py-10 text-center text-quiet" aria-live="polite">
        Solving both…
      </p>
    );
  if (sides.length === 0) return <p className="text-quiet">The question does not arise in this design.</p>;
  return (
    <ul className="grid gap-5 min-[640px]:grid-cols-2">
      {sides.map((side) => (
        <li key={side.name} className="flex min-w-0 flex-col border-t-[3px] border-volt pt-2">
          <h3 className="text-[17px] font-semibold">{side.name}</h3>
          <p className="text-[14px] leading-snug">{side.right}</p>
          <FigureList label={`${side.name}: figures`} figures={side.figures} />
          <div className="mt-auto pt-3">
            {side.here ? (
              <p className="text-center text-[14px] text-quiet">This design has it.</p>
            ) : (
              <button
                type="button"
                className="btn w-full justify-center"
                onClick={() => {
                  edit(side.patch);
                  onTaken();
                }}
              >
                Take this one
              </button>
            )}
          </div>
        </li>
      ))}
    </ul>
  );
}
