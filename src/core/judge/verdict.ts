import type { Design, Edit } from '@/core/design/design';
import type { Figure } from '@/core/study/figure';
import type { Study } from '@/core/study/study';

/** 'before' and 'after' are what lies between rectifier and reservoir, and between reservoir and load. */
export type StationId = 'mains' | 'winding' | 'rectifier' | 'before' | 'reservoir' | 'after' | 'regulator' | 'load';

export type State = 'fails' | 'tight' | 'holds';

/** What a rule finds in a study: a figure against a limit. */
export interface Finding {
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
  /** What it is called, when not by the rule's own title. */
  title?: string;
  /** Where it is looked at, when not at the rule's own station. */
  station?: StationId;
}

/** One file each in ./rules. Adding a rule is adding a file and its name in ./rules.ts. */
export interface Rule {
  id: string;
  title: string;
  station: StationId;
  /** A caution only: it never fails a design, it warns. */
  advisory?: boolean;
  /** Null when the rule has no meaning for this design. */
  find(study: Study): Finding | null;
  /** Edits that could cure it. They are simulated before anybody sees them. */
  cures(design: Design): Edit[];
}

export interface Verdict extends Omit<Finding, 'station' | 'title'> {
  id: string;
  title: string;
  station: StationId;
  state: State;
  /** Distance to the limit in the figure's unit, negative beyond it. */
  margin: number;
  /** The margin as a share of the wanted one: below 0 fails, below 1 is tight. What the rail is ranked by. */
  left: number;
}

export interface Effect {
  verdict: string;
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
