import type { Design } from '@/core/design/design';
import type { EarlyFailure } from '@/core/judge/early';
import type { StationId, Verdict } from '@/core/judge/verdict';
import type { Study } from '@/core/study/study';

/** Why a part was chosen. */
export interface Reason {
  station: StationId;
  text: string;
}

export interface Proposal {
  design: Design;
  verdicts: Verdict[];
  /** One line a station: what was chosen and why. */
  reasons: Reason[];
  costEur: number;
  /** What was not tried, and why: a sentence each. */
  leftOut: string[];
  /** How many complete sets were simulated and judged on the way. */
  simulated: number;
  /** Empty when every verdict passes; else why nothing here does. */
  shortfall: string;
}

/** A complete set, simulated and judged. */
export interface Candidate {
  design: Design;
  study: Study;
  verdicts: Verdict[];
  costEur: number;
}

/** A set that was given up before it was complete, and why. */
export interface GivenUp {
  design: Design;
  why: Pick<EarlyFailure, 'id' | 'title' | 'left'>;
}
