import type { Plan } from '@/core/judge/builds/plan';
import type { Ask, SolvedBuild } from '@/core/judge/builds/solve';
import type { ToleranceSummary } from '@/core/picture/build-summary';
import type { Work } from './deal';
import { Stopped } from './pool';

/** Who draws builds, and reads what can be read of them. */
export interface Drawing {
  begin(): Promise<{ plan: Plan; asks: Ask[] }>;
  take(answers: SolvedBuild[]): Promise<void>;
  next(): Promise<Ask[]>;
  summary(): Promise<ToleranceSummary>;
}

/**
 * Draws many builds, and deals out what has to be solved of them.
 * @param solving opens the work of solving, once it is known what is looked at in each build
 * @param onProgress how many builds are known for certain
 * @throws Stopped
 */
export async function drawBuilds(
  drawing: Drawing,
  solving: (plan: Plan) => Work<'builds'>,
  { onProgress, signal }: { onProgress?(known: number): void; signal?: AbortSignal } = {},
): Promise<ToleranceSummary> {
  const begun = await drawing.begin();
  const work = solving(begun.plan);
  let { asks } = begun;
  while (asks.length > 0) {
    if (signal?.aborted) throw new Stopped('stopped');
    const taken: Promise<void>[] = [];
    // What is not asked of the last go is read.
    const last = asks[asks.length - 1]!.build;
    await work.deal(asks, {
      chunk: 8,
      signal,
      onFound(answers) {
        const one = drawing.take(answers);
        // Whatever it was is said when all are there, not before somebody waits for it.
        one.catch(() => {});
        taken.push(one);
      },
      onProgress: (done, of) => onProgress?.(Math.max(0, last + 1 - (of - done))),
    });
    await Promise.all(taken);
    asks = await drawing.next();
  }
  if (signal?.aborted) throw new Stopped('stopped');
  return drawing.summary();
}
