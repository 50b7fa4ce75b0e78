/** A circuit that could not be calculated, in a sentence. No figure leaves the solver with it. */
export class SolveError extends Error {
  override readonly name = 'SolveError';
}
