'use client';

import { arrangementFacts, dcSourceOf } from '@/core/design/source';
import { formatQuantity } from '@/core/quantity/format';
import { DialogButton } from '@/ui/dialog-button';
import { useDesign, useEdit } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { SchoolList, Waiting, type SchoolFigures } from './school-list';
import { useSolved } from '@/ui/use-solved';
import type { Design } from '@/core/design/design';

const askInputs = (solver: RemoteSolver, design: Design) => solver.schools(design);

/** Capacitor input, small first capacitor, choke input: the same supply three ways, side by side. */
export function Schools() {
  const design = useDesign();
  if (arrangementFacts(design).ownCans || dcSourceOf(design)) return null;
  return (
    <DialogButton
      label="Compare inputs"
      title="Three ways into the reservoir"
      description="This supply’s own winding, load and reservoir, solved with each kind of input. Nothing changes until you take one."
      wide
    >
      {(close) => <Side onTaken={close} />}
    </DialogButton>
  );
}

function Side({ onTaken }: { onTaken(): void }) {
  const edit = useEdit();
  const { value: reports, trouble } = useSolved(askInputs);
  if (!reports) return <Waiting trouble={trouble} />;
  return (
    <SchoolList
      reports={reports}
      rows={rows}
      onTake={(patch) => {
        edit(patch);
        onTaken();
      }}
    />
  );
}

function rows(v: SchoolFigures): [string, string][] {
  return [
    ['Rail, nominal, full load', formatQuantity(v.railV, 'V')],
    ['Rises, low loaded to high idle', formatQuantity(v.risesPct, '%')],
    ['Ripple, p-p', formatQuantity(v.rippleV, 'V')],
    ['Winding, RMS', formatQuantity(v.windingA, 'A')],
    ['Charging pulse', formatQuantity(v.pulseA, 'A')],
    ['Parts, typical', `${v.costEur.toFixed(2)} EUR`],
    ['Verdicts that fail', String(v.fails)],
  ];
}
