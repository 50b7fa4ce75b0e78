'use client';

import { download, fileName } from './download';

/** Takes the stored text of a design along that cannot be read. */
export function SaveStored({ name, text }: { name: string; text: string }) {
  return (
    <button
      type="button"
      className="btn btn-main"
      onClick={() => download(`${fileName(name)}-as-stored.json`, text, 'application/json')}
    >
      Save the stored text
    </button>
  );
}
