'use client';

import { useState, type ReactNode } from 'react';
import { Dialog, readyDialog } from './dialog';

/** A button and the dialog it opens; what stands in it is made when it opens. */
export function DialogButton({
  label,
  hint,
  title,
  description,
  wide = false,
  ready,
  children,
}: {
  label: string;
  hint?: string;
  title: string;
  description: string;
  wide?: boolean;
  /** Loads what stands in it: begun when a hand comes near. */
  ready?: () => Promise<unknown>;
  children(close: () => void): ReactNode;
}) {
  const [open, setOpen] = useState(false);
  function near() {
    readyDialog();
    void ready?.();
  }
  return (
    <div className="min-w-0 flex-1 self-end">
      <button
        type="button"
        className="btn w-full !px-2 max-[1100px]:!px-0.5 max-[1100px]:text-[13px]"
        aria-haspopup="dialog"
        title={hint}
        onPointerEnter={near}
        onFocus={near}
        onClick={() => setOpen(true)}
      >
        {label}
      </button>
      <Dialog open={open} onOpenChange={setOpen} title={title} description={description} wide={wide}>
        {children(() => setOpen(false))}
      </Dialog>
    </div>
  );
}
