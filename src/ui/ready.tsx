'use client';

import { useEffect } from 'react';

/** Says that the page answers from now on: until then its controls show that they do not, and clicks are kept. */
export function Ready() {
  useEffect(() => {
    document.documentElement.dataset['ready'] = '';
    dispatchEvent(new Event('ember-rail-ready'));
  }, []);
  return null;
}
