import { Worker } from 'node:worker_threads';
import * as Comlink from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import type { Design } from '@/core/design/design';
import { Batch } from '@/core/judge/builds/batch';
import type { ToleranceSummary } from '@/core/picture/build-summary';
import type { SizingAsk } from '@/core/size/sized-set';
import type { CircuitFound } from '@/core/size/sizing-tally';
import type { Variation, VariationResult } from '@/core/study/variation';
import { runPool, type PoolOptions } from '@/workers/pool';
import { searchOver } from '@/workers/sizing-search';
import type { ThreadSolver } from './pool-thread';

type Endpoint = Parameters<typeof Comlink.wrap>[0];
const endpoint = nodeEndpoint as unknown as (worker: Worker) => Endpoint;
type Remote = Comlink.Remote<ThreadSolver>;

/** Threads of this process that solve; to be ended. */
export class Threads {
  private readonly workers: Worker[];
  private readonly solvers: Remote[];

  constructor(count: number) {
    this.workers = Array.from({ length: count }, () => new Worker(new URL('./pool-thread.mjs', import.meta.url)));
    this.solvers = this.workers.map((w) => Comlink.wrap<ThreadSolver>(endpoint(w)));
  }

  async end(): Promise<void> {
    await Promise.all(this.workers.map((w) => w.terminate()));
  }

  /** Solves many variations of one design. */
  variations(design: Design, variations: readonly Variation[], options: PoolOptions = {}): Promise<VariationResult[]> {
    return this.over((solver, chunk) => solver.variations(design, chunk), variations, options);
  }

  /** Draws so many builds of a design and judges them. */
  async builds(design: Design, count: number): Promise<ToleranceSummary> {
    const batch = new Batch(design, 1, count);
    for (let asks = batch.first(); asks.length > 0; asks = batch.next())
      batch.take(
        await this.over((solver, chunk) => solver.solveAsks(design, batch.plan, 1, chunk), asks, { chunk: 8 }),
      );
    return batch.summary();
  }

  /** Has every thread warm up for a search, as a page at rest does. */
  async rehearse(design: Design): Promise<void> {
    await Promise.all(this.solvers.map((s) => s.rehearse(design)));
  }

  /** Sizes whole sets from standard values; answers how many circuits were looked at. */
  async sets(design: Design): Promise<number> {
    const ask: SizingAsk = { from: 'values', by: 'cost' };
    const threadOf = (solver: Remote) => ({
      plan: () => solver.planSizing(design, ask),
      look: (ns: readonly number[], failedKin: readonly string[]) => solver.sizeCircuits(ns, failedKin),
    });
    let studies = 0;
    await searchOver<Remote>(
      await threadOf(this.solvers[0]!).plan(),
      threadOf,
      (run, ns, options) => this.over<number, CircuitFound>(run, ns, options),
      (progress) => (studies = progress.studies),
    );
    return studies;
  }

  private over<T, R>(
    run: (solver: Remote, chunk: T[]) => Promise<R[]>,
    items: readonly T[],
    options: PoolOptions<R>,
  ): Promise<R[]> {
    return runPool(
      this.solvers.map((s) => ({ run: (chunk: T[]) => run(s, chunk) })),
      items,
      options,
    );
  }
}
