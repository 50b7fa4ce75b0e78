'use client';

import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import { Stopped, type PoolOptions } from '@/workers/pool';
import { useDesign } from './session';

/** A drag is over before a search begins, ms. */
const WAIT_MS = 250;

/**
 * What a search over the pool finds about the design as it stands, as it finds it: begun anew with every change, stopped
 * when nobody looks. What was looked at and is nothing is left out.
 * @param ask has to stay the same function between renders, or it is asked again
 */
export function useFound<T>(ask: (design: Design, options: PoolOptions<T | null>) => Promise<(T | null)[]>): {
  found: T[];
  running: boolean;
  trouble: string | null;
} {
  const design = useDesign();
  const [found, setFound] = useState<T[]>([]);
  const [running, setRunning] = useState(true);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    const mine = new AbortController();
    const { signal } = mine;
    async function search() {
      setFound([]);
      setRunning(true);
      setTrouble(null);
      try {
        const onFound = (more: (T | null)[]) => {
          if (!signal.aborted) setFound((old) => [...old, ...told(more)]);
        };
        const all = await ask(design, { signal, onFound });
        // In the order they were asked for, whichever thread was first.
        if (!signal.aborted) setFound(told(all));
      } catch (error) {
        if (!signal.aborted && !(error instanceof Stopped)) setTrouble((error as Error).message);
      }
      if (!signal.aborted) setRunning(false);
    }
    const wait = setTimeout(() => void search(), WAIT_MS);
    return () => {
      clearTimeout(wait);
      mine.abort();
    };
  }, [design, ask]);
  return { found, running, trouble };
}

const told = <T>(list: readonly (T | null)[]): T[] => list.filter((one) => one !== null);
