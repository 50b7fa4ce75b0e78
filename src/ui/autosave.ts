'use client';

import type { StoredDesign } from '@/server/designs';
import type { DesignStore } from './design-store';
import type { View } from './view';

const PAUSE_MS = 350;
const RETRY_MS = 3000;

/**
 * Saves the document a moment after its last change, one save at a time, each over the revision last seen. A revision
 * that moved stops the saving until the person has settled it.
 */
export function startAutosave(document: DesignStore, view: View) {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let inFlight: Promise<void> | null = null;
  let savedDesign = document.getState().design;

  document.subscribe((state, before) => {
    if (state.design === before.design || view.getState().save === 'conflict') return;
    if (state.design === savedDesign && !inFlight) {
      view.setState({ save: 'saved' });
      clearTimeout(timer);
      return;
    }
    view.setState({ save: 'unsaved' });
    schedule(PAUSE_MS);
  });
  // What a closing tab still holds is sent along with the goodbye.
  if (typeof window !== 'undefined') {
    window.addEventListener('pagehide', () => {
      if (view.getState().save === 'unsaved') void send(true);
    });
  }

  function schedule(ms: number) {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), ms);
  }

  async function save(): Promise<void> {
    clearTimeout(timer);
    if (inFlight) await inFlight;
    if (document.getState().design === savedDesign || view.getState().save === 'conflict') return;
    inFlight = send(false).finally(() => {
      inFlight = null;
    });
    await inFlight;
  }

  async function send(keepalive: boolean): Promise<void> {
    const { id, revision } = view.getState();
    const { design } = document.getState();
    view.setState({ save: 'saving' });
    let response: Response;
    try {
      response = await fetch(`/api/designs/${id}`, {
        method: 'PUT',
        keepalive,
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ design, revision }),
      });
    } catch {
      view.setState({ save: 'offline' });
      schedule(RETRY_MS);
      return;
    }
    if (response.ok) {
      const answer = (await response.json()) as { revision: number };
      savedDesign = design;
      const current = document.getState().design === design;
      view.setState({ revision: answer.revision, save: current ? 'saved' : 'unsaved' });
      if (!current) schedule(PAUSE_MS);
    } else if (response.status === 409) {
      const answer = (await response.json()) as { current: StoredDesign };
      view.setState({ save: 'conflict', conflict: answer.current });
    } else if (response.status === 404) {
      view.setState({ save: 'gone' });
    } else {
      view.setState({ save: 'offline' });
      schedule(RETRY_MS);
    }
  }

  async function settle(keep: 'mine' | 'theirs'): Promise<void> {
    const { conflict } = view.getState();
    if (!conflict) return;
    view.setState({ conflict: null, revision: conflict.revision, save: 'unsaved' });
    if (keep === 'theirs') {
      savedDesign = conflict.design;
      document.getState().replace(conflict.design);
      view.setState({ save: 'saved' });
    } else {
      await save();
    }
  }

  return { flush: save, settle };
}
