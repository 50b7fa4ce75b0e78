'use client';

import { useSyncExternalStore } from 'react';

const QUERY = '(max-width: 639px)';

function onChange(then: () => void): () => void {
  const media = matchMedia(QUERY);
  media.addEventListener('change', then);
  return () => media.removeEventListener('change', then);
}

/** Whether the window is too narrow for the drawing. The server does not know: the wide one comes first. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    onChange,
    () => matchMedia(QUERY).matches,
    () => false,
  );
}
