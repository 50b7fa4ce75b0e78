'use client';

/** Switches between paper and charcoal, for this browser, for good. */
export function toggleTheme() {
  const next = document.documentElement.dataset['theme'] === 'dark' ? 'light' : 'dark';
  document.documentElement.dataset['theme'] = next;
  document.cookie = `theme=${next}; path=/; max-age=31536000; samesite=strict`;
}
