'use client';

import { Dialog as Radix } from 'radix-ui';
import { useState, type ReactNode } from 'react';

export interface PanelProps {
  onOpenChange(open: boolean): void;
  title: string;
  description?: string;
  /** For pictures and cards. */
  wide?: boolean;
  /** Left out where the question has to be answered. */
  closes?: boolean;
  children: ReactNode;
}

/** An open dialog. */
export function DialogPanel({ onOpenChange, title, description, wide = false, closes = true, children }: PanelProps) {
  const [opener] = useState(() => document.activeElement as HTMLElement | null);
  return (
    <Radix.Root open onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Radix.Content
          aria-describedby={description ? undefined : ''}
          onCloseAutoFocus={(event) => {
            // Back to what opened it; where that is gone, to the room.
            event.preventDefault();
            (opener?.isConnected ? opener : document.getElementById('room'))?.focus();
          }}
          className={`fixed left-1/2 top-[8vh] z-50 max-h-[84vh] -translate-x-1/2 overflow-y-auto rounded-md border border-edge bg-paper p-5 shadow-xl ${wide ? 'w-[min(980px,94vw)]' : 'w-[min(560px,92vw)]'}`}
        >
          <Radix.Title className="serif pr-16 text-[20px] font-semibold">{title}</Radix.Title>
          {description && <Radix.Description className="mt-1 text-quiet">{description}</Radix.Description>}
          <div className="mt-3">{children}</div>
          {closes && (
            <Radix.Close className="btn btn-bare !absolute right-3 top-3" title="Close (Esc)">
              Close
            </Radix.Close>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
