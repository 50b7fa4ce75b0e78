'use client';

import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import { Alert } from '@/ui/alert';
import { useDesign, useView } from '@/ui/session';
import { asked } from '@/workers/asked';
import type { Beside } from '@/workers/solver.worker';
import { Both } from './both';
import { designOfSide, type Choice, type Side } from './what-to-compare';

export interface Sides {
  left: Side;
  right: Side;
}

/** Two states of supplies on one terrace: what differs, what that did to each verdict, and to the bill. */
export function Comparison({
  choices,
  sides,
  onSides,
}: {
  choices: readonly Choice[];
  sides: Sides;
  onSides(sides: Sides): void;
}) {
  const { beside, trouble } = useBeside(sides);
  const named = (side: Side) => choices.find((c) => c.side === side)?.name ?? 'It';
  const choose = (which: keyof Sides, label: string) => (
    <label className="flex min-w-0 items-center gap-2 text-[14px]">
      {label}
      <select
        className="field !w-auto max-w-[320px]"
        aria-label={label}
        value={sides[which]}
        onChange={(e) => onSides({ ...sides, [which]: e.target.value as Side })}
      >
        {choices.map((c) => (
          <option key={c.side} value={c.side}>
            {c.name}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <section aria-label="Comparison" className="mt-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        {choose('left', 'Compare')}
        {choose('right', 'with')}
        <button type="button" className="btn" onClick={() => onSides({ left: sides.right, right: sides.left })}>
          Change sides
        </button>
      </div>
      {trouble ? (
        <Alert className="py-2">{trouble}</Alert>
      ) : beside ? (
        <Both beside={beside} then={named(sides.left)} now={named(sides.right)} />
      ) : (
        <p className="min-h-[300px] py-4 text-quiet" aria-live="polite">
          Solving both…
        </p>
      )}
    </section>
  );
}

/** Both sides solved; what is at hand is solved anew as it is edited. */
function useBeside({ left, right }: Sides): { beside: Beside | null; trouble: string | null } {
  const id = useView((s) => s.id);
  const design = useDesign();
  const [found, setFound] = useState<{ of: string; beside: Beside | null; trouble: string | null } | null>(null);
  const of = `${left} ${right}`;
  // What was kept does not move with the hand.
  const moving = [left, right].some((side) => side === 'now' || side === 'measured') ? design : null;
  useEffect(() => {
    let current = true;
    void besideOf(left, right, moving, id).then((answer) => current && setFound({ of, ...answer }));
    return () => {
      current = false;
    };
  }, [left, right, of, moving, id]);
  return found?.of === of ? found : { beside: null, trouble: null };
}

async function besideOf(
  left: Side,
  right: Side,
  now: Design | null,
  id: string,
): Promise<{ beside: Beside | null; trouble: string | null }> {
  const [before, after] = await Promise.all([designOfSide(left, now, id), designOfSide(right, now, id)]);
  for (const side of [before, after]) if (!side.ok) return { beside: null, trouble: side.refusal.sentence };
  if (!before.ok || !after.ok) return { beside: null, trouble: null };
  const answer = await asked((solver) => solver.beside(after.design, before.design));
  return answer.ok ? { beside: answer.value, trouble: null } : { beside: null, trouble: answer.error };
}
