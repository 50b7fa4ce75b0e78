/** What is needed of a thread: node's own, or a test's. */
export interface ThreadLike {
  postMessage(message: unknown): void;
  on(event: 'message', listener: (message: { n: number; answer: unknown }) => void): unknown;
  on(event: 'error' | 'exit', listener: (reason: unknown) => void): unknown;
  terminate(): unknown;
  unref?(): void;
}

interface Asked {
  question: object;
  limitMs: number;
  tell(answer: unknown): void;
}

/**
 * Work handed to a thread, one piece at a time in the order it was asked. A piece that takes longer than it may, or
 * brings the thread down, is answered with null; the thread is then replaced, so that nothing else waits for it.
 */
export function threadOf(spawn: () => ThreadLike) {
  const waiting: Asked[] = [];
  let thread: ThreadLike | null = null;
  let current: (Asked & { n: number; timer: ReturnType<typeof setTimeout> }) | null = null;
  let asked = 0;

  function done(answer: unknown): void {
    const finished = current;
    if (!finished) return;
    clearTimeout(finished.timer);
    current = null;
    finished.tell(answer);
    next();
  }

  function replace(): void {
    const old = thread;
    thread = null;
    void old?.terminate();
    done(null);
  }

  function started(): ThreadLike {
    const fresh = spawn();
    fresh.unref?.();
    fresh.on('message', ({ n, answer }) => {
      if (current?.n === n) done(answer);
    });
    for (const event of ['error', 'exit'] as const) fresh.on(event, () => thread === fresh && replace());
    return fresh;
  }

  function next(): void {
    if (current || waiting.length === 0) return;
    const asking = waiting.shift()!;
    const n = ++asked;
    current = { ...asking, n, timer: setTimeout(replace, asking.limitMs) };
    try {
      thread ??= started();
      thread.postMessage({ ...asking.question, n });
    } catch {
      replace();
    }
  }

  return {
    /** @param limitMs how long the work itself may take; waiting for other work does not count */
    ask<T>(question: object, limitMs: number): Promise<T | null> {
      return new Promise((resolve) => {
        waiting.push({ question, limitMs, tell: (answer) => resolve(answer as T | null) });
        next();
      });
    },
  };
}

export type Thread = ReturnType<typeof threadOf>;
