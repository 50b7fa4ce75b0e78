'use client';

import dynamic from 'next/dynamic';
import { DialogButton } from '@/ui/dialog-button';
import { useDesign } from '@/ui/session';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./further-outputs-list').then((m) => m.List);
const List = dynamic(orSay(load), { ssr: false, loading: Loading });

/** More outputs of the same supply: each with its own headroom, heat and sink. */
export function FurtherOutputs() {
  const { outputs } = useDesign();
  return (
    <DialogButton
      ready={load}
      label={outputs.length > 0 ? `Outputs ${outputs.length + 1}` : 'Outputs'}
      hint="More outputs, each with its own load and regulator"
      title="More outputs from this supply"
      description="Each has a load and a sink of its own, and a regulator or none; what shares a rail pulls down the others’ headroom."
      wide
    >
      {() => <List />}
    </DialogButton>
  );
}
