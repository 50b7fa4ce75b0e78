'use client';

import { temporal } from 'zundo';
import { createStore } from 'zustand/vanilla';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';

export interface DocumentState {
  design: Design;
  /** Why the last edit was refused, as a sentence; null when it was taken. */
  refused: string | null;
  /** Applies a patch as one step of the history; one that makes a document its own border refuses changes nothing. */
  edit(patch: Patch): void;
  replace(design: Design): void;
}

/** The document and its history. Views, saves and solutions live elsewhere: only what a person wrote is undone. */
export function createDesignStore(design: Design) {
  const store = createStore<DocumentState>()(
    temporal(
      (set, get) => ({
        design,
        refused: null,
        edit: (patch) => {
          const design = applyPatch(get().design, patch);
          const read = readDesign(design);
          // Whatever an arrow key, a drag or a search comes up with: what could not be saved is not taken either.
          if (read.ok) set({ design, refused: null });
          else if (readDesign(get().design).ok) set({ refused: read.fault.sentence });
          else set({ design, refused: read.fault.sentence });
        },
        replace: (next) => set({ design: next, refused: null }),
      }),
      { partialize: (state) => ({ design: state.design }), limit: 300, equality: (a, b) => a.design === b.design },
    ),
  );
  let before: Design | null = null;
  return Object.assign(store, {
    /** From here to endGesture everything counts as one step: a drag is undone at once. */
    beginGesture() {
      if (before) return;
      before = store.getState().design;
      store.temporal.getState().pause();
    },
    endGesture() {
      if (!before) return;
      const start = before;
      const end = store.getState().design;
      before = null;
      if (end !== start) store.setState({ design: start });
      store.temporal.getState().resume();
      if (end !== start) store.setState({ design: end });
    },
  });
}

export type DesignStore = ReturnType<typeof createDesignStore>;
