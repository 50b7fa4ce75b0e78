import type { Answer } from './answer';
import type { AboutOf, EndOf, ItemOf, Kind, PartOf, SurveyOf, ToldOf } from './long-work';

/** One work, as a thread is told of it. */
export interface Opening<K extends Kind> {
  /** Its number: the same on every thread that takes part. */
  work: number;
  kind: K;
  /** What opens it; null where this thread has opened it already. */
  about: AboutOf<K> | null;
}

/** Some items of one work. */
export interface Piece<K extends Kind> extends Opening<K> {
  items: readonly ItemOf<K>[];
  told: ToldOf<K>;
}

/** What a piece came to. */
export interface Done<K extends Kind> {
  /** What was not told on the way. */
  parts: PartOf<K>[];
  end: EndOf<K>;
  tookMs: number;
}

/** Said of a work that was not opened here, or so long ago that it was forgotten. */
export const UNKNOWN = 'unknown';
/** Said of what was dropped on the way. */
export const DROPPED = 'dropped';

/** A thread long work is dealt to: a page's worker, or a thread of this process. */
export interface Hand {
  survey<K extends Kind>(asked: Opening<K>): Promise<Answer<SurveyOf<K> | typeof UNKNOWN>>;
  go<K extends Kind>(
    piece: Piece<K>,
    tell?: (parts: PartOf<K>[]) => void,
  ): Promise<Answer<Done<K> | typeof UNKNOWN | typeof DROPPED>>;
  /** Whether it would have to be started first. */
  starts?: () => boolean;
  /** Told that a work is no longer wanted, while it is at a piece of it. */
  letGo?: (work: number) => void;
}

/** What answers from another thread, as one to deal to: a remote type forgets what a call's kind says of its answer. */
export const asHand = (remote: unknown): Hand => remote as Hand;

let works = 0;

/** A number no other work of this page, or process, has. */
export const newWork = (): number => ++works;
