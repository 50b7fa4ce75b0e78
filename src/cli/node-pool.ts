import { Worker } from 'node:worker_threads';
import * as Comlink from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import type { Design } from '@/core/design/design';
import type { Variation, VariationResult } from '@/core/study/variation';
import { runPool, type PoolOptions } from '@/workers/pool';
import type { VariationSolver } from './pool-thread';

type Endpoint = Parameters<typeof Comlink.wrap>[0];
const endpoint = nodeEndpoint as unknown as (worker: Worker) => Endpoint;

/** Solves many variations of one design over threads of this process. @throws Stopped */
export async function solveInThreads(
  design: Design,
  variations: readonly Variation[],
  threads: number,
  options: PoolOptions = {},
): Promise<VariationResult[]> {
  const workers = Array.from({ length: threads }, () => new Worker(new URL('./pool-thread.mjs', import.meta.url)));
  try {
    const solvers = workers.map((w) => Comlink.wrap<VariationSolver>(endpoint(w)));
    return await runPool(
      solvers.map((s) => ({ run: (chunk: Variation[]) => s.variations(design, chunk) as Promise<VariationResult[]> })),
      variations,
      options,
    );
  } finally {
    await Promise.all(workers.map((w) => w.terminate()));
  }
}
