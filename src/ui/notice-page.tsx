import Link from 'next/link';
import type { ReactNode } from 'react';

/** A page that has one thing to say in place of its content, and what can be done about it. */
export function NoticePage({ title, children, actions }: { title: string; children: ReactNode; actions?: ReactNode }) {
  return (
    <main role="alert" className="mx-auto mt-24 max-w-xl px-5">
      <h1 className="text-[24px] font-semibold">{title}</h1>
      <div className="mt-2 space-y-2">{children}</div>
      <p className="mt-4 flex gap-2">
        {actions}
        <Link href="/" className="btn">
          To the shelf
        </Link>
      </p>
    </main>
  );
}
