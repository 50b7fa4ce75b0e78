import type { ComponentType } from 'react';
import { Alert } from './alert';

/** Stands where a part of the page is still on its way. */
export function Loading() {
  return (
    <p className="py-2 text-quiet" aria-live="polite">
      A moment…
    </p>
  );
}

function NotLoaded() {
  return <Alert>This part could not be loaded. Is the program still running? Reload the page once it is.</Alert>;
}

/** A part of the page that is loaded when it is needed; where it cannot be had, that is said in its place. */
export function orSay<P>(load: () => Promise<ComponentType<P>>): () => Promise<ComponentType<P>> {
  return () => load().catch(() => NotLoaded);
}
