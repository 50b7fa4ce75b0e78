import type { ReactNode } from 'react';

/**
 * What stands in one room of a design, under its heading; on a phone a wide table scrolls inside it. The heading is read out where it is not shown, and is where
 * the skip link leads.
 */
export function Room({
  name,
  className = 'px-4 py-3',
  children,
}: {
  /** Its heading, read out; null where it begins with one of its own that is seen. */
  name: string | null;
  className?: string;
  children: ReactNode;
}) {
  return (
    <main id="room" tabIndex={-1} className={`min-w-0 flex-1 outline-none max-[639px]:overflow-x-auto ${className}`}>
      {name !== null && <h1 className="sr-only">{name}</h1>}
      {children}
    </main>
  );
}
