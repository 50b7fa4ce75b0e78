import * as Comlink from 'comlink';
import type { Solver } from './solver.worker';

export type RemoteSolver = Comlink.Remote<Solver>;

const started = new Map<string, RemoteSolver>();

/**
 * A solver in its own thread, started once and kept. 'edit' answers what a person is waiting for; 'search' does the
 * longer work, so that it never stands in the way; 'scope' draws what a probe would show.
 */
export function solver(role: 'edit' | 'search' | 'scope'): RemoteSolver {
  return start(role);
}

function start(role: string): RemoteSolver {
  let remote = started.get(role);
  if (!remote) {
    remote = Comlink.wrap<Solver>(
      new Worker(new URL('./solver.worker.ts', import.meta.url), { type: 'module', name: role }),
    );
    started.set(role, remote);
  }
  return remote;
}

/** The n-th solver of the page's pool. */
export function poolSolver(n: number): RemoteSolver {
  return start(`pool-${n}`);
}

export const callback = Comlink.proxy;
