'use client';

import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import { asked } from '@/workers/asked';
import type { RemoteSolver, Role } from '@/workers/client';
import type { Answer } from '@/workers/answer';
import { useDesign } from './session';

export interface Solved<T> {
  /** The last good answer. */
  value: T | null;
  /** The design it is about: not the one at hand while a newer is being solved. */
  of: Design | null;
  /** What is wrong with a newer one. */
  trouble: string | null;
}

/**
 * What a solver answers about the design as it stands. While it is busy the newest question is the next one asked: what
 * was overtaken is never begun, and an answer the design has moved on from is dropped.
 * @param ask has to stay the same function between renders, or it is asked again; null asks nothing
 * @param waitMs how long the hand has to rest first
 */
export function useSolved<T>(
  ask: ((solver: RemoteSolver, design: Design) => Promise<Answer<T>>) | null,
  { role = 'ask', waitMs = 0 }: { role?: Role; waitMs?: number } = {},
): Solved<T> {
  const design = useDesign();
  const [solved, setSolved] = useState<Solved<T>>({ value: null, of: null, trouble: null });
  const [line] = useState(newestFirst);
  useEffect(() => {
    if (!ask) return;
    let current = true;
    const wait = setTimeout(() => {
      line(async () => {
        if (!current) return;
        const answer = await asked(
          (solver) => ask(solver, design),
          role,
          () => current,
        );
        if (!current) return;
        setSolved((old) =>
          answer.ok ? { value: answer.value, of: design, trouble: null } : { ...old, trouble: answer.error },
        );
      });
    }, waitMs);
    return () => {
      current = false;
      clearTimeout(wait);
    };
  }, [design, ask, role, waitMs, line]);
  return solved;
}

/** Runs one piece of work at a time; of those that come meanwhile only the newest is kept. */
function newestFirst(): (work: () => Promise<void>) => void {
  let busy = false;
  let next: (() => Promise<void>) | null = null;
  return (work) => {
    next = work;
    if (busy) return;
    busy = true;
    void (async () => {
      while (next) {
        const mine = next;
        next = null;
        await mine();
      }
      busy = false;
    })();
  };
}
