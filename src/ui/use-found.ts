'use client';

import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import { asked } from '@/workers/asked';
import { callback, dropSearch, type RemoteSolver } from '@/workers/client';
import type { Answer } from '@/workers/answer';
import { useDesign } from './session';

let jobs = 0;
/** A drag is over before a search begins, ms. */
const WAIT_MS = 250;

/**
 * What a search of the worker finds about the design as it stands, as it finds it: begun anew with every change, stopped
 * when nobody looks.
 * @param ask has to stay the same function between renders, or it is asked again
 */
export function useFound<T>(
  ask: (search: RemoteSolver, job: number, design: Design, onFound: (found: T[]) => void) => Promise<Answer<unknown>>,
): { found: T[]; running: boolean; trouble: string | null } {
  const design = useDesign();
  const [found, setFound] = useState<T[]>([]);
  const [running, setRunning] = useState(true);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    const mine = ++jobs;
    const wait = setTimeout(() => {
      setRunning(true);
      setTrouble(null);
      const tell = callback((more: T[]) => {
        if (mine === jobs) setFound((old) => [...old, ...more]);
      });
      void asked(
        (search) => {
          // Where it is asked a second time it finds all of it again.
          if (mine === jobs) setFound([]);
          return ask(search, mine, design, tell);
        },
        'search',
        () => mine === jobs,
      ).then((answer) => {
        if (mine !== jobs) return;
        setRunning(false);
        setTrouble(answer.ok ? null : answer.error);
      });
    }, WAIT_MS);
    return () => {
      clearTimeout(wait);
      jobs++;
      dropSearch(true);
    };
  }, [design, ask]);
  return { found, running, trouble };
}
