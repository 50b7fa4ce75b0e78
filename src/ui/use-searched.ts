'use client';

import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import { asked } from '@/workers/asked';
import { callback, dropSearch, type RemoteSolver } from '@/workers/client';
import type { Answer } from '@/workers/answer';
import { useDesign } from './session';

let jobs = 0;

/** A longer search about the design at hand, as far as it is. */
export interface Searched<P, R> {
  /** What the last one that came to its end found. */
  value: R | null;
  /** The design it is about: not the one at hand while a newer is searched. */
  of: Design | null;
  trouble: string | null;
  /** How far the running one is; null where none runs. */
  progress: P | null;
  stopped: boolean;
  stop(): void;
  again(): void;
}

/** What is searched, how far it is at its beginning, how long a hand is off the fields before, ms, and what its time is marked as. */
export interface Search<P, R> {
  run(search: RemoteSolver, job: number, design: Design, tell: (progress: P) => void): Promise<Answer<R | null>>;
  begins: P;
  waitMs: number;
  mark: string;
}

/**
 * Searches about the design as it stands, begun anew with every change, stopped when nobody looks.
 * @param search has to stay the same object between renders
 */
export function useSearched<P, R>(search: Search<P, R>): Searched<P, R> {
  const design = useDesign();
  const [round, setRound] = useState(0);
  const [state, setState] = useState<Omit<Searched<P, R>, 'stop' | 'again'>>({
    value: null,
    of: null,
    trouble: null,
    progress: search.begins,
    stopped: false,
  });
  useEffect(() => {
    const mine = ++jobs;
    const wait = setTimeout(() => {
      // Stopped before it began.
      if (mine !== jobs) return;
      setState((old) => ({ ...old, trouble: null, stopped: false, progress: search.begins }));
      const tell = callback((progress: P) => {
        if (mine === jobs) setState((old) => ({ ...old, progress }));
      });
      const began = performance.now();
      void asked(
        (solver) => search.run(solver, mine, design, tell),
        'search',
        () => mine === jobs,
      ).then((answer) => {
        if (mine !== jobs) return;
        performance.measure(search.mark, { start: began, end: performance.now() });
        setState((old) =>
          answer.ok
            ? { ...old, value: answer.value, of: design, progress: null }
            : { ...old, trouble: answer.error, progress: null },
        );
      });
    }, search.waitMs);
    return () => {
      clearTimeout(wait);
      jobs++;
      dropSearch(true);
    };
  }, [design, round, search]);
  return {
    ...state,
    stop: () => {
      jobs++;
      dropSearch(true);
      setState((old) => ({ ...old, progress: null, stopped: true }));
    },
    again: () => setRound((n) => n + 1),
  };
}
