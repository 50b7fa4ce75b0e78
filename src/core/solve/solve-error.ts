/** A circuit that could not be calculated, in a sentence. No figure leaves the solver with it. */
export class SolveError extends Error {
  override readonly name = 'SolveError';
}

/** What work comes to; null where a circuit has no answer. Anything else that goes wrong is passed on. */
export function orUnsolved<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof SolveError) return null;
    throw error;
  }
}
