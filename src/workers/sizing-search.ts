import type { SizingPlanned } from '@/core/size/sizing-share';
import { SizingTally, type CircuitFound } from '@/core/size/sizing-tally';
import type { SizingProgress } from '@/core/size/sized-set';
import type { PoolOptions } from './pool';

/** One thread that takes part in a search; it is told of it where it does not know it. */
export interface SizingThread {
  plan(): Promise<SizingPlanned>;
  look(ns: readonly number[], failedKin: readonly string[]): Promise<CircuitFound[] | null>;
}

/** What a search tells is gathered for so long, ms. */
const TELLS_EVERY_MS = 50;

/**
 * Goes through the circuits of a search, dealt out over threads; comes to what one thread by itself does.
 * @param planned by any of them
 * @param over deals items out to whoever is free and hands on what comes back
 */
export async function searchOver<W>(
  planned: SizingPlanned,
  threadOf: (worker: W) => SizingThread,
  over: (
    run: (worker: W, ns: number[]) => Promise<CircuitFound[]>,
    ns: readonly number[],
    options: PoolOptions<CircuitFound>,
  ) => Promise<unknown>,
  onProgress: (progress: SizingProgress) => void,
): Promise<void> {
  const tally = new SizingTally(planned.circuits, planned.leftOut);
  let progress = tally.take([]);
  let found: SizingProgress['found'] = [];
  let since = performance.now();
  const tell = () => {
    onProgress({ ...progress, found });
    found = [];
    since = performance.now();
  };
  await over(
    async (worker, ns) => {
      const thread = threadOf(worker);
      const failed = [...tally.failedKin];
      const looked = await thread.look(ns, failed);
      if (looked) return looked;
      await thread.plan();
      return (await thread.look(ns, failed))!;
    },
    Array.from({ length: planned.circuits }, (_, n) => n),
    {
      chunk: 8,
      enough: () => tally.over,
      onFound: (results) => {
        progress = tally.take(results);
        found.push(...progress.found);
        if (performance.now() - since >= TELLS_EVERY_MS) tell();
      },
    },
  );
  tell();
}
