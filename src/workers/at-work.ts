import { answer, type Answer } from './answer';
import { drop, inPieces, type Line } from './in-pieces';
import { LONG_WORK, type AboutOf, type EndOf, type Kind, type PartOf, type SurveyOf } from './long-work';
import { DROPPED, UNKNOWN, type Done, type Piece } from './piece';

/** Kinds of which a newer takes the place of an older one. */
const LINES: Partial<Record<Kind, Line>> = {
  fixes: 'fixes',
  rehearsal: 'rehearsal',
  faults: 'search',
  finder: 'search',
  board: 'search',
  proposal: 'search',
};

/** What one ends that is not of its kind: what was rehearsed for it. */
const ENDS: Partial<Record<Kind, Line>> = { circuits: 'rehearsal' };

/** Kinds that are gone through in one go, by one thread: there is nothing to keep open for a further piece. */
const IN_ONE_GO: ReadonlySet<Kind> = new Set([...(Object.keys(LINES) as Kind[]), 'corners', 'scope', 'fit']);

/** A piece all of which comes with its answer is meant to be done by then, ms: only one that takes longer looks up. */
const UNTOLD_MS = 80;

/** How many works of several pieces a thread keeps open: a page has seldom more than two at a time. */
const MOST_OPEN = 4;

interface Open {
  steps(items: readonly unknown[], told: unknown): Generator<unknown, unknown>;
  survey?(): unknown;
}

const opened = new Map<number, Open>();

function open<K extends Kind>({ work, kind, about }: Pick<Piece<K>, 'work' | 'kind' | 'about'>): Open | null {
  const ended = ENDS[kind];
  if (ended) drop(ended);
  const known = opened.get(work);
  if (!known && about === null) return null;
  const found = known ?? (LONG_WORK[kind] as unknown as (about: AboutOf<K>) => Open)(about!);
  if (IN_ONE_GO.has(kind)) return found;
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
  survey<K extends Kind>(asked: Pick<Piece<K>, 'work' | 'kind' | 'about'>): Answer<SurveyOf<K> | typeof UNKNOWN> {
    return answer(() => (open(asked)?.survey?.() as SurveyOf<K> | undefined) ?? UNKNOWN);
  },
  /** Goes through a piece. @param tell what came on the way; where left out all of it is in the answer */
  async go<K extends Kind>(
    piece: Piece<K>,
    tell?: (parts: PartOf<K>[]) => void,
  ): Promise<Answer<Done<K> | typeof UNKNOWN | typeof DROPPED>> {
    const { kind, work, items, told } = piece;
    const ready = answer(() => open(piece));
    if (!ready.ok) return ready;
    if (!ready.value) return { ok: true, value: UNKNOWN };
    const parts: PartOf<K>[] = [];
    const began = performance.now();
    const steps = ready.value.steps(items, told) as Generator<PartOf<K>, EndOf<K>>;
    const went = await (tell
      ? inPieces(LINES[kind] ?? work, work, steps, tell)
      : inPieces(LINES[kind] ?? work, work, steps, (some) => void parts.push(...some), UNTOLD_MS));
    if (!went.ok) return went;
    if (!went.value) return { ok: true, value: DROPPED };
    return { ok: true, value: { parts, end: went.value.end, tookMs: performance.now() - began } };
  },
  /** Looks up from its work: shows that it can, and drops what it is at where that is wanted. */
  lookUp(line: Line | 'nothing'): void {
    if (line !== 'nothing') drop(line);
  },
};
