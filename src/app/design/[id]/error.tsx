'use client';

import { Alert } from '@/ui/alert';

/** A place of a design that failed: the design, its edits and its history stay open around it. */
export default function PlaceFailed({ error, reset }: { error: Error & { digest?: string }; reset(): void }) {
  return (
    <main className="grid flex-1 place-items-center p-8">
      <div className="max-w-lg space-y-3">
        <h1 className="serif text-[22px] font-semibold">This place failed</h1>
        <p>
          Something in the program itself went wrong while it was drawn. The design is still open: undo the last change,
          go to another place, or try again.
        </p>
        <Alert className="break-words text-[14px]">{error.digest ?? error.message}</Alert>
        <button type="button" className="btn btn-main" onClick={reset}>
          Try again
        </button>
      </div>
    </main>
  );
}
