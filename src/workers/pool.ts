/** One worker of a pool: solves a chunk of items, hands back their results in the same order and says how long it was at it. */
export interface PoolWorker<T, R> {
  run(chunk: T[]): Promise<{ found: R[]; tookMs: number }>;
  /** Whether it would have to be started first: then it joins only where that is worth it. Left out: it is there. */
  starts?: () => boolean;
}

export interface PoolOptions<R = unknown> {
  /** Items handed over at first: from then on as many as a worker does in a twentieth of a second. */
  chunk?: number;
  onProgress?: (done: number, of: number) => void;
  /** Results as they come, chunk by chunk, in no certain order of chunks. */
  onFound?: (results: R[]) => void;
  /** Whether enough was found: what has not been handed over by then is left. */
  enough?: () => boolean;
  signal?: AbortSignal;
}

/** How long a worker is to be busy with what it is handed, ms: worth its message, and soon done where it is to stop. */
const PIECE_MS = 50;
/** Most by which a piece is larger than the last: what comes first may be easier than what follows. */
const MOST_GROWTH = 4;

/** A thread that has to be started first takes part where at least so much work is left, ms: it is loaded and slow at first. */
const WORTH_STARTING_MS = 1000;

/** The pool was told to stop. */
export class Stopped extends Error {
  override readonly name = 'Stopped';
}

/**
 * Spreads items over workers, each taking the next chunk when it is done with its last. The same dispatcher serves web
 * workers and threads. Told to stop it rejects at once; chunks in hand are the workers' own affair.
 * @returns results in the order of the items; where enough was found before, none for the rest
 * @throws Stopped when the signal says so; whatever a worker throws, otherwise
 */
export async function runPool<T, R>(
  workers: readonly PoolWorker<T, R>[],
  items: readonly T[],
  { chunk = 24, onProgress, onFound, enough, signal }: PoolOptions<R> = {},
): Promise<R[]> {
  const results = new Array<R>(items.length);
  let next = 0;
  let done = 0;
  let over = false;
  let late = workers.filter((worker, n) => n > 0 && worker.starts?.());
  const all = new Promise<void>((resolve, reject) => {
    let busy = 0;
    function begin(worker: PoolWorker<T, R>) {
      busy++;
      work(worker).then(() => --busy === 0 && resolve(), reject);
    }
    /** The others, once it is seen how long what is left takes. */
    function join(leftMs: number) {
      if (leftMs < WORTH_STARTING_MS) return;
      late.forEach(begin);
      late = [];
    }
    async function work(worker: PoolWorker<T, R>) {
      let size = chunk;
      while (next < items.length && !over && !enough?.()) {
        const from = next;
        // What is left is shared out, nobody waits for one that took the last large piece; but not into crumbs.
        const share = Math.max(chunk, Math.ceil((items.length - from) / workers.length));
        const piece = Math.min(size, share, items.length - from);
        next = from + piece;
        const { found, tookMs } = await worker.run(items.slice(from, next));
        if (over) return;
        join((tookMs / piece) * (items.length - next));
        const growth = PIECE_MS / Math.max(tookMs, PIECE_MS / MOST_GROWTH);
        size = Math.max(1, Math.round(piece * growth));
        found.forEach((r, k) => (results[from + k] = r));
        done += found.length;
        onFound?.(found);
        onProgress?.(done, items.length);
      }
    }
    workers.filter((worker) => !late.includes(worker)).forEach(begin);
  });
  try {
    await Promise.race([all, stopped(signal)]);
  } finally {
    over = true;
    // What a worker says after that concerns nobody.
    all.catch(() => {});
  }
  return results;
}

/** Rejects when the signal says so; never comes otherwise. */
function stopped(signal: AbortSignal | undefined): Promise<never> {
  return new Promise((_, reject) => {
    if (signal?.aborted) reject(new Stopped('stopped'));
    signal?.addEventListener('abort', () => reject(new Stopped('stopped')), { once: true });
  });
}
