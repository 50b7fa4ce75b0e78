import { answer, type Answer } from './answer';
import { breathe } from './breathe';

/** How long this thread is at work before it tells what it has and looks up, ms. */
const PIECE_MS = 40;

/** What may be under way on a thread at once, each of which a newer one of its kind takes the place of. */
export type Line = 'search' | 'fixes' | 'rehearsal';

const newest: Record<Line, number> = { search: 0, fixes: 0, rehearsal: 0 };

/** Drops what is under way of a kind: it notices between two steps. */
export function drop(line: Line): void {
  newest[line] = 0;
}

/**
 * The way in for all work whose next step hangs on what the last one found: goes through it step by step and tells every
 * twentieth of a second what has come. What does not hang together is dealt out over a pool instead (`pool.ts`).
 * @param job newer ones of a kind have higher numbers, and take the place of older ones
 * @param tell what came since it was told last
 * @returns null where it was dropped
 */
export async function inPieces<P, T>(
  line: Line,
  job: number,
  steps: Generator<P, T>,
  tell: (parts: P[]) => void,
): Promise<Answer<T | null>> {
  newest[line] = job;
  let parts: P[] = [];
  let since = performance.now();
  for (;;) {
    const step = answer(() => steps.next());
    if (step.ok && !step.value.done) parts.push(step.value.value);
    const over = !step.ok || step.value.done;
    if (!over && performance.now() - since < PIECE_MS) continue;
    if (parts.length > 0) tell(parts);
    parts = [];
    if (!step.ok) return step;
    if (step.value.done) return { ok: true, value: step.value.value };
    await breathe();
    if (newest[line] !== job) return { ok: true, value: null };
    since = performance.now();
  }
}
