'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useStore } from 'zustand';
import { useSession, useView } from './session';

/** What has become of the design elsewhere, or of its saving: over every view of it, until it is answered. */
export function FrameNotices() {
  const session = useSession();
  const router = useRouter();
  const id = useView((s) => s.id);
  const save = useView((s) => s.save);
  const saveTrouble = useView((s) => s.saveTrouble);
  const kept = useView((s) => s.kept);
  const revision = useView((s) => s.revision);
  const refused = useStore(session.document, (s) => s.refused);
  const [notBack, setNotBack] = useState<string | null>(null);

  async function putBack() {
    const answer = await session.putBack();
    if (!answer.ok) setNotBack(answer.sentence);
    else if (answer.id !== id) router.push(`/design/${answer.id}`);
  }

  return (
    <>
      {save === 'gone' && (
        <p role="alert" className="flex items-center gap-3 bg-fail-soft px-4 py-1.5 text-fail print:hidden">
          <span>This design was deleted in another window. What you see is kept here only.</span>
          <button type="button" className="btn !min-h-[26px]" onClick={() => void putBack()}>
            Put it back on the shelf
          </button>
          {notBack && <span>{notBack}</span>}
        </p>
      )}
      {saveTrouble && save === 'offline' && (
        <p role="alert" className="bg-fail-soft px-4 py-1.5 text-fail print:hidden">
          Not saved: {saveTrouble} Your changes are kept in this browser and sent again.
        </p>
      )}
      {kept && (
        <p role="status" className="flex flex-wrap items-center gap-3 bg-raised px-4 py-1.5 print:hidden">
          <span>
            Changes of {new Date(kept.at).toLocaleString()} were never saved; this browser kept them.
            {kept.revision !== revision && ' The design was saved elsewhere since.'}
          </span>
          <button type="button" className="btn !min-h-[26px]" onClick={() => session.answerKept(true)}>
            Take them
          </button>
          <button type="button" className="btn !min-h-[26px]" onClick={() => session.answerKept(false)}>
            Let them go
          </button>
        </p>
      )}
      {refused && (
        <p role="alert" className="bg-fail-soft px-4 py-1.5 text-fail print:hidden">
          That was not taken: {refused}
        </p>
      )}
    </>
  );
}
