import { passTransistor } from '../transistor';
import {
  failsToReference,
  always,
  fallingRejection,
  wiredCapacitor,
  type RegulatorModel,
  type SmallPart,
  type WiredPart,
} from './model';
import { passDevice, sharing, shortName, wiredLimit, wiredPass, type PassStage } from './pass-stage';

export interface ErrorTransistorRegulator extends PassStage {
  kind: 'error-transistor';
  zenerV: number;
  /** Divider from the output: upper part, pot (null for none), lower part, ohm. */
  upperOhm: number;
  potOhm: number | null;
  lowerOhm: number;
  transistor: string;
  /** Current gain of the pass transistor at hand; null for the least of its class. */
  gain: number | null;
  /** From the input to the bases, ohm. */
  driveOhm: number;
  /** Sense resistor of the current limit, ohm; null for none. */
  limitOhm: number | null;
}

export const VBE = 0.65;
/** Gain of the driver before the pass transistor: the three-transistor arrangement. */
const DRIVER_GAIN = 80;
const LEAST_DRIVE_A = 0.001;
/** What a small signal transistor in plastic bears for long, W. */
const ERROR_TRANSISTOR_W = 0.5;

const OUTPUT_CAPACITOR: SmallPart = {
  what: 'Capacitor at the output',
  value: 100e-6,
  unit: 'F',
  why: 'keeps it steady when the load jumps',
};

/** The divider from the output to ground, the error transistor's base at the pot's wiper or where the two meet. */
function divider({ upperOhm, potOhm, lowerOhm }: ErrorTransistorRegulator): WiredPart[] {
  const high = potOhm === null ? 'tap' : 'pot high';
  const low = potOhm === null ? 'tap' : 'pot low';
  const resistor = (what: string, value: number, a: string, b: string): WiredPart[] =>
    value > 0 ? [{ kind: 'resistor', what, value, unit: 'ohm', pins: { a, b } }] : [];
  return [
    ...resistor('sets the output, upper', upperOhm, 'out', high),
    ...(potOhm === null
      ? []
      : [
          {
            kind: 'pot' as const,
            what: 'turns the output',
            value: potOhm,
            unit: 'ohm' as const,
            pins: { a: upperOhm > 0 ? high : 'out', b: lowerOhm > 0 ? low : 'ground', wiper: 'tap' },
          },
        ]),
    ...resistor('sets the output, lower', lowerOhm, low, 'ground'),
  ];
}

/** Output of a divider with the pot's wiper at a share of its travel (0: lowest output), V. */
export function errorTransistorOutput(r: ErrorTransistorRegulator, travel: number): number {
  const pot = r.potOhm ?? 0;
  const above = r.upperOhm + travel * pot;
  const below = r.lowerOhm + (1 - travel) * pot;
  return (r.zenerV + VBE) * (1 + above / below);
}

/** What stands above the wiper in all for an output at the top of the pot, ohm. */
export function errorTransistorUpper(zenerV: number, lowerOhm: number, outputV: number): number {
  return lowerOhm * (outputV / (zenerV + VBE) - 1);
}

