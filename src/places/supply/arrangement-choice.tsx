'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import { ARRANGEMENTS, RECTIFIER_KINDS } from '@/core/parts/arrangements';
import { Dialog, readyDialog } from '@/ui/dialog';
import { useDesign, useEdit } from '@/ui/session';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./arrangement-cards').then((m) => m.Card);
const Card = dynamic(orSay(load), { ssr: false, loading: Loading });
function ready() {
  readyDialog();
  void load();
}

/** The arrangement of the rectifier, chosen from drawn cards. What the design already has is kept. */
export function ArrangementChoice() {
  const design = useDesign();
  const edit = useEdit();
  const [open, setOpen] = useState(false);
  const { kind } = design.rectifier;
  return (
    <div className="min-w-0">
      <span className="block truncate text-[13px] text-quiet">Arrangement</span>
      <button
        type="button"
        className="btn w-full !justify-start truncate"
        onPointerEnter={ready}
        onFocus={ready}
        onClick={() => setOpen(true)}
      >
        {ARRANGEMENTS[kind].words.name}
      </button>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Arrangement"
        description="How the winding, the diodes and the rails meet. Everything else of the design stays as it is."
        wide
      >
        <ul className="grid grid-cols-4 gap-2.5">
          {RECTIFIER_KINDS.map((id) => (
            <li key={id}>
              <Card
                arrangement={ARRANGEMENTS[id]}
                chosen={id === kind}
                onChoose={() => {
                  setOpen(false);
                  if (id !== kind) edit({ rectifier: { kind: id } });
                }}
              />
            </li>
          ))}
        </ul>
      </Dialog>
    </div>
  );
}
