import type { Design, Edit, OutputId } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import type { Candidate, Try } from '@/core/size/candidate';
import type { Ask, SolvedBuild } from '@/core/judge/builds/solve';
import type { MoreWith } from '@/core/judge/more-of';
import type { SingleChange } from '@/core/judge/single-change';
import type { ToleranceSummary } from '@/core/picture/build-summary';
import type { Part } from '@/core/drawer/part';
import type { SizingAsk, SizingProgress } from '@/core/size/sized-set';
import type { CircuitFound } from '@/core/size/sizing-tally';
import type { Variation, VariationResult } from '@/core/study/variation';
import type { Answer } from './answer';
import { asked } from './asked';
import { endOfPoolSolver, poolSolver, poolStarted, SolverGone, type RemoteSolver } from './client';
import { runPool, Stopped, type PoolOptions } from './pool';
import { searchOver, type SizingThread } from './sizing-search';

/** How many threads a page takes for what a person waits for: all cores but one where there are three, never more than four. */
function threads(): number {
  return Math.min(4, Math.max(2, (navigator.hardwareConcurrency || 2) - 1));
}

/** Starts the pool, so that it is there when it is asked: for pages where it is likely to be. */
export function readyPool(): void {
  for (let n = 0; n < threads(); n++) poolSolver(n);
}

let rehearsals = 0;

/** Starts the pool and has it warm up for a search for whole sets, until one is asked for. @returns ends that */
export function rehearseInPool(design: Design): () => void {
  const all = Array.from({ length: threads() }, (_, n) => n);
  const job = ++rehearsals;
  for (const n of all)
    poolSolver(n)
      .rehearseSizing(job, design)
      .catch(() => {});
  return () => {
    for (const n of all)
      if (poolStarted(n))
        poolSolver(n)
          .lookUp('rehearsal')
          .catch(() => {});
  };
}

/** Solves many variations of one design over the page's pool of workers. @throws Stopped */
export function solveInPool(
  design: Design,
  variations: readonly Variation[],
  options: PoolOptions<VariationResult> = {},
): Promise<VariationResult[]> {
  return overPool<Variation, VariationResult>(
    async (solver, chunk) => {
      return valueOf(await solver.variations(design, chunk));
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

/** Simulates every single change any rule offers for a design over the page's pool of workers. @throws Stopped */
export async function changesInPool(
  design: Design,
  options: PoolOptions<SingleChange | null>,
): Promise<(SingleChange | null)[]> {
  const edits = await askedOf(0, async (solver) => valueOf(await solver.changesOf(design)), options.signal);
  return overPool<Edit, SingleChange | null>(
    async (solver, chunk) => valueOf(await solver.tryChanges(design, chunk)),
    edits,
    { chunk: 4, ...options },
  );
}

/** The same of the changes that may let one of its outputs give more. @throws Stopped */
export async function moreInPool(
  design: Design,
  output: OutputId,
  options: PoolOptions<MoreWith | null>,
): Promise<(MoreWith | null)[]> {
  const edits = await askedOf(0, async (solver) => valueOf(await solver.moreEdits(design, output)), options.signal);
  return overPool<Edit, MoreWith | null>(
    async (solver, chunk) => valueOf(await solver.tryMore(design, output, chunk)),
    edits,
    { chunk: 2, ...options },
  );
}

let batches = 0;

/**
 * Draws many builds, and solves over the page's pool of workers what has to be solved of them.
 * @param onProgress how many builds are known for certain
 * @throws Stopped
 */
export async function drawInPool(
  design: Design,
  seed: number,
  count: number,
  { onProgress, signal }: { onProgress(known: number): void; signal: AbortSignal },
): Promise<ToleranceSummary> {
  const id = ++batches;
  const begun = valueOf(await asked((solver) => solver.beginBatch(id, design, seed, count)));
  const { plan } = begun;
  let { asks } = begun;
  while (asks.length > 0) {
    if (signal.aborted) throw new Stopped('stopped');
    const taken: Promise<Answer<void>>[] = [];
    // What is not asked of the last go is read.
    const last = asks[asks.length - 1]!.build;
    await overPool<Ask, SolvedBuild>((solver, chunk) => solver.solveAsks(design, plan, seed, chunk), asks, {
      chunk: 8,
      signal,
      onFound: (answers) => taken.push(asked((solver) => solver.takeAnswers(id, answers))),
      onProgress: (done, of) => onProgress(Math.max(0, last + 1 - (of - done))),
    });
    (await Promise.all(taken)).forEach(valueOf);
    asks = valueOf(await asked((solver) => solver.nextAsks(id)));
  }
  if (signal.aborted) throw new Stopped('stopped');
  return valueOf(await asked((solver) => solver.summariseBatch(id)));
}

function valueOf<T>(answer: Answer<T>): T {
  if (!answer.ok) throw new Error(answer.error);
  return answer.value;
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
    plan: async () => valueOf(await solver.planSizing(search, design, parts, ask)),
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
    starts: () => !poolStarted(n),
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
