'use client';

import type { EtchProgress } from '@/core/board/etch';
import { useSearched, type Search, type Searched } from '@/ui/use-searched';
import type { BoardReport } from '@/core/board/board-report';

const LAYING: Search<'board'> = {
  kind: 'board',
  begins: { at: 'placing', ways: 0 },
  waitMs: 0,
  mark: 'board-laid',
};

/** The board the design at hand is built on, laid out anew with every change of it. */
export const useBoard = (): Searched<EtchProgress, BoardReport> => useSearched(LAYING);
