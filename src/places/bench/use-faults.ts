'use client';

import type { FaultProgress, FaultReport } from '@/core/bench/find-fault';
import { useSearched, type Search, type Searched } from '@/ui/use-searched';

/** A weighing of what may be wrong with the design at hand; a sentence where too little was read. */
export type Weighing = Searched<FaultProgress, FaultReport | string>;

const WEIGHING: Search<'faults'> = {
  kind: 'faults',
  begins: { done: 0, of: 0 },
  waitMs: 400,
  mark: 'faults-weighed',
};

/** Weighs what may be wrong with the design as it stands. */
export const useFaults = (): Weighing => useSearched(WEIGHING);
