'use client';

import { formatQuantity } from '@/core/quantity/format';
import { useEdit } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { SchoolList, Waiting, type SchoolFigures } from './school-list';
import { useSolved } from '@/ui/use-solved';
import type { Design } from '@/core/design/design';

const askInputs = (solver: RemoteSolver, design: Design) => solver.schools(design);

export function Side({ onTaken }: { onTaken(): void }) {
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
