'use client';

import dynamic from 'next/dynamic';
import { DialogButton } from '@/ui/dialog-button';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./ahead-fields').then((m) => m.Fields);
const Fields = dynamic(orSay(load), { ssr: false, loading: Loading });

/** A regulator ahead of the regulator: what it holds, how the two share the heat, and the load at which it lets go. */
export function Ahead() {
  return (
    <DialogButton
      ready={load}
      label="Ahead"
      hint="A regulator ahead of this one"
      title="Ahead of the regulator"
      description="A first regulator shares the heat and takes most of the ripple; both need their own headroom."
    >
      {() => <Fields />}
    </DialogButton>
  );
}
