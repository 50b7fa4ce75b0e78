'use client';

import type { ReactNode } from 'react';
import type { Design } from '@/core/design/design';
import { summaryOf } from '@/core/picture/summary';
import { Alert } from '@/ui/alert';
import { ProposalCard } from './proposal-card';
import { useMake, usePreview } from './use-preview';

/** What a way in comes to, before it is made; until something can be made of what is typed, what will come back. */
export function Preview({
  design,
  lead,
  awaited,
  keptAs,
}: {
  design: Design | null;
  lead: string;
  awaited: ReactNode;
  /** The name its first state is kept under; left out, none is kept. */
  keptAs?: { name: string; why: string };
}) {
  const { picture, trouble, current } = usePreview(design);
  const { busy, refused, make } = useMake(keptAs);
  if (!design) return awaited;
  return (
    <>
      {trouble && <Alert className="mb-2">This could not be solved. {trouble}</Alert>}
      {refused && <Alert className="mb-2">{refused}</Alert>}
      {picture ? (
        <ProposalCard
          design={picture.design}
          summary={summaryOf(picture)}
          verdicts={picture.verdicts}
          lead={lead}
          costEur={picture.costEur}
          busy={busy || !current}
          onTake={() => void make(design)}
        />
      ) : (
        !trouble && <p className="p-6 text-quiet">Solving it…</p>
      )}
    </>
  );
}
