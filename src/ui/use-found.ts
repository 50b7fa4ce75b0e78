'use client';

import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import { callback, solver, type RemoteSolver } from '@/workers/client';
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
  ask: (search: RemoteSolver, job: number, design: Design, onFound: (found: T[]) => void) => Promise<unknown>,
): { found: T[]; running: boolean } {
  const design = useDesign();
  const [found, setFound] = useState<T[]>([]);
  const [running, setRunning] = useState(true);
  useEffect(() => {
    const mine = ++jobs;
    const wait = setTimeout(() => {
      setFound([]);
      setRunning(true);
      const tell = callback((more: T[]) => {
        if (mine === jobs) setFound((old) => [...old, ...more]);
      });
      const done = () => mine === jobs && setRunning(false);
      // Where the solver ended on the way, what was found until then stands.
      ask(solver('search'), mine, design, tell).then(done, done);
    }, WAIT_MS);
    return () => {
      clearTimeout(wait);
      jobs++;
      solver('search')
        .stopSearch()
        .catch(() => {});
    };
  }, [design, ask]);
  return { found, running };
}
