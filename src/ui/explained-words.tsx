'use client';

import { Tooltip } from 'radix-ui';
import { useState } from 'react';
import { stretches, type Term } from '@/core/design/glossary';
import { WordSaid } from './word-said';

/** A sentence whose terms say what they mean: under the pointer, by keyboard, under a finger. */
export function withWords(text: string) {
  return (
    <Tooltip.Provider delayDuration={250}>
      {stretches(text).map((s, n) => (s.term ? <Word key={n} text={s.text} term={s.term} /> : s.text))}
    </Tooltip.Provider>
  );
}

function Word({ text, term }: { text: string; term: Term }) {
  const [open, setOpen] = useState(false);
  return (
    <Tooltip.Root open={open} onOpenChange={setOpen}>
      <Tooltip.Trigger asChild>
        <button
          type="button"
          className="cursor-help text-inherit underline decoration-edge decoration-dotted underline-offset-[3px]"
          // A finger does not hover.
          onClick={(e) => {
            e.preventDefault();
            setOpen(true);
          }}
        >
          {text}
        </button>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={5}
          collisionPadding={10}
          className="z-50 max-w-[330px] rounded border border-edge bg-paper px-3 py-2 text-[14px] leading-snug shadow-lg"
        >
          <WordSaid term={term} />
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}
