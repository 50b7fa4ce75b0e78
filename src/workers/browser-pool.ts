import type { Design } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import type { Candidate, Try } from '@/core/size/candidate';
import type { Build } from '@/core/picture/build-summary';
import type { Part } from '@/core/drawer/part';
import type { SizingAsk, SizingProgress } from '@/core/size/sized-set';
import type { CircuitFound } from '@/core/size/sizing-tally';
import type { Variation, VariationResult } from '@/core/study/variation';
import { endOfPoolSolver, poolSolver, SolverGone, type RemoteSolver } from './client';
import { runPool, Stopped, type PoolOptions } from './pool';
import { searchOver, type SizingThread } from './sizing-search';

/** How many threads a page takes for what a person waits for: all cores but one where there are three, never more than four. */
function threads(): number {
  return Math.min(4, Math.max(2, (navigator.hardwareConcurrency || 2) - 1));
}

/** Solves many variations of one design over the page's pool of workers. @throws Stopped */
export function solveInPool(
  design: Design,
  variations: readonly Variation[],
  options: PoolOptions<VariationResult> = {},
): Promise<VariationResult[]> {
  return overPool<Variation, VariationResult>(
    async (solver, chunk) => {
      const answer = await solver.variations(design, chunk);
      if (!answer.ok) throw new Error(answer.error);
      return answer.value;
    },
    variations,
    options,
  );
}

/** Tries parts in a design over the page's pool of workers. @throws Stopped */
export function tryInPool(
  design: Design,
  role: PartRole,
  tries: readonly Try[],
  options: PoolOptions<Candidate | null> = {},
): Promise<(Candidate | null)[]> {
  return overPool<Try, Candidate | null>((solver, chunk) => solver.tryParts(design, role, chunk), tries, {
    chunk: 8,
    ...options,
  });
}

/** Builds solved in one go by one worker. */
const BUILDS_AT_ONCE = 50;

/** Draws and solves many builds over the page's pool of workers. @throws Stopped */
export async function buildInPool(
  design: Design,
  seed: number,
  count: number,
  options: { onProgress(done: number, of: number): void; signal: AbortSignal },
): Promise<Build[]> {
  const firsts = Array.from({ length: Math.ceil(count / BUILDS_AT_ONCE) }, (_, n) => n * BUILDS_AT_ONCE);
  const runs = await overPool<number, Build[]>(
    (solver, chunk) => solver.builds(design, seed, BUILDS_AT_ONCE, chunk),
    firsts,
    {
      chunk: 2,
      signal: options.signal,
      onProgress: (done, of) => options.onProgress(Math.min(count, done * BUILDS_AT_ONCE), of * BUILDS_AT_ONCE),
    },
  );
  return runs.flat().slice(0, count);
}

let searches = 0;

/** Sizes whole sets over the page's pool of workers. @throws Stopped */
export async function sizeInPool(
  design: Design,
  parts: Part[],
  ask: SizingAsk,
  { onProgress, signal }: { onProgress(progress: SizingProgress): void; signal: AbortSignal },
): Promise<void> {
  const search = ++searches;
  const threadOf = (solver: RemoteSolver): SizingThread => ({
    async plan() {
      const planned = await solver.planSizing(search, design, parts, ask);
      if (!planned.ok) throw new Error(planned.error);
      return planned.value;
    },
    look: (ns, failedKin) => solver.sizeCircuits(search, ns, failedKin),
  });
  await searchOver<RemoteSolver>(
    await askedOf(0, (solver) => threadOf(solver).plan(), signal),
    threadOf,
    (run, ns, options) => overPool<number, CircuitFound>(run, ns, { ...options, signal }),
    onProgress,
  );
}

/** How long a chunk in hand may go on after a stop, ms. */
const STOPS_WITHIN_MS = 100;

/** Asks the n-th solver of the pool; one that died is replaced and asked again. */
function askedOf<R>(n: number, ask: (solver: RemoteSolver) => Promise<R>, signal?: AbortSignal): Promise<R> {
  return ask(poolSolver(n)).catch((error: unknown) => {
    if (!(error instanceof SolverGone) || signal?.aborted) throw error;
    return ask(poolSolver(n));
  });
}

async function overPool<T, R>(
  run: (solver: RemoteSolver, chunk: T[]) => Promise<R[]>,
  items: readonly T[],
  options: PoolOptions<R>,
): Promise<R[]> {
  const busy = new Set<number>();
  const workers = Array.from({ length: threads() }, (_, n) => ({
    async run(chunk: T[]): Promise<R[]> {
      busy.add(n);
      try {
        return await askedOf(n, (solver) => run(solver, chunk), options.signal);
      } finally {
        busy.delete(n);
      }
    },
  }));
  try {
    return await runPool(workers, items, options);
  } catch (error) {
    if (error instanceof Stopped && busy.size > 0) {
      // The thread in hand, so that one started meanwhile by a later question is not taken for it.
      const ends = [...busy].map((n) => ({ n, end: endOfPoolSolver(n) }));
      setTimeout(() => ends.forEach(({ n, end }) => busy.has(n) && end()), STOPS_WITHIN_MS);
    }
    throw error;
  }
}
