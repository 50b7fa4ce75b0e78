'use client';

import { Command, defaultFilter } from 'cmdk';
import { useEffect, useState } from 'react';
import { DialogPanel } from './dialog-panel';

export interface Action {
  name: string;
  hint?: string;
  run(): void;
}

/** Those whose name or hint has the letters, the closest first. */
function closest(actions: Action[], letters: string): Action[] {
  if (!letters) return actions;
  return actions
    .map((action) => ({ action, score: defaultFilter(action.name + (action.hint ?? ''), letters) }))
    .filter((it) => it.score > 0)
    .sort((a, b) => b.score - a.score)
    .map((it) => it.action);
}

/** What was typed into the list of actions, and whether Enter was pressed on it. */
export interface Wish {
  letters: string;
  entered: boolean;
}

/**
 * Every action by name. The letters are the frame's, which hears them while the list is still on its way; what is found
 * and which of it is chosen is drawn with them, never a moment later: whoever types and presses Enter at once gets what
 * the letters say.
 */
export function Palette({
  wish,
  actions,
  onLetters,
  onClose,
}: {
  wish: Wish;
  actions: Action[];
  onLetters(letters: string): void;
  onClose(): void;
}) {
  const [marked, setMarked] = useState('');
  const found = closest(actions, wish.letters);
  const first = found[0];

  function take(action: Action) {
    onClose();
    action.run();
  }

  useEffect(() => {
    if (wish.entered && first) take(first);
  });

  return (
    <DialogPanel onOpenChange={onClose} title="Actions">
      <Command
        label="Actions"
        shouldFilter={false}
        value={found.some((a) => a.name === marked) ? marked : (first?.name ?? '')}
        onValueChange={setMarked}
      >
        <Command.Input
          autoFocus
          value={wish.letters}
          onValueChange={(letters) => {
            onLetters(letters);
            setMarked('');
          }}
          className="field"
          placeholder="Type a few letters"
          aria-label="Find an action"
        />
        <Command.List className="mt-2 max-h-[46vh] overflow-y-auto" label="Actions">
          {found.length === 0 && <p className="p-2 text-quiet">Nothing by that name.</p>}
          {found.map((a) => (
            <Command.Item
              key={a.name}
              value={a.name}
              onSelect={() => take(a)}
              className="flex cursor-pointer justify-between rounded px-2 py-1.5 data-[selected=true]:bg-sunk"
            >
              <span>{a.name}</span>
              {a.hint && <span className="text-quiet">{a.hint}</span>}
            </Command.Item>
          ))}
        </Command.List>
      </Command>
    </DialogPanel>
  );
}
