'use client';

import dynamic from 'next/dynamic';
import { arrangementFacts, dcSourceOf } from '@/core/design/source';
import { DialogButton } from '@/ui/dialog-button';
import { useDesign } from '@/ui/session';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./schools-list').then((m) => m.Side);
const Side = dynamic(orSay(load), { ssr: false, loading: Loading });

/** Capacitor input, small first capacitor, choke input: the same supply three ways, side by side. */
export function Schools() {
  const design = useDesign();
  if (arrangementFacts(design).ownCans || dcSourceOf(design)) return null;
  return (
    <DialogButton
      ready={load}
      label="Compare inputs"
      title="Three ways into the reservoir"
      description="This supply’s own winding, load and reservoir, solved with each kind of input. Nothing changes until you take one."
      wide
    >
      {(close) => <Side onTaken={close} />}
    </DialogButton>
  );
}
