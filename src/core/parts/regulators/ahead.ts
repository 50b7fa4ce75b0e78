import { REGULATOR_JUNCTION_MAX_C, regulatorSize, type RegulatorSizeId } from './fixed';
import { passTransistor } from '../transistor';
import { fixedModel } from './fixed';
import { fallingRejection } from './model';

/** What stands between the reservoir and the regulator, to share its heat and its ripple; nothing as a rule. */
export type PreRegulator =
  | { kind: 'none' }
  | { kind: 'fixed'; size: RegulatorSizeId; outputV: number }
  /** A pass transistor that follows the output at a fixed distance above it. */
  | { kind: 'tracking'; aboveV: number; transistor: string };

/** A pre-regulator as the rest of the program sees it. Typical of its class. */
export interface AheadModel {
  name: string;
  /** What it holds the regulator's input at while the output stands at so many volts, V. */
  holdsV: (outputV: number) => number;
  dropoutV: number;
  dropoutOhm: number;
  ratedA: number;
  quiescentA: number;
  inputMaxV: number;
  inputLimitSource: string;
  rejectionDb: (hz: number) => number;
  takesSink: boolean;
  jcKPerW: number;
  jaKPerW: number;
  junctionMaxC: number;
  priceEur: number;
}

export function aheadModel(pre: PreRegulator): AheadModel | null {
  if (pre.kind === 'none') return null;
  if (pre.kind === 'fixed') {
    const size = regulatorSize(pre.size);
    const { name, dropoutV, dropoutOhm, quiescentA, inputMaxV, inputLimitSource, rejectionDb, priceEur } =
      fixedModel(pre);
    return {
      name,
      holdsV: () => pre.outputV,
      dropoutV,
      dropoutOhm,
      ratedA: size.ratedA,
      quiescentA,
      inputMaxV,
      inputLimitSource,
      rejectionDb,
      takesSink: size.takesSink,
      jcKPerW: size.thetaJcKPerW,
      jaKPerW: size.thetaJaKPerW,
      junctionMaxC: REGULATOR_JUNCTION_MAX_C,
      priceEur,
    };
  }
  const t = passTransistor(pre.transistor);
  return {
    name: `tracking ${t.name.split(',')[0]!.split(' ')[0]!}`,
    holdsV: (outputV) => outputV + pre.aboveV,
    dropoutV: t.vbe + 0.3,
    dropoutOhm: 0.1,
    ratedA: 0.7 * t.maxA,
    quiescentA: 0.004,
    inputMaxV: t.maxV,
    inputLimitSource: `Collector-emitter maximum of the ${t.name.split(',')[0]}.`,
    rejectionDb: fallingRejection(35, 10000),
    takesSink: true,
    jcKPerW: t.jcKPerW,
    jaKPerW: t.jaKPerW,
    junctionMaxC: t.junctionMaxC,
    priceEur: t.priceEur + 0.6,
  };
}

/** Least volts between its input and what it holds at a current, V. */
export function aheadDropout(model: AheadModel, amps: number): number {
  return model.dropoutV + model.dropoutOhm * amps;
}
