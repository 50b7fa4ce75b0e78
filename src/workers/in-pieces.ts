import { answer, type Answer } from './answer';
import { breathe } from './breathe';

/** How long this thread is at work before it tells what it has and looks up, ms. */
const PIECE_MS = 40;

/** What may be under way on a thread at once, each of which a newer one of its kind takes the place of; or one work by itself. */
export type Line = 'search' | 'fixes' | 'rehearsal' | number;

const newest = new Map<Line, number>();

/** Drops what is under way of a kind: it notices between two steps. */
export function drop(line: Line): void {
  newest.delete(line);
}

/**
 * Goes through work step by step, and tells every twentieth of a second what has come.
 * @param job newer ones of a line have higher numbers, and take the place of older ones
 * @param tell what came since it was told last
 * @param everyMs how long it is at it before it looks up, ms
 * @returns what it came to at its end; null where it was dropped
 */
export async function inPieces<P, T>(
  line: Line,
  job: number,
  steps: Generator<P, T>,
  tell: (parts: P[]) => void,
  everyMs = PIECE_MS,
): Promise<Answer<{ end: T } | null>> {
  newest.set(line, job);
  let parts: P[] = [];
  let since = performance.now();
  for (;;) {
    const step = answer(() => steps.next());
    if (step.ok && !step.value.done) parts.push(step.value.value);
    const over = !step.ok || step.value.done;
    if (!over && performance.now() - since < everyMs) continue;
    if (parts.length > 0) tell(parts);
    parts = [];
    if (over && newest.get(line) === job) drop(line);
    if (!step.ok) return step;
    if (step.value.done) return { ok: true, value: { end: step.value.value } };
    await breathe();
    if (newest.get(line) !== job) return { ok: true, value: null };
    since = performance.now();
  }
}
