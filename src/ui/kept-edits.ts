'use client';

import type { Design } from '@/core/design/design';
import { border } from './border';

/** Edits of a design that are not saved yet, as this browser keeps them. */
export interface KeptEdits {
  design: Design;
  /** What they were made from. */
  revision: number;
  at: string;
}

const key = (id: string) => `ember-rail-unsaved:${id}`;

/** Keeps them until they are saved. @returns false where this browser has no room or keeps nothing */
export function keep(id: string, edits: KeptEdits): boolean {
  try {
    localStorage.setItem(key(id), JSON.stringify(edits));
    return true;
  } catch {
    return false;
  }
}

export function forgetKept(id: string): void {
  try {
    localStorage.removeItem(key(id));
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}

/** What is kept of a design, if it can still be read. */
export async function keptOf(id: string): Promise<KeptEdits | null> {
  try {
    const found = JSON.parse(localStorage.getItem(key(id)) ?? 'null') as KeptEdits | null;
    if (!found) return null;
    const read = (await border())(found.design);
    return read.ok ? { ...found, design: read.design } : null;
  } catch {
    return null;
  }
}
