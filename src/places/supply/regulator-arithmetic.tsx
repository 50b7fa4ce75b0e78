'use client';

import dynamic from 'next/dynamic';
import type { RegulatorModel } from '@/core/parts/regulators/model';
import { DialogButton } from '@/ui/dialog-button';
import { Loading, orSay } from '@/ui/loading';

const load = () => import('./regulator-sums').then((m) => m.Sums);
const Sums = dynamic(orSay(load), { ssr: false, loading: Loading });

/** A regulator's own arithmetic: what sets it, what its dropout does with current, the small parts it wants. */
export function RegulatorArithmetic({ model }: { model: RegulatorModel }) {
  return (
    <DialogButton
      ready={load}
      label="Sums"
      hint="What sets it, what it needs, the small parts around it"
      title={model.name}
      description={`${model.family[0]!.toUpperCase()}${model.family.slice(1)}. Typical of the class: the data sheet of the part in hand wins.`}
      wide
    >
      {() => <Sums model={model} />}
    </DialogButton>
  );
}
