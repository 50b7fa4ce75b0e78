'use client';

const KEY = 'ember-rail-guided';
const listeners = new Set<() => void>();

/** The design the first steps are taken on; null where they are not being taken, or nothing can be kept. */
export function guidedDesign(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}

export function onGuided(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function keep(id: string | null) {
  try {
    if (id === null) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, id);
  } catch {
    // Without it the design opens as any other.
  }
  for (const tell of listeners) tell();
}

export const guide = (id: string) => keep(id);
export const stopGuiding = () => keep(null);
