import * as Comlink from 'comlink';
import type { Solver } from './solver.worker';

export type RemoteSolver = Comlink.Remote<Solver>;

/**
 * 'edit' answers what a person's hand is waiting for; 'ask' what a screen asks besides; 'search' does the longer work
 * that tells what it finds on the way, so that it never stands in the way of the others, and is the first of the pool.
 */
export type Role = 'edit' | 'ask' | 'search';

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
  /** Whether it has answered anything yet: until then it is being loaded. */
  loaded: boolean;
  end(): void;
}

const started = new Map<string, Started>();

/**
 * A solver in its own thread, started once and kept. One that dies is forgotten and started anew by the next call; what
 * it was asked is rejected with SolverGone.
 */
export function solver(role: Role): RemoteSolver {
  return start(role).remote;
}

/** The n-th of the page's pool: the first is the searching one, which is there and warm where anything was searched. */
const poolRole = (n: number): string => (n === 0 ? 'search' : `pool-${n}`);

/** The n-th solver of the page's pool. */
export function poolSolver(n: number): RemoteSolver {
  return start(poolRole(n)).remote;
}

/** Whether the n-th of the pool has been started. */
export const poolStarted = (n: number): boolean => started.has(poolRole(n));

/** Ends a solver that hangs; the next call starts another. */
export function replaceSolver(role: Role): void {
  started.get(role)?.end();
}

/** What ends the n-th solver of the pool as it stands; the next call then starts another. */
export function endOfPoolSolver(n: number): () => void {
  const one = started.get(poolRole(n));
  return () => one?.end();
}

/** How long a search may take to notice that it is no longer wanted, ms. */
const NOTICES_WITHIN_MS = 100;

/**
 * Tells the searching solver that what it is at is no longer wanted. It looks up between two candidates; where one
 * candidate takes longer than a tenth of a second its thread is ended.
 * @param everything also the searches it could go on with; otherwise it only has to be free for what is asked next
 */
export function dropSearch(everything: boolean): void {
  const searching = started.get('search');
  if (!searching) return;
  const impatience = setTimeout(() => {
    if (searching.loaded) searching.end();
  }, NOTICES_WITHIN_MS);
  const noticed = () => clearTimeout(impatience);
  searching.remote.lookUp(everything ? 'search' : 'nothing').then(noticed, noticed);
}

/** Tells the searching solver that the design has moved on: what cures the last one is no longer worth a processor. */
export function dropFixes(): void {
  started
    .get('search')
    ?.remote.lookUp('fixes')
    .catch(() => {});
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
  worker.addEventListener('message', () => (made.loaded = true), { once: true });
  const made: Started = { worker, remote: guarded(Comlink.wrap<Solver>(worker), gone), loaded: false, end };
  started.set(role, made);
  // What a search finds on the way comes by a channel of its own, its answer at its end: only this tells that it is there.
  made.remote.lookUp('nothing').catch(() => {});
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
