'use client';

import { useEdit } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { SchoolList, Waiting } from './school-list';
import { useSolved } from '@/ui/use-solved';
import type { Design } from '@/core/design/design';

/** Without a regulator there is no headroom: the output's own volts stand for it. */
const ROWS = ['headroom', 'output', 'lasts', 'diodes', 'cost', 'fails'] as const;

const askDiodes = (solver: RemoteSolver, design: Design) => solver.reverseDiodes(design);

export function Side({ onTaken }: { onTaken(): void }) {
  const edit = useEdit();
  const { value: reports, trouble } = useSolved(askDiodes);
  if (!reports) return <Waiting trouble={trouble} />;
  return (
    <SchoolList
      reports={reports}
      rows={ROWS}
      onTake={(patch) => {
        edit(patch);
        onTaken();
      }}
    />
  );
}
