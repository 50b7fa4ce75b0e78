'use client';

import { useState } from 'react';
import { askServer } from './api';

/** Puts the newest sound copy in the place of a damaged file. */
export function TakeTheCopy() {
  const [said, setSaid] = useState<string | null>(null);
  async function restore() {
    const answer = await askServer('/api/file', { method: 'POST' });
    if (answer.ok) window.location.reload();
    else setSaid(answer.refusal.sentence);
  }
  return (
    <>
      <button type="button" className="btn btn-main mt-4" onClick={() => void restore()}>
        Take the copy
      </button>
      {said && (
        <p role="alert" className="mt-3 text-fail">
          {said}
        </p>
      )}
    </>
  );
}
