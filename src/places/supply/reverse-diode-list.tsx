'use client';

import { termsOf } from '@/core/design/source';
import { formatQuantity } from '@/core/quantity/format';
import { useDesign, useEdit } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { SchoolList, Waiting, type SchoolFigures } from './school-list';
import { useSolved } from '@/ui/use-solved';
import type { Design } from '@/core/design/design';

const askDiodes = (solver: RemoteSolver, design: Design) => solver.reverseDiodes(design);

export function Side({ onTaken }: { onTaken(): void }) {
  const design = useDesign();
  const edit = useEdit();
  const { value: reports, trouble } = useSolved(askDiodes);
  if (!reports) return <Waiting trouble={trouble} />;
  const say = termsOf(design);
  const rows = (v: SchoolFigures): [string, string][] => [
    ...(v.headroomV === null
      ? ([['Output', formatQuantity(v.outputV, 'V')]] as [string, string][])
      : ([[`Headroom, ${say.low}`, formatQuantity(v.headroomV, 'V', 2)]] as [string, string][])),
    ...(v.hours === null ? [] : ([['Lasts', formatQuantity(v.hours, 'h')]] as [string, string][])),
    ['Burns in the diode', formatQuantity(v.diodesW, 'W')],
    ['Parts, typical', `${v.costEur.toFixed(2)} EUR`],
    ['Verdicts that fail', String(v.fails)],
  ];
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
