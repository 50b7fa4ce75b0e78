import type { ReactNode } from 'react';

/** What went wrong, in words, where it went wrong. */
export function Alert({ children, className = '' }: { children: ReactNode; className?: string }) {
  return (
    <p role="alert" className={`text-fail ${className}`}>
      {children}
    </p>
  );
}
