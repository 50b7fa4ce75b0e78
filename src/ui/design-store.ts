'use client';

import { temporal } from 'zundo';
import { createStore } from 'zustand/vanilla';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import type { readDesign } from '@/core/design/schema';
import { border, borderNow } from './border';

export interface DocumentState {
  design: Design;
  /** Why the last edit was refused, as a sentence; null when it was taken. */
  refused: string | null;
  /** Applies a patch as one step of the history; one that makes a document its own border refuses changes nothing. */
  edit(patch: Patch): void;
  replace(design: Design): void;
}

const faultOf = (read: ReturnType<typeof readDesign>) => (read.ok ? null : read.fault.sentence);

/** Steps that can be undone. */
const STEPS_KEPT = 300;

/** The document and its history. Views, saves and solutions live elsewhere: only what a person wrote is undone. */
export function createDesignStore(design: Design) {
  const store = createStore<DocumentState>()(
    temporal(
      (set, get) => {
        /** Until the border has arrived an edit is taken; what it then refuses goes back to where that began. */
        let trusted: Design | null = null;
        let asking = false;
        function takeOnTrust(before: Design, design: Design): void {
          set({ design, refused: null });
          trusted ??= before;
          if (asking) return;
          asking = true;
          void border()
            .then(settleTrust, () => undefined)
            .finally(() => {
              asking = false;
            });
        }
        function settleTrust(read: typeof readDesign): void {
          const fault = faultOf(read(get().design));
          if (trusted && fault !== null && read(trusted).ok) set({ design: trusted, refused: fault });
          trusted = null;
        }
        return {
          design,
          refused: null,
          edit: (patch) => {
            const read = borderNow();
            // The border may have come another way than by the edit that waits for it.
            if (read) settleTrust(read);
            const before = get().design;
            const design = applyPatch(before, patch);
            if (!read) return takeOnTrust(before, design);
            // Whatever an arrow key, a drag or a search comes up with: what could not be saved is not taken either.
            const fault = faultOf(read(design));
            if (fault !== null && read(before).ok) set({ refused: fault });
            else set({ design, refused: fault });
          },
          replace: (next) => set({ design: next, refused: null }),
        };
      },
      {
        partialize: (state) => ({ design: state.design }),
        limit: STEPS_KEPT,
        equality: (a, b) => a.design === b.design,
      },
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
      store.temporal.getState().resume();
      // The step alone: what the document holds was told, solved and drawn on the way.
      if (end !== start)
        store.temporal.setState(({ pastStates }) => ({
          pastStates: [...pastStates, { design: start }].slice(-STEPS_KEPT),
          futureStates: [],
        }));
    },
  });
}

export type DesignStore = ReturnType<typeof createDesignStore>;
