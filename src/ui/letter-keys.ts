'use client';

const KEY = 'ember-rail-letter-keys';

/** Whether single letters and digits do something by themselves: some speak or touch them by accident. */
export function letterKeys(): boolean {
  try {
    return localStorage.getItem(KEY) !== 'off';
  } catch {
    return true;
  }
}

/** Switches single-letter keys on or off, in this browser, for good. */
export function setLetterKeys(on: boolean): void {
  try {
    localStorage.setItem(KEY, on ? 'on' : 'off');
  } catch {
    // A browser that keeps nothing keeps them on.
  }
}
