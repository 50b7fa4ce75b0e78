'use client';

export type Theme = 'light' | 'dark';

const WISH = '(prefers-color-scheme: dark)';

/** The theme that shows: the one chosen in this browser, or the system's wish. */
export function themeNow(): Theme {
  const chosen = document.documentElement.dataset['theme'];
  if (chosen === 'light' || chosen === 'dark') return chosen;
  return matchMedia(WISH).matches ? 'dark' : 'light';
}

/** Calls `then` whenever another theme shows, by choice or by the system's wish; gives what ends that. */
export function onTheme(then: () => void): () => void {
  const watcher = new MutationObserver(then);
  watcher.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  const wish = matchMedia(WISH);
  wish.addEventListener('change', then);
  return () => {
    watcher.disconnect();
    wish.removeEventListener('change', then);
  };
}

/** Switches between light and dark, for this browser, for good. */
export function toggleTheme() {
  const next: Theme = themeNow() === 'dark' ? 'light' : 'dark';
  document.documentElement.dataset['theme'] = next;
  document.cookie = `theme=${next}; path=/; max-age=31536000; samesite=strict`;
}
