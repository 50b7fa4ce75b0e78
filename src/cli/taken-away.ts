import { readFileSync } from 'node:fs';
import { cpus } from 'node:os';

/** Ticks a second in which the system counts. */
const TICKS_PER_S = 100;

/** Time this machine's processors were given to others since it started, s; 0 where the system does not tell. */
function takenS(): number {
  try {
    const [, ...ticks] = readFileSync('/proc/stat', 'utf8').split('\n')[0]!.split(/\s+/);
    return Number(ticks[7] ?? 0) / TICKS_PER_S;
  } catch {
    return 0;
  }
}

/** From here on: which share of this machine's processors was given to others, as a virtual machine's may be. */
export function takenAway(): () => number {
  const [since, before] = [performance.now(), takenS()];
  return () => (takenS() - before) / (((performance.now() - since) / 1000) * cpus().length);
}
