'use client';

import { useEdit } from '@/ui/session';
import type { RemoteSolver } from '@/workers/client';
import { SchoolList, Waiting } from './school-list';
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
      rows={ROWS}
      onTake={(patch) => {
        edit(patch);
        onTaken();
      }}
    />
  );
}

const ROWS = ['rail', 'rises', 'ripple', 'winding', 'pulse', 'cost', 'fails'] as const;
