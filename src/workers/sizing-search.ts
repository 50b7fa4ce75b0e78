import { SizingTally } from '@/core/size/sizing-tally';
import type { SizingProgress } from '@/core/size/sized-set';
import type { Work } from './deal';

/** What a search tells is gathered for so long, ms. */
const TELLS_EVERY_MS = 50;

/**
 * Goes through the circuits of a search, dealt out over threads; comes to what one thread by itself does.
 * @throws Stopped
 */
export async function searchOver(
  circuits: Work<'circuits'>,
  { onProgress, signal }: { onProgress(progress: SizingProgress): void; signal?: AbortSignal },
): Promise<void> {
  const planned = await circuits.survey();
  const tally = new SizingTally(planned.circuits, planned.leftOut);
  let progress = tally.take([]);
  let found: SizingProgress['found'] = [];
  let since = performance.now();
  const tell = () => {
    onProgress({ ...progress, found });
    found = [];
    since = performance.now();
  };
  await circuits.deal(
    Array.from({ length: planned.circuits }, (_, n) => n),
    {
      chunk: 8,
      signal,
      enough: () => tally.over,
      onFound: (results) => {
        progress = tally.take(results);
        found.push(...progress.found);
        if (performance.now() - since >= TELLS_EVERY_MS) tell();
      },
    },
    () => [...tally.failedKin],
  );
  tell();
}
