import type { ReactNode } from 'react';

/** A small button that is its sign: what it does is said to those who do not see it, and on hover. */
export function IconButton({
  label,
  title,
  onClick,
  children,
}: {
  /** Which of several it is, in full: 'Remove row 3'. */
  label: string;
  title: string;
  onClick(): void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className="grid h-[28px] w-[28px] place-items-center rounded text-quiet hover:bg-sunk"
      aria-label={label}
      title={title}
      onClick={onClick}
    >
      {children}
    </button>
  );
}