/** Zener, error transistor, driver and pass transistor: Vout = (Vz + Vbe)·(1 + Ra/Rb) over the pot's travel. */
export function errorTransistorModel(r: ErrorTransistorRegulator): RegulatorModel {
  const t = passTransistor(r.transistor);
  const outputV = errorTransistorOutput(r, 1);
  const lowestV = errorTransistorOutput(r, 0);
  const own = r.gain ?? t.gain;
  const gain = t.gain >= 500 ? own : own * DRIVER_GAIN;
  const junctions = t.gain >= 500 ? t.vbe : t.vbe + VBE;
  const senseOhm = r.limitOhm ?? 0;
  const emitterOhm = r.emitterOhm / r.passes;
  const limitA = r.limitOhm === null ? t.maxA * r.passes : VBE / r.limitOhm;
  return {
    family: 'zener, error and pass transistor',
    name: `discrete, ${r.passes > 1 ? `${r.passes} × ` : ''}${shortName(t)}`,
    outputV,
    lowestV,
    spread: 0.06,
    spreadSource: 'Zener ±5 % and the divider; trimmed by the pot where there is one.',
    dropoutV: junctions + r.driveOhm * LEAST_DRIVE_A,
    dropoutOhm: r.driveOhm / gain + senseOhm + emitterOhm,
    dropoutVPerK: -0.004,
    ratedA: Math.min(0.7 * t.maxA * sharing(r, limitA), limitA),
    limitA,
    shortA: always(limitA),
    limitsItself: false,
    failsTo: failsToReference(r.zenerV + VBE),
    quiescentA: 0.005,
    drains: (v) => [{ fromV: v + junctions, ohm: r.driveOhm }],
    passShare: 1,
    outputOhm: 0,
    minimumLoadA: 0,
    minimumTypicalA: 0,
    dividerA: 0,
    inputMaxV: t.maxV,
    inputLimitSource: `Collector-emitter maximum of the ${shortName(t)}; a short puts the whole input across it.`,
    rejectionDb: fallingRejection(50, 5000),
    noiseV: 1e-4,
    pass: passDevice(t, r, limitA),
    burners: [
      {
        label: 'drive resistor',
        watts: ({ inputV, outputV: v }) => Math.max(0, inputV - v - junctions) ** 2 / r.driveOhm,
        bearsW: null,
      },
      {
        label: 'error transistor',
        watts: ({ inputV, outputV: v, amps }) =>
          Math.max(0, v + junctions - r.zenerV) *
          Math.max(0, Math.max(0, inputV - v - junctions) / r.driveOhm - amps / gain),
        bearsW: ERROR_TRANSISTOR_W,
      },
      ...(r.limitOhm === null
        ? []
        : [{ label: 'sense resistor', watts: ({ amps }: { amps: number }) => amps * amps * senseOhm, bearsW: null }]),
      ...(emitterOhm === 0
        ? []
        : [
            {
              label: 'emitter resistors',
              watts: ({ amps }: { amps: number }) => amps * amps * emitterOhm,
              bearsW: null,
            },
          ]),
    ],
    capacitors: '100 µF at the output; a few nanofarads at the error transistor keep it from singing.',
    small: [
      { what: 'Zener', value: r.zenerV, unit: 'V', why: 'the reference' },
      ...(r.limitOhm === null
        ? []
        : [
            {
              what: 'Small transistor and sense resistor',
              value: r.limitOhm,
              unit: 'ohm' as const,
              why: 'take the drive away at the limit',
            },
          ]),
      OUTPUT_CAPACITOR,
    ],
    wired: [
      {
        kind: 'resistor',
        what: 'drives the bases',
        value: r.driveOhm,
        unit: 'ohm',
        pins: { a: 'in', b: 'drive' },
        billed: 'drive resistor',
      },
      {
        kind: 'transistor',
        what: 'compares the output with the reference',
        name: 'small NPN',
        value: null,
        unit: '',
        pins: { base: 'tap', collector: 'drive', emitter: 'reference' },
        billed: 'error transistor',
      },
      {
        kind: 'zener',
        what: 'the reference',
        value: r.zenerV,
        unit: 'V',
        pins: { anode: 'ground', cathode: 'reference' },
        billed: 'Zener',
      },
      ...(t.gain >= 500
        ? []
        : [
            {
              kind: 'transistor' as const,
              what: 'drives the pass transistor',
              name: 'small NPN',
              value: null,
              unit: '' as const,
              pins: { base: 'drive', collector: 'in', emitter: 'base' },
            },
          ]),
      ...wiredPass(t, r, t.gain >= 500 ? 'drive' : 'base', r.limitOhm === null ? 'out' : 'sense'),
      ...(r.limitOhm === null ? [] : wiredLimit(r.limitOhm, 'drive')),
      ...divider(r),
      wiredCapacitor(OUTPUT_CAPACITOR, 'out', 'ground'),
    ],
    settings: [
      {
        label: 'Highest setting',
        value: outputV,
        unit: 'V',
        expression: '(zener + 0.65 V)·(1 + Ra/Rb), pot at one end',
        inputs: [
          { label: 'Ra', value: r.upperOhm + (r.potOhm ?? 0), unit: 'ohm' },
          { label: 'Rb', value: r.lowerOhm, unit: 'ohm' },
        ],
      },
      {
        label: 'Lowest setting',
        value: lowestV,
        unit: 'V',
        expression: '(zener + 0.65 V)·(1 + Ra/Rb), pot at the other',
        inputs: [
          { label: 'Ra', value: r.upperOhm, unit: 'ohm' },
          { label: 'Rb', value: r.lowerOhm + (r.potOhm ?? 0), unit: 'ohm' },
        ],
      },
      {
        label: 'Limit',
        value: limitA,
        unit: 'A',
        expression: r.limitOhm === null ? 'none: what the transistor bears before it dies' : '0.65 V / sense resistor',
        inputs: r.limitOhm === null ? [] : [{ label: 'sense', value: r.limitOhm, unit: 'ohm' }],
      },
    ],
    priceEur: t.priceEur * r.passes + 1.2,
  };
}
