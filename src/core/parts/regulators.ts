import { adjustableModel } from './regulators/adjustable';
import { benchModel } from './regulators/bench';
import { errorTransistorModel } from './regulators/error-transistor';
import { fixedModel } from './regulators/fixed';
import { followerModel } from './regulators/follower';
import { lowDropoutModel } from './regulators/low-dropout';
import type { RegulatorModel } from './regulators/model';

/** Every family, by its name in files, in the order they are offered. A new one is a file with its data and its model, and its line here. */
const MODELS = {
  fixed: fixedModel,
  adjustable: adjustableModel,
  'low-dropout': lowDropoutModel,
  follower: followerModel,
  'error-transistor': errorTransistorModel,
  bench: benchModel,
} as const;

export type RegulatorKind = keyof typeof MODELS;
export const REGULATOR_KINDS = Object.keys(MODELS) as RegulatorKind[];

/** A regulator of any family. */
export type SomeRegulator = Parameters<(typeof MODELS)[RegulatorKind]>[0];

/** What the rest of the program sees of a regulator; null without one. */
export function regulatorModel(regulator: SomeRegulator): RegulatorModel;
export function regulatorModel(regulator: SomeRegulator | { kind: 'none' }): RegulatorModel | null;
export function regulatorModel(regulator: SomeRegulator | { kind: 'none' }): RegulatorModel | null {
  if (regulator.kind === 'none') return null;
  // Each model takes its own kind: the register says so, the compiler cannot follow it.
  return (MODELS[regulator.kind] as (r: SomeRegulator) => RegulatorModel)(regulator);
}
