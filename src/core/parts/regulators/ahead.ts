import { REGULATOR_JUNCTION_MAX_C, regulatorSize, type RegulatorSizeId } from './fixed';
import { passTransistor, safeCurrent } from '../transistor';
import { fixedModel } from './fixed';
import { fallingRejection, type Drain, type WiredPart } from './model';
import { shortName, wiredPass } from './pass-stage';

/** What stands between the reservoir and the regulator, to share its heat and its ripple; nothing as a rule. */
export type PreRegulator =
  | { kind: 'none' }
  | { kind: 'fixed'; size: RegulatorSizeId; outputV: number }
  /** A pass transistor that follows the output at a fixed distance above it. */
  | { kind: 'tracking'; aboveV: number; transistor: string }
  /** A follower behind a zener, that holds one voltage whatever the output is set to. */
  | { kind: 'zener'; zenerV: number; seriesOhm: number; transistor: string };

/** A pre-regulator as the rest of the program sees it. Typical of its class. */
export interface AheadModel {
  name: string;
  /** What it holds the regulator's input at while the output stands at so many volts, V. */
  holdsV: (outputV: number) => number;
  dropoutV: number;
  dropoutOhm: number;
  ratedA: number;
  quiescentA: number;
  /** A branch of its own from its input to ground; null for none. */
  drain: Drain | null;
  /** Largest lasting current at a voltage across it, case at 25 °C, A; null where it limits itself. */
  safeA: ((volts: number) => number) | null;
  inputMaxV: number;
  inputLimitSource: string;
  rejectionDb: (hz: number) => number;
  takesSink: boolean;
  jcKPerW: number;
  jaKPerW: number;
  junctionMaxC: number;
  priceEur: number;
  /** Everything it is made of, as it is joined; what it follows, where it does, is 'follows'. */
  wired: readonly WiredPart[];
}

/** What a tracking one draws for its zener, A. */
const TRACKING_A = 0.004;
/** Typical, in hobby quantities. */
const INPUT_CAPACITOR_EUR = 0.1;
const ONE = { passes: 1, emitterOhm: 0 };

export function aheadModel(pre: PreRegulator): AheadModel | null {
  if (pre.kind === 'none') return null;
  if (pre.kind === 'fixed') {
    const size = regulatorSize(pre.size);
    const { name, dropoutV, dropoutOhm, quiescentA, inputMaxV, inputLimitSource, rejectionDb, priceEur, wired } =
      fixedModel(pre);
    return {
      name,
      holdsV: () => pre.outputV,
      dropoutV,
      dropoutOhm,
      ratedA: size.ratedA,
      quiescentA,
      drain: null,
      safeA: null,
      inputMaxV,
      inputLimitSource,
      rejectionDb,
      takesSink: size.takesSink,
      jcKPerW: size.thetaJcKPerW,
      jaKPerW: size.thetaJaKPerW,
      junctionMaxC: REGULATOR_JUNCTION_MAX_C,
      priceEur: priceEur + INPUT_CAPACITOR_EUR,
      // At its output stands the regulator behind it with a capacitor of its own; its input wants one.
      wired: wired.flatMap((w): WiredPart[] =>
        w.kind === 'regulator'
          ? [{ ...w, what: 'shares volts and heat' }]
          : w.pins['plus'] === 'in'
            ? [{ ...w, billed: undefined }]
            : [],
      ),
    };
  }
  const t = passTransistor(pre.transistor);
  const common = {
    ratedA: 0.7 * t.maxA,
    inputMaxV: t.maxV,
    inputLimitSource: `Collector-emitter maximum of the ${shortName(t)}.`,
    safeA: (volts: number) => safeCurrent(t, volts),
    takesSink: true,
    jcKPerW: t.jcKPerW,
    jaKPerW: t.jaKPerW,
    junctionMaxC: t.junctionMaxC,
    priceEur: t.priceEur + 0.6,
  };
  if (pre.kind === 'zener') {
    return {
      ...common,
      name: `${pre.zenerV} V zener and ${shortName(t)}`,
      holdsV: () => pre.zenerV - t.vbe,
      dropoutV: t.vbe + 0.003 * pre.seriesOhm,
      dropoutOhm: pre.seriesOhm / t.gain,
      quiescentA: 0,
      drain: { fromV: pre.zenerV, ohm: pre.seriesOhm },
      wired: [
        {
          kind: 'resistor',
          what: 'feeds the zener and the base',
          value: pre.seriesOhm,
          unit: 'ohm',
          pins: { a: 'in', b: 'base' },
        },
        {
          kind: 'zener',
          what: 'the volts it holds',
          value: pre.zenerV,
          unit: 'V',
          pins: { anode: 'ground', cathode: 'base' },
        },
        ...wiredPass(t, ONE, 'base', 'out'),
      ],
      rejectionDb: fallingRejection(20 * Math.log10(1 + pre.seriesOhm / 8), 20000),
    };
  }
  return {
    ...common,
    name: `tracking ${shortName(t)}`,
    holdsV: (outputV) => outputV + pre.aboveV,
    dropoutV: t.vbe + 0.3,
    dropoutOhm: 0.1,
    quiescentA: TRACKING_A,
    drain: null,
    wired: [
      {
        kind: 'resistor',
        what: `feeds zener and base, for ${1000 * TRACKING_A} mA`,
        value: null,
        unit: 'ohm',
        pins: { a: 'in', b: 'base' },
      },
      {
        kind: 'zener',
        what: 'how far above the output it stays',
        value: pre.aboveV + t.vbe,
        unit: 'V',
        pins: { anode: 'follows', cathode: 'base' },
      },
      ...wiredPass(t, ONE, 'base', 'out'),
    ],
    rejectionDb: fallingRejection(35, 10000),
  };
}

/** Least volts between its input and what it holds at a current, V. */
export function aheadDropout(model: AheadModel, amps: number): number {
  return model.dropoutV + model.dropoutOhm * amps;
}
