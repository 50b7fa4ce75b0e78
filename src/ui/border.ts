'use client';

import type { readDesign } from '@/core/design/schema';

type Border = typeof readDesign;

let loaded: Border | null = null;
let coming: Promise<Border> | null = null;

/** The document's own border: loaded with the first touch of a page, not with the page. */
export function border(): Promise<Border> {
  coming ??= import('@/core/design/schema').then((m) => (loaded = m.readDesign));
  return coming;
}

/** The border where it has arrived. */
export function borderNow(): Border | null {
  return loaded;
}

/** Loads the border with the first sign of a hand. @returns stops waiting for one */
export function borderAtFirstTouch(): () => void {
  const signs = ['pointerdown', 'keydown', 'focusin', 'dragstart'];
  const onSign = () => {
    stop();
    void border();
  };
  const stop = () => signs.forEach((sign) => window.removeEventListener(sign, onSign, true));
  signs.forEach((sign) => window.addEventListener(sign, onSign, true));
  return stop;
}
