import type { Design, OutputId } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import type { Candidate, Try } from '@/core/size/candidate';
import type { MoreWith } from '@/core/judge/more-of';
import type { SingleChange } from '@/core/judge/single-change';
import type { ToleranceSummary } from '@/core/picture/build-summary';
import type { Part } from '@/core/drawer/part';
import type { SizingAsk, SizingProgress } from '@/core/size/sized-set';
import type { Variation, VariationResult } from '@/core/study/variation';
import { asked } from './asked';
import { endOfPoolSolver, poolSolver, poolStarted, SolverGone, type RemoteSolver } from './client';
import { valueOf, Work } from './deal';
import { drawBuilds } from './draw-builds';
import { goThrough } from './go-through';
import type { AboutOf, Kind } from './long-work';
import { asHand, type Hand } from './piece';
import type { PoolOptions } from './pool';
import { searchOver } from './sizing-search';

/** How many threads a page takes for what a person waits for: all cores but one where there are three, never more than four. */
function threads(): number[] {
  const count = Math.min(4, Math.max(2, (navigator.hardwareConcurrency || 2) - 1));
  return Array.from({ length: count }, (_, n) => n);
}

/** Starts the pool, so that it is there when it is asked: for pages where it is likely to be. */
export function readyPool(): void {
  threads().forEach(poolSolver);
}

/** Starts the pool and has it warm up for a search for whole sets, until one is asked for. @returns ends that */
export function rehearseInPool(design: Design): () => void {
  const all = threads();
  for (const n of all) goThrough(poolSolver(n), 'rehearsal', design).catch(() => {});
  return () => {
    for (const n of all)
      if (poolStarted(n))
        poolSolver(n)
          .lookUp('rehearsal')
          .catch(() => {});
  };
}

/** How long a piece in hand may go on after a stop, ms. */
const STOPS_WITHIN_MS = 100;

/** The n-th of the pool. One that died is replaced and asked again, once. */
function hand(n: number, signal?: AbortSignal): Hand {
  let busy = 0;
  async function askedOf<R>(ask: (solver: RemoteSolver) => Promise<R>): Promise<R> {
    busy++;
    try {
      return await ask(poolSolver(n)).catch((error: unknown) => {
        if (!(error instanceof SolverGone) || signal?.aborted) throw error;
        return ask(poolSolver(n));
      });
    } finally {
      busy--;
    }
  }
  return {
    survey: (what) => askedOf((solver) => asHand(solver).survey(what)),
    go: (piece) => askedOf((solver) => asHand(solver).go(piece)),
    starts: () => !poolStarted(n),
    letGo(work) {
      if (!poolStarted(n)) return;
      poolSolver(n)
        .lookUp(work)
        .catch(() => {});
      // The thread in hand, so that one started meanwhile by a later question is not taken for it.
      const end = endOfPoolSolver(n);
      setTimeout(() => busy > 0 && end(), STOPS_WITHIN_MS);
    },
  };
}

/** One long work over the page's pool of workers. */
const over = <K extends Kind>(kind: K, about: AboutOf<K>, signal?: AbortSignal): Work<K> =>
  new Work(
    threads().map((n) => hand(n, signal)),
    kind,
    about,
  );

/** Solves many variations of one design over the page's pool of workers. @throws Stopped */
export const solveInPool = (
  design: Design,
  variations: readonly Variation[],
  options: PoolOptions<VariationResult> = {},
): Promise<VariationResult[]> => over('variations', design, options.signal).deal(variations, options);

/** Tries parts in a design over the page's pool of workers. @throws Stopped */
export const tryInPool = (
  design: Design,
  role: PartRole,
  tries: readonly Try[],
  options: PoolOptions<Candidate | null> = {},
): Promise<(Candidate | null)[]> =>
  over('parts', { design, role }, options.signal).deal(tries, { chunk: 8, ...options });

/** Simulates every single change any rule offers for a design over the page's pool of workers. @throws Stopped */
export async function changesInPool(
  design: Design,
  options: PoolOptions<SingleChange | null>,
): Promise<(SingleChange | null)[]> {
  const changes = over('changes', design, options.signal);
  return changes.deal(await changes.survey(), { chunk: 4, ...options });
}

/** The same of the changes that may let one of its outputs give more. @throws Stopped */
export async function moreInPool(
  design: Design,
  output: OutputId,
  options: PoolOptions<MoreWith | null>,
): Promise<(MoreWith | null)[]> {
  const more = over('more', { design, output }, options.signal);
  return more.deal(await more.survey(), { chunk: 2, ...options });
}

let batches = 0;

/**
 * Draws many builds, and solves over the page's pool of workers what has to be solved of them.
 * @param onProgress how many builds are known for certain
 * @throws Stopped
 */
export function drawInPool(
  design: Design,
  seed: number,
  count: number,
  options: { onProgress(known: number): void; signal: AbortSignal },
): Promise<ToleranceSummary> {
  const id = ++batches;
  return drawBuilds(
    {
      begin: async () => valueOf(await asked((solver) => solver.beginBatch(id, design, seed, count))),
      take: async (answers) => valueOf(await asked((solver) => solver.takeAnswers(id, answers))),
      next: async () => valueOf(await asked((solver) => solver.nextAsks(id))),
      summary: async () => valueOf(await asked((solver) => solver.summariseBatch(id))),
    },
    (plan) => over('builds', { design, plan, seed }, options.signal),
    options,
  );
}

/** Sizes whole sets over the page's pool of workers. @throws Stopped */
export const sizeInPool = (
  design: Design,
  parts: readonly Part[],
  ask: SizingAsk,
  options: { onProgress(progress: SizingProgress): void; signal: AbortSignal },
): Promise<void> => searchOver(over('circuits', { design, parts, ask }, options.signal), options);
