import type { Unit } from '@/core/quantity/parse';
import type { RuleId } from '@/core/judge/rules';

/** What is checked in every build: a rule of the judge, by its limit. */
export interface Check {
  id: RuleId;
  title: string;
  unit: Unit;
}

export interface Build {
  /** Drawn factors, in the order of the spreads. */
  factors: number[];
  /** Distance to the limit of each check, in its unit, negative beyond; null where a build found no answer. */
  margins: number[] | null;
}

/** What many builds come to in one check. */
export interface CheckSummary {
  check: Check;
  /** Share of the builds that pass it. */
  pass: number;
  least: number;
  median: number;
  most: number;
  /** Builds in each of equally wide steps from least to most. */
  histogram: number[];
  /** What moves this margin, the strongest first, with its share of the variance and the end that hurts. */
  causes: { label: string; share: number; hurts: 'low' | 'high' }[];
}

export interface ToleranceSummary {
  seed: number;
  builds: number;
  unsolved: number;
  /** Share of the builds that pass everything. */
  pass: number;
  checks: CheckSummary[];
}

/** How sure a share of builds is: half width of its 95 % interval. */
export function shareError(share: number, builds: number): number {
  return 1.96 * Math.sqrt(Math.max(share * (1 - share), 1 / builds) / builds);
}
