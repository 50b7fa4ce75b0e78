'use client';

import { createContext, useContext, useEffect, useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import type { Design, Patch } from '@/core/design/design';
import type { Band, Picture } from '@/core/judge/picture';
import type { Fix, StationId } from '@/core/judge/verdict';
import type { StoredDesign } from '@/server/designs';
import { startAutosave } from './autosave';
import { createDesignStore, type DesignStore } from './design-store';
import { startSolving } from './solving';

export type SaveState = 'saved' | 'unsaved' | 'saving' | 'offline' | 'conflict' | 'gone';

/** What a window knows beside the document: where the person looks, what was solved, what was saved. */
export interface SessionState {
  id: string;
  revision: number;
  save: SaveState;
  /** The newer version another window saved. */
  conflict: StoredDesign | null;
  picture: Picture | null;
  /** Set when the newest edit could not be solved: the picture shown is the last good one. */
  trouble: string | null;
  fixes: Readonly<Record<string, Fix[]>>;
  fixing: boolean;
  station: StationId;
  band: Band;
  /** Name of the figure whose working is open, and the verdict when it is one of those. */
  opened: string | null;
}

export interface Session {
  document: DesignStore;
  view: ReturnType<typeof createView>;
  /** Writes at once whatever waits for the autosave. */
  flush(): Promise<void>;
  /** Answers a conflict: keep this window's version over the other, or take the other. */
  settle(keep: 'mine' | 'theirs'): Promise<void>;
}

function createView(stored: StoredDesign) {
  return createStore<SessionState>()(() => ({
    id: stored.id, revision: stored.revision, save: 'saved', conflict: null, picture: null, trouble: null, fixes: {}, fixing: false,
    station: 'reservoir', band: 'nominal', opened: null,
  }));
}

export type View = Session['view'];

const SessionContext = createContext<Session | null>(null);

export function SessionProvider({ stored, children }: { stored: StoredDesign; children: ReactNode }) {
  const [parts] = useState(() => ({ document: createDesignStore(stored.design), view: createView(stored) }));
  const [session] = useState<Session>(() => {
    const saving = startAutosave(parts.document, parts.view);
    return { ...parts, flush: saving.flush, settle: saving.settle };
  });
  useEffect(() => startSolving(parts.document, parts.view), [parts]);
  return <SessionContext.Provider value={session}>{children}</SessionContext.Provider>;
}

export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error('no design is open here');
  return session;
}

export function useDesign(): Design {
  return useStore(useSession().document, (s) => s.design);
}

export function useView<T>(pick: (state: SessionState) => T): T {
  return useStore(useSession().view, pick);
}

export function useEdit(): (patch: Patch) => void {
  return useStore(useSession().document, (s) => s.edit);
}

export function useHistory() {
  const { document } = useSession();
  return useStore(document.temporal, (s) => s);
}
