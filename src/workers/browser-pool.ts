import type { Design } from '@/core/design/design';
import type { Variation, VariationResult } from '@/core/study/variation';
import { poolSolver } from './client';
import { runPool, type PoolOptions } from './pool';

/** How many threads a page takes: all but one, for the page itself, and never more than four. */
function threads(): number {
  return Math.min(4, Math.max(1, (navigator.hardwareConcurrency || 2) - 1));
}

/** Solves many variations of one design over the page's pool of workers. @throws Stopped */
export function solveInPool(
  design: Design,
  variations: readonly Variation[],
  options: PoolOptions = {},
): Promise<VariationResult[]> {
  const workers = Array.from({ length: threads() }, (_, n) => ({
    run: (chunk: Variation[]) => poolSolver(n).variations(design, chunk) as Promise<VariationResult[]>,
  }));
  return runPool(workers, variations, options);
}
