import type { ReactNode } from 'react';

/**
 * What stands in one room of a design, under its heading; on a phone a wide table scrolls inside it. The heading is read out where it is not shown, and is where
 * the skip link leads.
 */
export function Room({
  name,
  shown = false,
  className = 'px-4 py-3',
  children,
}: {
  name: string;
  /** Whether the heading is seen. */
  shown?: boolean;
  className?: string;
  children: ReactNode;
}) {
  return (
    <main id="room" tabIndex={-1} className={`min-w-0 flex-1 outline-none max-[639px]:overflow-x-auto ${className}`}>
      <h1 className={shown ? 'text-[23px] font-semibold leading-7' : 'sr-only'}>{name}</h1>
      {children}
    </main>
  );
}
