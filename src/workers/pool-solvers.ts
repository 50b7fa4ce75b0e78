import { start, started, type RemoteSolver } from './client';

/** The n-th of the page's pool: the first is the searching one, which is there and warm where anything was searched. */
const poolRole = (n: number): string => (n === 0 ? 'search' : `pool-${n}`);

/** The n-th solver of the page's pool. */
export function poolSolver(n: number): RemoteSolver {
  return start(poolRole(n)).remote;
}

/** Whether the n-th of the pool has been started. */
export const poolStarted = (n: number): boolean => started.has(poolRole(n));

/** What ends the n-th solver of the pool as it stands; the next call then starts another. */
export function endOfPoolSolver(n: number): () => void {
  const one = started.get(poolRole(n));
  return () => one?.end();
}
