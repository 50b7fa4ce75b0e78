'use client';

import type { Design } from '@/core/design/design';
import { termsOf } from '@/core/design/source';
import { formatQuantity } from '@/core/quantity/format';
import { mostWords } from '@/core/study/most-words';
import { MoreOfIt } from './more-of-it';
import { useDesign } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';

const askMost = (solver: RemoteSolver, design: Design) => solver.most(design);

/** The current at which each output lets go at the lowest input. */
export function MostItGives() {
  const design = useDesign();
  const { value: found, trouble } = useSolved(askMost);
  const low = termsOf(design).low;
  return (
    <div className="col-span-3 flex items-center gap-2 text-[13.5px] leading-snug [&>div]:flex-none">
      <MoreOfIt />
      <p data-testid="most" aria-live="polite">
        <span className="text-quiet">The most it gives: </span>
        {found
          ? found
              .map((m) => `${found.length > 1 ? `${m.name} ` : ''}${mostWords(m, low, (a) => formatQuantity(a, 'A'))}`)
              .join('; ')
          : (trouble ?? 'solving…')}
      </p>
    </div>
  );
}
