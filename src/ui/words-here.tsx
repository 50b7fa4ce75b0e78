'use client';

import { useState } from 'react';
import { stretches } from '@/core/design/glossary';
import { DialogPanel } from './dialog-panel';
import { TermList } from './term-list';

/** Every term that stands in the room just now, with what it means. */
export function WordsHere({ onClose }: { onClose(): void }) {
  const [found] = useState(() =>
    stretches(document.getElementById('room')?.innerText ?? '')
      .flatMap((s) => (s.term ? [s.term] : []))
      .sort((a, b) => a.term.localeCompare(b.term)),
  );
  return (
    <DialogPanel onOpenChange={onClose} title="Words on this page" wide>
      {found.length === 0 ? (
        <p className="text-quiet">No word of the trade stands here.</p>
      ) : (
        <TermList terms={found} />
      )}
    </DialogPanel>
  );
}
