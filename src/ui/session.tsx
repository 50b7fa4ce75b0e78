'use client';

import { createContext, useContext, useEffect, useRef, useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import type { Design, Patch } from '@/core/design/design';
import type { Picture } from '@/core/picture/picture';
import type { StoredDesign } from '@/server/designs';
import { startAutosave, type Autosave } from './autosave';
import { createDesignStore, type DesignStore } from './design-store';
import { startSolving } from './solving';
import { whenIdle } from './when-idle';
import { createView, type SessionState, type View } from './view';

export interface Session {
  document: DesignStore;
  view: View;
  /** Writes at once whatever waits for the autosave. */
  flush(): Promise<void>;
  /** Answers a conflict: keep this window's version over the other, or take the other. */
  settle(keep: 'mine' | 'theirs'): Promise<void>;
  /** Puts a design that was deleted elsewhere back on the shelf. */
  putBack: Autosave['putBack'];
  /** Takes what an earlier visit left unsaved in this browser, or lets it go. */
  answerKept(take: boolean): void;
}

const SessionContext = createContext<Session | null>(null);

/** Opens a design for a page. `solved` is its picture when the server had one. */
export function SessionProvider({
  stored,
  solved,
  children,
}: {
  stored: StoredDesign;
  solved: Picture | null;
  children: ReactNode;
}) {
  const [parts] = useState(() => ({ document: createDesignStore(stored.design), view: createView(stored, solved) }));
  const saving = useRef<Autosave | null>(null);
  const [session] = useState<Session>(() => ({
    ...parts,
    flush: async () => saving.current?.flush(),
    settle: async (choice) => saving.current?.settle(choice),
    putBack: async () => saving.current?.putBack() ?? { ok: false, sentence: 'The page is not ready yet.' },
    answerKept: (take) => saving.current?.answerKept(take),
  }));
  useEffect(() => {
    const started = startAutosave(parts.document, parts.view);
    saving.current = started;
    return () => started.stop();
  }, [parts]);
  useEffect(() => startSolving(parts.document, parts.view), [parts]);
  // Wanted only once somebody reads something: it comes when the page has nothing else to do.
  useEffect(() => {
    let stop = () => {};
    let gone = false;
    const off = whenIdle(() => {
      void import('./kept-moments').then(({ startKeepingMoments }) => {
        if (!gone) stop = startKeepingMoments(parts.document, parts.view.getState().id);
      });
    });
    return () => {
      gone = true;
      off();
      stop();
    };
  }, [parts]);
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
