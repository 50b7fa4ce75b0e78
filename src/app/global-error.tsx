'use client';

/** What is left when even the frame of the page fails: no styles, no parts of the program are relied on. */
export default function ProgramFailed({ error, reset }: { error: Error & { digest?: string }; reset(): void }) {
  return (
    <html lang="en">
      <body style={{ fontFamily: 'serif', maxWidth: '34rem', margin: '4rem auto', padding: '0 1rem' }}>
        <h1>The program failed</h1>
        <p>What was saved is untouched, and unsaved changes of a design are kept in this browser.</p>
        <p>{error.digest ?? error.message}</p>
        <button type="button" onClick={reset}>
          Try again
        </button>
      </body>
    </html>
  );
}
