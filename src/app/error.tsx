'use client';

import { NoticePage } from '@/ui/notice-page';

/** A page that failed: what was typed and saved is not touched by it. */
export default function PageFailed({ error, reset }: { error: Error & { digest?: string }; reset(): void }) {
  return (
    <NoticePage
      title="This page failed"
      actions={
        <button type="button" className="btn btn-main" onClick={reset}>
          Try again
        </button>
      }
    >
      <p>
        Something in the program itself went wrong while the page was drawn. What was saved is untouched, and unsaved
        changes of a design are kept in this browser and offered when it opens again.
      </p>
      <p className="break-words text-[14px] text-quiet">{error.digest ?? error.message}</p>
    </NoticePage>
  );
}
