'use client';

import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import { asked } from '@/workers/asked';
import { dropSearch } from '@/workers/client';
import { goThrough } from '@/workers/go-through';
import type { AboutOf, EndOf, PartOf } from '@/workers/long-work';
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
export interface Search<K extends 'faults' | 'board'> {
  kind: K;
  begins: PartOf<K>;
  waitMs: number;
  mark: string;
}

/**
 * Searches about the design as it stands, begun anew with every change, stopped when nobody looks.
 * @param search has to stay the same object between renders
 */
export function useSearched<K extends 'faults' | 'board'>(search: Search<K>): Searched<PartOf<K>, EndOf<K>> {
  const design = useDesign();
  const [round, setRound] = useState(0);
  const [state, setState] = useState<Omit<Searched<PartOf<K>, EndOf<K>>, 'stop' | 'again'>>({
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
      // A search tells how far it is; what came before is in it.
      const tell = (parts: PartOf<K>[]) => {
        if (mine === jobs) setState((old) => ({ ...old, progress: parts[parts.length - 1]! }));
      };
      const began = performance.now();
      void asked(
        (solver) => goThrough<K>(solver, search.kind, design as AboutOf<K>, { tell }),
        'search',
        () => mine === jobs,
      ).then((answer) => {
        if (mine !== jobs) return;
        performance.measure(search.mark, { start: began, end: performance.now() });
        setState((old) =>
          answer.ok
            ? { ...old, value: answer.value && answer.value.end, of: design, progress: null }
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
