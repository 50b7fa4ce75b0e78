'use client';

import { temporal } from 'zundo';
import { createStore } from 'zustand/vanilla';
import { applyPatch, type Design, type Patch } from '@/core/design/design';

export interface DocumentState {
  design: Design;
  /** Applies a patch as one step of the history. */
  edit(patch: Patch): void;
  replace(design: Design): void;
}

/** The document and its history. Views, saves and solutions live elsewhere: only what a person wrote is undone. */
export function createDesignStore(design: Design) {
  const store = createStore<DocumentState>()(
    temporal(
      (set, get) => ({
        design,
        edit: (patch) => set({ design: applyPatch(get().design, patch) }),
        replace: (next) => set({ design: next }),
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
