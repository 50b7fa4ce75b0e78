import type { ConditionId } from '@/core/circuit/condition';
import type { Edit, OutputId } from '@/core/design/design';
import type { Figure } from '@/core/study/figure';
import type { RuleId } from './rules';
import type { StationId } from '@/core/picture/station';

export type { StationId } from '@/core/picture/station';

/**
 * Beyond its limit; inside, with less than the wanted margin left; inside with all of it; and a caution: beyond a limit
 * that harms nothing, because the part protects itself or only a finger minds. A caution never counts as a margin.
 */
export type State = 'fails' | 'tight' | 'holds' | 'caution';

/** The order of the rail: what fails, what is tight, what holds; cautions stand apart, last. */
export const RANK: Readonly<Record<State, number>> = { fails: 0, tight: 1, holds: 2, caution: 3 };

export interface Verdict {
  id: RuleId;
  title: string;
  station: StationId;
  state: State;
  figure: Figure;
  limit: number;
  /** Where the limit comes from. */
  limitSource: string;
  relation: 'at most' | 'at least';
  /** The distance from the limit a careful builder keeps, in the figure's unit, more than 0. */
  wantedMargin: number;
  /** One sentence with the numbers. */
  sentence: string;
  /** Why it matters. */
  reason: string;
  /** Distance to the limit in the figure's unit, negative beyond it. */
  margin: number;
  /** The margin as a share of the wanted one: below 0 fails, below 1 is tight. What the rail is ranked by. */
  left: number;
  /** Whether it never counts as a margin, beyond its limit or not. */
  caution: boolean;
  /** The circumstance that decides it; null for what happens once. */
  at: ConditionId | null;
  /** The output that decides it; null where it concerns the whole supply. */
  output: OutputId | null;
}

export interface Effect {
  verdict: RuleId;
  title: string;
  before: number;
  after: number;
  unit: Figure['unit'];
  stateBefore: State;
  stateAfter: State;
}

/** A cure that was simulated. */
export interface Fix {
  edit: Edit;
  /** The verdict it is offered for. */
  self: Effect;
  /** Other verdicts it moves into another state. */
  others: Effect[];
  failsAfter: number;
  costChangeEur: number;
}
