import { answer, type Answer } from './answer';
import { drop, inPieces, type Line } from './in-pieces';
import { LONG_WORK, type AboutOf, type EndOf, type Kind, type PartOf, type SurveyOf } from './long-work';
import { DROPPED, UNKNOWN, type Done, type Opening, type Piece } from './piece';

/** A piece all of which comes with its answer is meant to be done by then, ms: only one that takes longer looks up. */
const UNTOLD_MS = 80;

/** How many works of several pieces a thread keeps open: a page has seldom more than two at a time. */
const MOST_OPEN = 4;

interface Open {
  keepsOpen?: true;
  line?: Line;
  ends?: Line;
  steps(items: readonly unknown[], told: unknown): Generator<unknown, unknown>;
  survey?(): unknown;
}

const opened = new Map<number, Open>();

function open<K extends Kind>({ work, kind, about }: Opening<K>): Open | null {
  const known = opened.get(work);
  if (!known && about === null) return null;
  const found = known ?? (LONG_WORK[kind] as unknown as (about: AboutOf<K>) => Open)(about!);
  if (found.ends) drop(found.ends);
  if (!found.keepsOpen) return found;
  // The last asked for stands last.
  opened.delete(work);
  opened.set(work, found);
  for (const [oldest] of opened) if (opened.size > MOST_OPEN) opened.delete(oldest);
  return found;
}

/**
 * The one way in, on a thread, for all work of many steps: whatever it is, it goes through it step by step, tells every
 * twentieth of a second what has come, and ends where it is dropped.
 */
export const atWork = {
  /** What there is to go through. */
  survey<K extends Kind>(asked: Opening<K>): Answer<SurveyOf<K> | typeof UNKNOWN> {
    return answer(() => (open(asked)?.survey?.() as SurveyOf<K> | undefined) ?? UNKNOWN);
  },
  /** Goes through a piece. @param tell what came on the way; where left out all of it is in the answer */
  async go<K extends Kind>(
    piece: Piece<K>,
    tell?: (parts: PartOf<K>[]) => void,
  ): Promise<Answer<Done<K> | typeof UNKNOWN | typeof DROPPED>> {
    const { work, items, told } = piece;
    const ready = answer(() => open(piece));
    if (!ready.ok) return ready;
    if (!ready.value) return { ok: true, value: UNKNOWN };
    const parts: PartOf<K>[] = [];
    const began = performance.now();
    const line = ready.value.line ?? work;
    const steps = ready.value.steps(items, told) as Generator<PartOf<K>, EndOf<K>>;
    const went = await (tell
      ? inPieces(line, work, steps, tell)
      : inPieces(line, work, steps, (some) => void parts.push(...some), UNTOLD_MS));
    if (!went.ok) return went;
    if (!went.value) return { ok: true, value: DROPPED };
    return { ok: true, value: { parts, end: went.value.end, tookMs: performance.now() - began } };
  },
  /** Looks up from its work: shows that it can, and drops what it is at where that is wanted. */
  lookUp(line: Line | 'nothing'): void {
    if (line !== 'nothing') drop(line);
  },
};
