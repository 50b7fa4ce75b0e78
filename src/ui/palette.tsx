'use client';

import { Command } from 'cmdk';
import { Dialog } from './dialog';

export interface Action {
  name: string;
  hint?: string;
  run(): void;
}

/** Every action by name. */
export function Palette({ actions, onClose }: { actions: Action[]; onClose(): void }) {
  return (
    <Dialog open onOpenChange={onClose} title="Actions">
      <Command label="Actions">
        <Command.Input autoFocus className="field" placeholder="Type a few letters" aria-label="Find an action" />
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
    </Dialog>
  );
}
