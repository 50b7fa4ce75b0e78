import { Worker } from 'node:worker_threads';
import * as Comlink from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import type { Design } from '@/core/design/design';
import { Batch } from '@/core/judge/builds/batch';
import type { ToleranceSummary } from '@/core/picture/build-summary';
import type { Variation, VariationResult } from '@/core/study/variation';
import { Work } from '@/workers/deal';
import { drawBuilds } from '@/workers/draw-builds';
import type { AboutOf, Kind } from '@/workers/long-work';
import { asHand, newWork, type Hand } from '@/workers/piece';
import type { PoolOptions } from '@/workers/pool';
import { searchOver } from '@/workers/sizing-search';

type Endpoint = Parameters<typeof Comlink.wrap>[0];
const endpoint = nodeEndpoint as unknown as (worker: Worker) => Endpoint;

/** Threads of this process that solve; to be ended. */
export class Threads {
  private readonly workers: Worker[];
  private readonly hands: Hand[];

  constructor(count: number) {
    this.workers = Array.from({ length: count }, () => new Worker(new URL('./pool-thread.mjs', import.meta.url)));
    this.hands = this.workers.map((w) => {
      const thread = asHand(Comlink.wrap(endpoint(w)));
      return { survey: (asked) => thread.survey(asked), go: (piece) => thread.go(piece) };
    });
  }

  async end(): Promise<void> {
    await Promise.all(this.workers.map((w) => w.terminate()));
  }

  /** Solves many variations of one design. */
  variations(design: Design, variations: readonly Variation[], options: PoolOptions = {}): Promise<VariationResult[]> {
    return this.over('variations', design).deal(variations, options);
  }

  /** Draws so many builds of a design and judges them. */
  builds(design: Design, count: number): Promise<ToleranceSummary> {
    const seed = 1;
    const batch = new Batch(design, seed, count);
    return drawBuilds(
      {
        begin: async () => ({ plan: batch.plan, asks: batch.first() }),
        take: async (answers) => batch.take(answers),
        next: async () => batch.next(),
        summary: async () => batch.summary(),
      },
      (plan) => this.over('builds', { design, plan, seed }),
    );
  }

  /** Has every thread warm up for a search, as a page at rest does. */
  async rehearse(design: Design): Promise<void> {
    const work = newWork();
    const piece = { work, kind: 'rehearsal', about: design, items: [], told: undefined } as const;
    await Promise.all(this.hands.map((hand) => hand.go(piece)));
  }

  /** Sizes whole sets from standard values; answers how many circuits were looked at. */
  async sets(design: Design): Promise<number> {
    let studies = 0;
    await searchOver(this.over('circuits', { design, parts: [], ask: { from: 'values', by: 'cost' } }), {
      onProgress: (progress) => (studies = progress.studies),
    });
    return studies;
  }

  private over<K extends Kind>(kind: K, about: AboutOf<K>): Work<K> {
    return new Work(this.hands, kind, about);
  }
}
