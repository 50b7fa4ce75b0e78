import type { Figure } from '@/core/study/figure';

/** Time a case takes to open, s: by then it has to be discharged. */
export const OPENING_S = 30;

/** A point of the checklist that knows the design. */
export interface CheckPoint {
  id: string;
  text: string;
  why: string;
  /** 'wrong' is contradicted by the design, 'done' is seen from it, 'look' has to be looked at and ticked by a person. */
  state: 'wrong' | 'done' | 'look';
}

export interface MainsReport {
  figures: Figure[];
  /** Null where no mains come in, or stay inside a bought adapter. */
  primaryFuseA: number | null;
  /** At the winding, or in the lead of a DC source. Null when a short of the winding blows the primary fuse by itself. */
  secondaryFuseA: number | null;
  /** A bleeder that makes it safe in time, ohm; null when none is needed. */
  bleederOhm: number | null;
  points: CheckPoint[];
}
