import type { Condition, ConditionId } from '@/core/circuit/condition';
import type { Network, Winding } from '@/core/circuit/network';
import type { Design } from '@/core/design/design';
import { outputsOf } from '@/core/design/outputs';
import { arrangementFacts } from '@/core/design/source';
import type { RailResult, Solution } from '@/core/solve/solution';
import type { Watts } from './losses';
import { neededOf, type OutputPoint, type SmallHeat } from './output-point';
import type { Warmth } from './warmth';

/** One rail of a solved design with the main output on it (or its twin), and what the network alone does not know. */
export interface RailPoint extends OutputPoint {
  /** The rail at the point its load or regulator hangs on, in magnitudes. */
  rail: RailResult;
  /** Node of the reservoir, V: all stacked capacitors of a multiplier together. */
  reservoir: { meanV: number; minV: number; maxV: number };
  /** What the hardest used can of the reservoir carries: ripple current and the highest voltage across it. Null without one. */
  can: { rmsA: number; maxV: number } | null;
  /** Samples over one cycle, V. */
  wave: { railV: number[]; outputV: number[] };
}

/** A rail with all that is drawn of it: samples of the rectifier's output, the reservoir, V, and of the rectifier's amperes besides. */
export interface DrawnRail extends RailPoint {
  wave: RailPoint['wave'] & { inputV: number[]; reservoirV: number[]; rectifierA: number[] };
}

/** A design solved under one condition. Its own members are those of the rail looked at; `rails` has all of them. */
export interface OperatingPoint extends RailPoint {
  condition: ConditionId;
  at: Condition;
  network: Network;
  /** The winding that feeds the rectifier, or each half of it. */
  winding: Winding;
  solution: Solution;
  watts: Watts;
  rails: RailPoint[];
  /** The further outputs, in the design's order. */
  outputs: OutputPoint[];
  /** What the plus rail feeds besides outputs, and what that burns. */
  extras: SmallHeat[];
  /** Junction the regulator's dropout was taken at, °C; null where it does not matter. */
  junctionC: number | null;
  /** What copper and diodes were solved at. */
  warmth: Warmth;
  /** False where heat and the circuit chase each other without end. */
  settled: boolean;
}

export const WAVE_SAMPLES = 96;

/** A point with all that is drawn of it. */
export interface DrawnPoint extends OperatingPoint {
  wave: DrawnRail['wave'];
  rails: DrawnRail[];
  /** Highest voltage at the winding's terminals while the diodes conduct, V. */
  terminalPeakV: number;
}

/** The same point seen from another of its rails. */
export function onRail<P extends OperatingPoint>(point: P, rail: number): P {
  return { ...point, ...point.rails[rail]! };
}

/** The reservoir voltage the main regulator needs at its input to hold its output, V; null without one. */
export function neededV(design: Design): number | null {
  const needs = outputsOf(design)
    .filter((o) => o.place < 0)
    .map((o) => neededOf(design, o));
  return needs[0] === null ? null : Math.max(...needs.map((v) => v!));
}

/** Frequency of the ripple of a rail, Hz. */
export function rippleHz(design: Design, rail = 0): number {
  return design.mains.frequencyHz * (arrangementFacts(design).fullWave[rail] ? 2 : 1);
}
