'use client';

import { useState } from 'react';

const KEY = 'ember-rail-begin';

function keptTexts(): Record<string, Record<string, string>> {
  try {
    return (JSON.parse(sessionStorage.getItem(KEY) ?? '{}') ?? {}) as Record<string, Record<string, string>>;
  } catch {
    return {};
  }
}

/** What was typed on one way in, as text, or nothing. */
export const textsOf = (way: string): Record<string, string> => keptTexts()[way] ?? {};

/** Keeps what is typed on one way in until the window is closed: another way, Back and a reload lose nothing. */
export function keepTexts(way: string, texts: Record<string, string>): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify({ ...keptTexts(), [way]: texts }));
  } catch {
    // A browser that keeps nothing keeps them while the page is open.
  }
}

/** The texts of a way's fields, kept. For what is drawn in the browser alone: the server knows none of it. */
export function useKeptTexts(
  way: string,
  first: Record<string, string>,
): [Record<string, string>, (part: Record<string, string>) => void] {
  const [texts, setTexts] = useState(() => ({ ...first, ...textsOf(way) }));
  return [
    texts,
    (part) =>
      setTexts((old) => {
        const next = { ...old, ...part };
        keepTexts(way, next);
        return next;
      }),
  ];
}
