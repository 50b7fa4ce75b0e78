import { replaceSolver, solver, SolverGone, type RemoteSolver, type Role } from './client';
import type { Answer } from './answer';

/** A solver that has not answered by then hangs, ms: it is replaced and asked once more. What a search takes is its own affair. */
const HUNG_MS: Readonly<Record<Role, number | null>> = { edit: 12_000, ask: 30_000, search: null };

/**
 * Asks a solver, and once more where it died or hung. Never throws: what went wrong is a sentence in the answer.
 * @param wanted whether the answer is still waited for: what is not is not asked again
 */
export async function asked<T>(
  call: (solver: RemoteSolver) => Promise<Answer<T>>,
  role: Role = 'ask',
  wanted: () => boolean = () => true,
): Promise<Answer<T>> {
  for (let attempt = 1; ; attempt++) {
    const patience = HUNG_MS[role];
    const watch = patience === null ? undefined : setTimeout(() => replaceSolver(role), patience);
    try {
      return await call(solver(role));
    } catch (error) {
      if (error instanceof SolverGone && attempt === 1 && wanted()) continue;
      const reason = error instanceof SolverGone ? 'it ended twice before it answered' : String(error);
      return { ok: false, error: `The solver failed on this design (${reason}). Undo the last change, or go on.` };
    } finally {
      clearTimeout(watch);
    }
  }
}
