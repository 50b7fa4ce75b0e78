'use client';

import { useSyncExternalStore } from 'react';
import { onTheme, themeNow, toggleTheme } from './theme';

/** The switch between the light and the dark theme. */
export function ThemeSwitch() {
  const theme = useSyncExternalStore(onTheme, themeNow, () => 'light' as const);
  return (
    <button
      type="button"
      role="switch"
      aria-checked={theme === 'dark'}
      aria-label="Dark theme"
      className="btn btn-bare !px-1.5"
      title="Theme: light or dark"
      onClick={toggleTheme}
    >
      Theme
    </button>
  );
}
