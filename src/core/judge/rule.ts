import type { Condition } from '@/core/circuit/condition';
import type { Adjust } from '@/core/circuit/network-of';
import type { Design, Edit } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import type { Output } from '@/core/design/outputs';
import type { RegulatorModel } from '@/core/parts/regulators/model';
import type { Figure } from '@/core/study/figure';
import type { OperatingPoint } from '@/core/study/point';
import type { Study } from '@/core/study/study';
import type { StationId } from '@/core/picture/station';

export { FULL, LASTING, UNLOADED } from '@/core/study/occasion';

/** What a rule is shown: one circumstance, seen from one rail or output. */
export interface Look {
  study: Study;
  /** The design as if the output looked at were its main one. */
  design: Design;
  output: Output;
  /** Its regulator, as a build has it where one was drawn; null without one. */
  model: RegulatorModel | null;
  /** The point solved, its own members those of the rail or output looked at. Nominal full load for what happens once. */
  at: OperatingPoint;
  adjust: Adjust;
}

/** What a rule finds: a figure against a limit. The words are only found for the circumstance that decides. */
export interface Finding {
  value: number;
  limit: number;
  relation: 'at most' | 'at least';
  /** The distance from the limit a careful builder keeps, in the figure's unit, more than 0. */
  wanted: number;
  /** The figures of which `value` is the worst, where it is the worst of two that each change smoothly. */
  worstOf?: readonly [number, number];
  /** Where `value` bends at an edge, how far it is from there: it changes smoothly across, and is negative on one side. */
  edge?: number;
  /** Beyond its limit it harms nothing: it protects itself, or only a finger minds. */
  caution?: boolean;
  tell(): Telling;
}

/** The words of a finding. */
export interface Telling {
  figure: Omit<Figure, 'value'>;
  limitSource: string;
  /** One sentence with the numbers. */
  sentence: string;
  /** Why it matters. */
  reason: string;
  /** What it is called, when not by the rule's own title. */
  title?: string;
  /** Where it is looked at, when not at the rule's own station. */
  station?: StationId;
}

/** One file each in ./rules, with everything the judge, the searches and the screens need to know of it. */
export interface Rule {
  title: string;
  station: StationId;
  /** What it looks at: the whole supply, each rail, or each output. */
  scope: 'supply' | 'rail' | 'output';
  /** The circumstances it has a meaning in; 'once' for what hangs on none of them. */
  occasion: ((condition: Condition) => boolean) | 'once';
  /** Parts whose choice it decides. */
  decides: readonly PartRole[];
  /** What it finds follows the sink, by a temperature or by what that leaves of a limit. Left out: another sink is all one to it. */
  followsSink?: true;
  /** How early a search may ask it, from 1 on: the rules of one number share their circumstances. Left out: with all others. */
  early?: number;
  /** Null when it has no meaning here. */
  find(look: Look): Finding | null;
  /** Edits of the design it is shown that could cure it. They are simulated before anybody sees them. */
  cures(design: Design): Edit[];
}
