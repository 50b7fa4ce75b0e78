import type { Unit } from '@/core/quantity/parse';
import type { Figure } from '@/core/study/figure';

export type PointId =
  | 'mains'
  | 'secondary-open'
  | 'reservoir-idle'
  | 'output-idle'
  | 'reservoir-light'
  | 'output-light'
  | 'reservoir-loaded'
  | 'reservoir-ripple'
  | 'ripple-meter'
  | 'load-current'
  | 'output-loaded'
  | 'output-minus'
  | 'sink-warm'
  | `further-${number}`;

/** One thing to measure while the supply is brought up stage by stage. */
export interface TestPoint {
  id: PointId;
  stage: string;
  label: string;
  /** Where the probes go and how the meter is set. */
  how: string;
  unit: Unit;
  expected: Figure;
  low: number;
  high: number;
  /** Stands before the step when something there can hurt. */
  caution?: string;
  ifLow: string;
  ifHigh: string;
}

/** The expected figure of a test point. */
export function figure(
  id: string,
  label: string,
  value: number,
  unit: Unit,
  origin: Figure['origin'],
  expression: string,
  inputs: Figure['inputs'],
  source: string,
  assumes: string[],
): Figure {
  return { id, label, value, unit, origin, expression, inputs, source, assumes };
}
