'use client';

import type { readDesign } from '@/core/design/schema';

type Border = typeof readDesign;

let loaded: Border | null = null;
let coming: Promise<Border> | null = null;

/** The document's own border: loaded once the page has nothing else to do, not with the page. */
export function border(): Promise<Border> {
  coming ??= import('./border-in-pieces')
    .then(async (m) => (loaded = await m.borderInPieces()))
    .catch((error: unknown) => {
      // Where the server did not answer, the next that needs it asks again.
      coming = null;
      throw error;
    });
  return coming;
}

/** The border where it has arrived. */
export function borderNow(): Border | null {
  return loaded;
}
