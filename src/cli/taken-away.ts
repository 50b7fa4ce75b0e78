import { readFileSync } from 'node:fs';
import { cpus } from 'node:os';

/** Ticks a second in which the system counts. */
const TICKS_PER_S = 100;

/** Time this machine's processors were given to others since it started, s; null where the system does not tell. */
function takenS(): number | null {
  try {
    const [, ...ticks] = readFileSync('/proc/stat', 'utf8').split('\n')[0]!.split(/\s+/);
    return ticks[7] === undefined ? null : Number(ticks[7]) / TICKS_PER_S;
  } catch {
    return null;
  }
}

/**
 * From here on: which share of this machine's processors was given to others, as a virtual machine's may be; null where the
 * system does not tell.
 */
export function takenAway(): () => number | null {
  const [since, before] = [performance.now(), takenS()];
  return () => {
    const now = takenS();
    return before === null || now === null
      ? null
      : (now - before) / (((performance.now() - since) / 1000) * cpus().length);
  };
}

/** The same as it is printed. */
export const shareTaken = (share: number | null): string => (share === null ? '–' : `${(100 * share).toFixed(0)} %`);
