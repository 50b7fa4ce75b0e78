'use client';

import { usePathname } from 'next/navigation';
import { useEffect } from 'react';

const KEY = 'ember-rail-scroll';
/** How long what is still to come is waited for, ms: a hand that touches anything ends it at once. */
const PATIENCE_MS = 15_000;
/** Where one is is kept once the hand rests, ms. */
const REST_MS = 120;

/** Whether the page is come back to, by Back, Forward or a reload: only then it is left where it was. */
let traversed = false;
if (typeof window !== 'undefined') {
  const [load] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  traversed = load?.type === 'reload' || load?.type === 'back_forward';
  window.addEventListener('popstate', () => (traversed = true));
}

function kept(): Record<string, number> {
  try {
    return (JSON.parse(sessionStorage.getItem(KEY) ?? '{}') ?? {}) as Record<string, number>;
  } catch {
    return {};
  }
}

function keep(path: string, y: number): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify({ ...kept(), [path]: y }));
  } catch {
    // A browser that keeps nothing opens rooms at their top.
  }
}

/** A room that is come back to stands where it was left, once what it shows is there: most of it is solved first. */
export function useKeptScroll(): void {
  const path = usePathname();
  useEffect(() => {
    const wanted = traversed ? (kept()[path] ?? 0) : 0;
    traversed = false;
    let restoring = wanted > 0;
    const done = () => (restoring = false);
    const go = () => {
      if (!restoring) return;
      window.scrollTo(0, wanted);
      if (Math.abs(window.scrollY - wanted) < 2) done();
    };
    const grown = new ResizeObserver(go);
    grown.observe(document.body);
    const patience = setTimeout(done, PATIENCE_MS);
    let resting: ReturnType<typeof setTimeout> | undefined;
    let last: number | null = null;
    const write = () => {
      clearTimeout(resting);
      if (last !== null) keep(path, last);
      last = null;
    };
    const onScroll = () => {
      // The room gone on to is shown from its top a frame before this one is told that it is left.
      if (restoring || window.location.pathname !== path) return;
      last = Math.round(window.scrollY);
      clearTimeout(resting);
      resting = setTimeout(write, REST_MS);
    };
    // A hand that scrolls by itself has gone on.
    for (const kind of ['wheel', 'keydown', 'pointerdown'] as const) window.addEventListener(kind, done);
    window.addEventListener('scroll', onScroll, { passive: true });
    window.addEventListener('pagehide', write);
    return () => {
      // Gone on before the hand had rested: where it was counts all the same.
      write();
      window.removeEventListener('pagehide', write);
      grown.disconnect();
      clearTimeout(patience);
      for (const kind of ['wheel', 'keydown', 'pointerdown'] as const) window.removeEventListener(kind, done);
      window.removeEventListener('scroll', onScroll);
    };
  }, [path]);
}
