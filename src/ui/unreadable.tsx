'use client';

import Link from 'next/link';
import type { UnreadableDesign } from '@/server/designs';
import { download, fileName } from './download';

/** A design whose stored text this program cannot read: what is wrong, and the text itself to take along. */
export function Unreadable({ name, sentence, text }: UnreadableDesign) {
  return (
    <main className="mx-auto mt-24 max-w-xl px-5">
      <h1 className="text-[24px] font-semibold">‘{name}’ cannot be read</h1>
      <p className="mt-2">{sentence}</p>
      <p className="mt-2 text-quiet">
        Nothing was changed, and everything else on the shelf is untouched. The text as it was stored can be taken along
        and mended by hand, then imported again.
      </p>
      <p className="mt-4 flex gap-2">
        <button
          type="button"
          className="btn btn-main"
          onClick={() => download(`${fileName(name)}-as-stored.json`, text, 'application/json')}
        >
          Save the stored text
        </button>
        <Link href="/" className="btn">
          To the shelf
        </Link>
      </p>
    </main>
  );
}
