import * as Comlink from 'comlink';
import type { Solver } from './solver.worker';

export type RemoteSolver = Comlink.Remote<Solver>;

/** A solver ended before it answered: it died, could not be loaded, or was replaced because it hung. */
export class SolverGone extends Error {
  constructor() {
    super('The solver ended before it answered; it is started again.');
    this.name = 'SolverGone';
  }
}

interface Started {
  worker: Worker;
  remote: RemoteSolver;
  end(): void;
}

const started = new Map<string, Started>();

/**
 * A solver in its own thread, started once and kept. 'edit' answers what a person is waiting for; 'search' does the
 * longer work, so that it never stands in the way; 'scope' draws what a probe would show. One that dies is forgotten and
 * started anew by the next call; what it was asked is rejected with SolverGone.
 */
export function solver(role: 'edit' | 'search' | 'scope'): RemoteSolver {
  return start(role).remote;
}

/** The n-th solver of the page's pool. */
export function poolSolver(n: number): RemoteSolver {
  return start(`pool-${n}`).remote;
}

/** Ends a solver that hangs; the next call starts another. */
export function replaceSolver(role: 'edit' | 'search' | 'scope'): void {
  started.get(role)?.end();
}

function start(role: string): Started {
  const running = started.get(role);
  if (running) return running;
  const worker = new Worker(new URL('./solver.worker.ts', import.meta.url), { type: 'module', name: role });
  let fail: (reason: SolverGone) => void = () => {};
  const gone = new Promise<never>((_, reject) => (fail = reject));
  // Nobody may be waiting when it dies.
  gone.catch(() => {});
  const end = () => {
    if (started.get(role)?.worker === worker) started.delete(role);
    worker.terminate();
    fail(new SolverGone());
  };
  worker.addEventListener('error', end);
  worker.addEventListener('messageerror', end);
  const made = { worker, remote: guarded(Comlink.wrap<Solver>(worker), gone), end };
  started.set(role, made);
  return made;
}

/** The same solver, of which no call waits for ever for a thread that is gone. */
function guarded(remote: RemoteSolver, gone: Promise<never>): RemoteSolver {
  return new Proxy(remote, {
    get(target, name: string) {
      const method = Reflect.get(target, name) as unknown as (...args: unknown[]) => Promise<unknown>;
      return (...args: unknown[]) => Promise.race([method(...args), gone]);
    },
  });
}

export const callback = Comlink.proxy;
