'use client';

import { applyPatch, type Design } from '@/core/design/design';
import { fetchDesign, type Refusal } from '@/ui/api';
import { fetchRevision, type Revision } from '@/ui/revisions';
import { asked } from '@/workers/asked';
import { endOf } from '@/workers/go-through';

/** One side of a comparison: as it stands, as it was kept, as it was measured, or another design of the shelf. */
export type Side = 'now' | 'measured' | `revision ${string}` | `design ${string}`;

export interface Choice {
  side: Side;
  name: string;
}

/** Everything a design can be compared with. */
export function choicesOf(
  kept: readonly Revision[],
  others: readonly { id: string; name: string }[],
  measured: boolean,
): Choice[] {
  return [
    { side: 'now', name: 'As it stands now' },
    ...(measured ? [{ side: 'measured', name: 'As it was measured' } as const] : []),
    ...kept.map((r): Choice => ({ side: `revision ${r.id}`, name: r.name })),
    ...others.map((d): Choice => ({ side: `design ${d.id}`, name: `Another design: ${d.name}` })),
  ];
}

/**
 * The design of a side, or why it is not to be had.
 * @param now the design at hand; null where neither side is made of it
 * @param id of the design at hand
 */
export async function designOfSide(
  side: Side,
  now: Design | null,
  id: string,
): Promise<{ ok: true; design: Design } | { ok: false; refusal: Refusal }> {
  if (side === 'now' && now) return { ok: true, design: now };
  if (side === 'measured' && now) {
    const { movables } = await import('@/core/bench/movables');
    const fit = await asked((solver) => endOf(solver, 'fit', { design: now, moving: movables(now).map((m) => m.id) }));
    const refuse = (sentence: string) => ({ ok: false as const, refusal: { path: '', sentence } });
    if (!fit.ok) return refuse(fit.error);
    if (typeof fit.value === 'string') return refuse(fit.value);
    return { ok: true, design: applyPatch(now, fit.value.patch) };
  }
  const [kind, which] = side.split(' ') as ['revision' | 'design', string];
  const found = kind === 'revision' ? await fetchRevision(id, which) : await fetchDesign(which);
  return found.ok ? { ok: true, design: found.value.design } : { ok: false, refusal: found.refusal };
}
