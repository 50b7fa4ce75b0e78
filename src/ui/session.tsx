'use client';

import { createContext, useContext, useEffect, useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import type { Design, Patch } from '@/core/design/design';
import type { Picture } from '@/core/judge/picture';
import type { StoredDesign } from '@/server/designs';
import { startAutosave } from './autosave';
import { createDesignStore, type DesignStore } from './design-store';
import { startSolving } from './solving';
import { createView, type SessionState, type View } from './view';

export interface Session {
  document: DesignStore;
  view: View;
  /** Writes at once whatever waits for the autosave. */
  flush(): Promise<void>;
  /** Answers a conflict: keep this window's version over the other, or take the other. */
  settle(keep: 'mine' | 'theirs'): Promise<void>;
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
