'use client';

import { useEffect, useState, type ComponentType } from 'react';
import { whenIdle } from './when-idle';

/**
 * Says that the page answers from now on: until then its controls show that they do not, and clicks are kept. What
 * explains the words of its headings comes when the page has nothing else to do.
 */
export function Ready() {
  const [Words, setWords] = useState<ComponentType | null>(null);
  useEffect(() => {
    document.documentElement.dataset['ready'] = '';
    dispatchEvent(new Event('ember-rail-ready'));
    return whenIdle(() => void import('./words-in-heads').then((m) => setWords(() => m.WordsInHeads)));
  }, []);
  return Words && <Words />;
}
