'use client';

import { Command } from 'cmdk';
import { useState } from 'react';
import { DialogPanel } from './dialog-panel';

export interface Action {
  name: string;
  hint?: string;
  run(): void;
}

/** Every action by name. @param typed what was typed before it stood */
export function Palette({ typed, actions, onClose }: { typed: string; actions: Action[]; onClose(): void }) {
  const [text, setText] = useState(typed);
  return (
    <DialogPanel onOpenChange={onClose} title="Actions">
      <Command label="Actions">
        <Command.Input
          autoFocus
          value={text}
          onValueChange={setText}
          className="field"
          placeholder="Type a few letters"
          aria-label="Find an action"
        />
        <Command.List className="mt-2 max-h-[46vh] overflow-y-auto" label="Actions">
          <Command.Empty className="p-2 text-quiet">Nothing by that name.</Command.Empty>
          {actions.map((a) => (
            <Command.Item
              key={a.name}
              onSelect={() => {
                onClose();
                a.run();
              }}
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
