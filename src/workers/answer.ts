import { SolveError } from '@/core/solve/solve-error';

/** What a solver says: a value, or a sentence about why there is none. */
export type Answer<T> = { ok: true; value: T } | { ok: false; error: string };

/** The answer of some work. What is not about the design it was asked of is thrown on. */
export function answer<T>(work: () => T): Answer<T> {
  try {
    return { ok: true, value: work() };
  } catch (error) {
    if (error instanceof SolveError) return { ok: false, error: error.message };
    throw error;
  }
}
