'use client';

import { useEffect, useSyncExternalStore } from 'react';
import { breathe } from '@/workers/breathe';
import { whenIdle } from './when-idle';

type WithWords = (text: string) => React.JSX.Element;

// Loaded once, when the page has nothing else to do: until then the sentence stands there without them.
let withWords: WithWords | null = null;
let asked = false;
const waiting = new Set<() => void>();

function load(): void {
  if (asked) return;
  asked = true;
  void import('./explained-words').then(async (m) => {
    withWords = m.withWords;
    // Sentence by sentence: in between the page answers.
    for (const tell of waiting) {
      await breathe();
      tell();
    }
  });
}

function subscribe(tell: () => void): () => void {
  waiting.add(tell);
  return () => waiting.delete(tell);
}

/** A sentence whose terms say what they mean: under the pointer, by keyboard, under a finger. */
export function Explained({ text }: { text: string }) {
  const explained = useSyncExternalStore(
    subscribe,
    () => withWords,
    () => null,
  );
  useEffect(() => (withWords ? undefined : whenIdle(load)), []);
  return explained ? explained(text) : text;
}
