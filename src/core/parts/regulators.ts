import { adjustableModel, type AdjustableRegulator } from './regulators/adjustable';
import { benchModel, type BenchRegulator } from './regulators/bench';
import { errorTransistorModel, type ErrorTransistorRegulator } from './regulators/error-transistor';
import { fixedModel, type FixedRegulator } from './regulators/fixed';
import { followerModel, type FollowerRegulator } from './regulators/follower';
import { lowDropoutModel, type LowDropoutRegulator } from './regulators/low-dropout';
import type { RegulatorModel } from './regulators/model';

/** A regulator of any family. A new family is one file with its data and its model, and its two lines here. */
export type SomeRegulator =
  | FixedRegulator
  | AdjustableRegulator
  | LowDropoutRegulator
  | FollowerRegulator
  | ErrorTransistorRegulator
  | BenchRegulator;

export const REGULATOR_KINDS = ['fixed', 'adjustable', 'low-dropout', 'follower', 'error-transistor', 'bench'] as const;

/** What the rest of the program sees of a regulator; null without one. */
export function regulatorModel(regulator: SomeRegulator): RegulatorModel;
export function regulatorModel(regulator: SomeRegulator | { kind: 'none' }): RegulatorModel | null;
export function regulatorModel(regulator: SomeRegulator | { kind: 'none' }): RegulatorModel | null {
  switch (regulator.kind) {
    case 'none':
      return null;
    case 'fixed':
      return fixedModel(regulator);
    case 'adjustable':
      return adjustableModel(regulator);
    case 'low-dropout':
      return lowDropoutModel(regulator);
    case 'follower':
      return followerModel(regulator);
    case 'error-transistor':
      return errorTransistorModel(regulator);
    case 'bench':
      return benchModel(regulator);
  }
}
