'use client';

import { useEffect, useState } from 'react';
import type { FaultProgress, FaultReport } from '@/core/bench/find-fault';
import type { Design } from '@/core/design/design';
import { useDesign } from '@/ui/session';
import { asked } from '@/workers/asked';
import { callback, dropSearch } from '@/workers/client';

let jobs = 0;
/** A hand is off the field before the weighing begins, ms. */
const WAIT_MS = 400;

/** A weighing of what may be wrong with the design at hand, as far as it is. */
export interface Weighing {
  /** The last one that came to its end, or the sentence why there is none. */
  report: FaultReport | string | null;
  /** The design it is about: not the one at hand while a newer is weighed. */
  of: Design | null;
  trouble: string | null;
  /** How far the running one is; null where none runs. */
  progress: FaultProgress | null;
  stopped: boolean;
  stop(): void;
  again(): void;
}

/** Weighs what may be wrong with the design as it stands, begun anew with every change, stopped when nobody looks. */
export function useFaults(): Weighing {
  const design = useDesign();
  const [round, setRound] = useState(0);
  const [state, setState] = useState<Omit<Weighing, 'stop' | 'again'>>({
    report: null,
    of: null,
    trouble: null,
    progress: { done: 0, of: 0 },
    stopped: false,
  });
  useEffect(() => {
    const mine = ++jobs;
    const wait = setTimeout(() => {
      // Stopped before it began.
      if (mine !== jobs) return;
      setState((old) => ({ ...old, trouble: null, stopped: false, progress: { done: 0, of: 0 } }));
      const tell = callback((progress: FaultProgress) => {
        if (mine === jobs) setState((old) => ({ ...old, progress }));
      });
      const began = performance.now();
      void asked(
        (search) => search.faults(mine, design, tell),
        'search',
        () => mine === jobs,
      ).then((answer) => {
        if (mine !== jobs) return;
        performance.measure('faults-weighed', { start: began, end: performance.now() });
        setState((old) =>
          answer.ok
            ? { ...old, report: answer.value, of: design, progress: null }
            : { ...old, trouble: answer.error, progress: null },
        );
      });
    }, WAIT_MS);
    return () => {
      clearTimeout(wait);
      jobs++;
      dropSearch(true);
    };
  }, [design, round]);
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
