'use client';

import Link from 'next/link';

/** A page that failed: what was typed and saved is not touched by it. */
export default function PageFailed({ error, reset }: { error: Error & { digest?: string }; reset(): void }) {
  return (
    <main role="alert" className="mx-auto mt-24 max-w-xl px-5">
      <h1 className="text-[24px] font-semibold">This page failed</h1>
      <p className="mt-2">
        Something in the program itself went wrong while the page was drawn. What was saved is untouched, and unsaved
        changes of a design are kept in this browser and offered when it opens again.
      </p>
      <p className="mt-2 break-words text-[14px] text-quiet">{error.digest ?? error.message}</p>
      <p className="mt-4 flex gap-2">
        <button type="button" className="btn btn-main" onClick={reset}>
          Try again
        </button>
        <Link href="/" className="btn">
          To the shelf
        </Link>
      </p>
    </main>
  );
}
