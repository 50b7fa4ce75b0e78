import type { AboutOf, EndOf, ItemOf, Kind, PartOf, ToldOf } from './long-work';

/** Some items of one work. */
export interface Piece<K extends Kind> {
  /** Its number: the same on every thread that takes part. */
  work: number;
  kind: K;
  /** What opens it; null where this thread has opened it already. */
  about: AboutOf<K> | null;
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
