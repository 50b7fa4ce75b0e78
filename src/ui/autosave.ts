'use client';

import type { Design } from '@/core/design/design';
import type { StoredDesign } from '@/server/designs';
import { askServer, createDesign, fetchDesign, json, restoreDesign } from './api';
import type { DesignStore } from './design-store';
import { forgetKept, keep, keptOf } from './kept-edits';
import type { View } from './view';

const PAUSE_MS = 350;
/** Edits are kept in this browser no later than this, ms. */
const KEEP_MS = 150;
const RETRY_MS = 3000;
/** An answer that has not come by then is not waited for: the save is sent again, under its own name. */
const PATIENCE_MS = 10_000;

/** A save under way, sent again as it was until it is answered. */
interface Sent {
  id: string;
  design: Design;
  revision: number;
}

/**
 * Saves the document a moment after its last change, one save at a time, each over the revision last seen. What is not
 * saved yet is kept in this browser. A revision that moved stops the saving until the person has settled it.
 */
export function startAutosave(document: DesignStore, view: View) {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let keeping: ReturnType<typeof setTimeout> | undefined;
  let inFlight: Promise<void> | null = null;
  let sent: Sent | null = null;
  let savedDesign = document.getState().design;
  let stopped = false;
  const opened = view.getState();

  const unsubscribe = document.subscribe((state, before) => {
    if (state.design === before.design) return;
    if (state.design === savedDesign && !inFlight && !sent && view.getState().save !== 'conflict') {
      clearTimeout(timer);
      return rest();
    }
    remember();
    if (view.getState().save === 'conflict') return;
    view.setState({ save: 'unsaved' });
    schedule(PAUSE_MS);
  });

  /** Everything is where it belongs. */
  function rest(): void {
    clearTimeout(keeping);
    keeping = undefined;
    forgetKept(view.getState().id);
    view.setState({ save: 'saved', unkept: false });
  }

  /** Kept in this browser soon: not with every frame of a drag. */
  function remember(): void {
    keeping ??= setTimeout(keepNow, KEEP_MS);
  }

  function keepNow(): void {
    clearTimeout(keeping);
    keeping = undefined;
    const { id, revision, save: state } = view.getState();
    if (state === 'saved') return;
    const kept = keep(id, { design: document.getState().design, revision, at: new Date().toISOString() });
    if (view.getState().unkept === kept) view.setState({ unkept: !kept });
  }

  function schedule(ms: number) {
    clearTimeout(timer);
    if (!stopped) timer = setTimeout(() => void save(), ms);
  }

  async function save(): Promise<void> {
    clearTimeout(timer);
    if (inFlight) await inFlight;
    const { save: state } = view.getState();
    if ((document.getState().design === savedDesign && !sent) || state === 'conflict' || state === 'gone') return;
    inFlight = send().finally(() => {
      inFlight = null;
    });
    await inFlight;
  }

  async function send(): Promise<void> {
    const { id, revision } = view.getState();
    sent ??= { id: crypto.randomUUID(), design: document.getState().design, revision };
    const mine = sent;
    view.setState({ save: 'saving' });
    const body = { design: mine.design, revision: mine.revision, save: mine.id };
    const answer = await askServer<{ revision: number }>(`/api/designs/${id}`, {
      ...json('PUT', body),
      signal: AbortSignal.timeout(PATIENCE_MS),
    });
    if (answer.ok) {
      sent = null;
      savedDesign = mine.design;
      view.setState({ revision: answer.value.revision, saveTrouble: null });
      if (document.getState().design === mine.design) return rest();
      view.setState({ save: 'unsaved' });
      remember();
      return schedule(PAUSE_MS);
    }
    if (answer.status === 409) {
      sent = null;
      view.setState({ save: 'conflict', conflict: answer.said['current'] as StoredDesign });
    } else if (answer.status === 404) {
      sent = null;
      view.setState({ save: 'gone' });
    } else {
      view.setState({ save: 'offline', saveTrouble: answer.status === 0 ? null : answer.refusal.sentence });
      schedule(RETRY_MS);
    }
  }

  async function settle(choice: 'mine' | 'theirs'): Promise<void> {
    const { conflict } = view.getState();
    if (!conflict) return;
    view.setState({ conflict: null, revision: conflict.revision, save: 'unsaved' });
    // From here on the other one is what is stored, whatever was undone while it was being asked.
    savedDesign = conflict.design;
    if (choice === 'mine') return save();
    document.getState().replace(conflict.design);
    clearTimeout(timer);
    rest();
  }

  /** Puts a design that was deleted elsewhere back on the shelf, under its own name or, when that is gone, a new one. */
  async function putBack(): Promise<{ ok: true; id: string } | { ok: false; sentence: string }> {
    const { id } = view.getState();
    const back = await restoreDesign(id);
    if (back.ok) {
      view.setState({ save: 'unsaved' });
      savedDesign = { ...savedDesign };
      await save();
      return { ok: true, id };
    }
    if (back.status !== 404) return { ok: false, sentence: back.refusal.sentence };
    const created = await createDesign(document.getState().design);
    if (!created.ok) return { ok: false, sentence: created.refusal.sentence };
    forgetKept(id);
    return { ok: true, id: created.value.id };
  }

  /** What an earlier visit left in this browser, taken or let go. */
  function answerKept(take: boolean): void {
    const { kept } = view.getState();
    if (!kept) return;
    view.setState({ kept: null });
    if (take) document.getState().replace(kept.design);
    else forgetKept(view.getState().id);
  }

  /** A page that comes back out of the browser's memory may show what has long been saved over. */
  async function compare(): Promise<void> {
    const stored = await fetchDesign(opened.id);
    if (stopped || !stored.ok || document.getState().design !== savedDesign || sent) return;
    if (stored.value.revision <= view.getState().revision) return;
    savedDesign = stored.value.design;
    view.setState({ revision: stored.value.revision });
    document.getState().replace(stored.value.design);
    rest();
  }

  function onLeave(event: BeforeUnloadEvent): void {
    if (keeping) keepNow();
    // Only where this browser could not keep what is not saved: else nothing would be lost.
    if (view.getState().unkept && view.getState().save !== 'saved') event.preventDefault();
  }
  const onHide = () => {
    if (keeping) keepNow();
    if (view.getState().save === 'unsaved') void save();
  };
  const onOnline = () => void (view.getState().save === 'offline' && save());
  window.addEventListener('beforeunload', onLeave);
  window.addEventListener('pagehide', onHide);
  window.addEventListener('online', onOnline);

  void keptOf(opened.id).then((left) => {
    if (!left || stopped) return;
    if (JSON.stringify(left.design) !== JSON.stringify(savedDesign)) view.setState({ kept: left });
    // What an edit made meanwhile keeps in its place stays.
    else if (view.getState().save === 'saved') forgetKept(opened.id);
  });
  void compare();

  return {
    flush: save,
    settle,
    putBack,
    answerKept,
    stop(): void {
      stopped = true;
      clearTimeout(timer);
      if (keeping) keepNow();
      unsubscribe();
      window.removeEventListener('beforeunload', onLeave);
      window.removeEventListener('pagehide', onHide);
      window.removeEventListener('online', onOnline);
      // What waits for its pause goes now; what it comes to nobody is left to see, and this browser keeps it until then.
      if (view.getState().save === 'unsaved') void save();
    },
  };
}

export type Autosave = ReturnType<typeof startAutosave>;
