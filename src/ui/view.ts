'use client';

import { createStore } from 'zustand/vanilla';
import type { Band, Picture } from '@/core/picture/picture';
import type { Fix, StationId } from '@/core/judge/verdict';
import type { StoredDesign } from '@/server/designs';
import type { KeptEdits } from './kept-edits';

/** A figure by its station and name; a verdict's is 'verdict:' and the rule. */
export interface Pin {
  station: StationId;
  figure: string;
}

export type SaveState = 'saved' | 'unsaved' | 'saving' | 'offline' | 'conflict' | 'gone';

/** What a window knows beside the document: where the person looks, what was solved, what was saved. */
export interface SessionState {
  id: string;
  revision: number;
  save: SaveState;
  /** The newer version another window saved. */
  conflict: StoredDesign | null;
  /** Why saving is refused, where it is; null where the program only does not answer. */
  saveTrouble: string | null;
  /** Set where this browser could not keep what is not saved yet. */
  unkept: boolean;
  /** What an earlier visit left unsaved in this browser. */
  kept: KeptEdits | null;
  picture: Picture | null;
  /** False when the picture is of an earlier state of the design than the one that stands. */
  current: boolean;
  /** Set when the newest edit could not be solved: the picture shown is the last good one. */
  trouble: string | null;
  fixes: Readonly<Record<string, Fix[]>>;
  fixing: boolean;
  station: StationId;
  band: Band;
  /** Name of the figure whose working is open, and the verdict when it is one of those. */
  opened: string | null;
  /** Whether the drawing is looked at through the lens. */
  lens: boolean;
  /** Figures that stay in sight in every room. */
  pins: readonly Pin[];
}

export function createView(stored: StoredDesign, picture: Picture | null) {
  return createStore<SessionState>()(() => ({
    id: stored.id,
    revision: stored.revision,
    save: 'saved',
    conflict: null,
    saveTrouble: null,
    unkept: false,
    kept: null,
    picture,
    current: true,
    trouble: null,
    fixes: {},
    fixing: false,
    station: 'reservoir',
    band: 'nominal',
    opened: null,
    lens: false,
    pins: [],
  }));
}

export type View = ReturnType<typeof createView>;
