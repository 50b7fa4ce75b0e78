'use client';

import dynamic from 'next/dynamic';
import { DialogButton } from '@/ui/dialog-button';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./more-of-it-list').then((m) => m.List);
const List = dynamic(orSay(load), { ssr: false, loading: Loading });

/** How much more an output gives with each single change. */
export function MoreOfIt() {
  return (
    <DialogButton
      ready={load}
      label="What gives more"
      title="How much more with each change"
      description="Every change of one part that lets the output hold more current at the lowest input with an aged reservoir, simulated. Nothing changes until you take one."
      wide
    >
      {(close) => <List onTaken={close} />}
    </DialogButton>
  );
}
