import type { Design, PartRole } from '@/core/design/design';
import type { Candidate, Try } from '@/core/size/picking';
import type { Build } from '@/core/judge/tolerance';
import type { Variation, VariationResult } from '@/core/study/variation';
import { poolSolver, type RemoteSolver } from './client';
import { runPool, type PoolOptions } from './pool';

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
  return overPool<Variation, VariationResult>((solver, chunk) => solver.variations(design, chunk), variations, options);
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

function overPool<T, R>(
  run: (solver: RemoteSolver, chunk: T[]) => Promise<R[]>,
  items: readonly T[],
  options: PoolOptions<R>,
): Promise<R[]> {
  const workers = Array.from({ length: threads() }, (_, n) => ({ run: (chunk: T[]) => run(poolSolver(n), chunk) }));
  return runPool(workers, items, options);
}
