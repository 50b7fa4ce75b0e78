'use client';

import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import type { Answer } from '@/workers/solver.worker';
import { useDesign } from './session';

/**
 * What a worker answers about the design as it stands: the last good answer, and what is wrong with a newer one. An
 * answer the design has moved on from is dropped.
 * @param ask has to stay the same function between renders, or it is asked again
 */
export function useSolved<T>(ask: (design: Design) => Promise<Answer<T>>): { value: T | null; trouble: string | null } {
  const design = useDesign();
  const [value, setValue] = useState<T | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let current = true;
    ask(design).then(
      (answer) => {
        if (!current) return;
        if (answer.ok) setValue(answer.value);
        setTrouble(answer.ok ? null : answer.error);
      },
      (error: unknown) => current && setTrouble(error instanceof Error ? error.message : String(error)),
    );
    return () => {
      current = false;
    };
  }, [design, ask]);
  return { value, trouble };
}
