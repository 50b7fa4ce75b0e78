import type { ReactNode } from 'react';
import type { BoardChoice } from '@/core/design/design';
import type { Figure } from '@/core/study/figure';

/** What both kinds of board are shown with. */
export interface BoardProps {
  name: string;
  choice: BoardChoice;
  onChange(patch: Partial<BoardChoice>): void;
  /** A number that opens its working. */
  number(figure: Figure, text?: string): ReactNode;
  /** The net that is lit up. */
  lit: string | null;
  onLight(net: string | null): void;
  /** Whether the board is still that of the design before. */
  stale: boolean;
}
