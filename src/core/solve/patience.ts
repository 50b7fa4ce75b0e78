/**
 * Time spent at work, ms, as asked from time to time. A long gap between two askings is mostly the machine's (another
 * process, a compiler, tidying of memory) and counts as one beat only: no supply is refused because of a busy machine.
 */
export function workingTime(beatMs: number): () => number {
  let last = performance.now();
  let spentMs = 0;
  return () => {
    const now = performance.now();
    spentMs += Math.min(now - last, beatMs);
    last = now;
    return spentMs;
  };
}
