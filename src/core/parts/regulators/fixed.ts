import {
  FAILS_ANYWAY,
  always,
  fallingRejection,
  pinCapacitors,
  REVERSE_DIODE,
  wiredCapacitor,
  wiredDiode,
  type RegulatorModel,
} from './model';

/** Fixed three-terminal regulators, the positive 78 family in its four current sizes. Typical values for the class. */

export type RegulatorSizeId = '78L' | '78M' | '78' | '78S';

export interface RegulatorSize {
  id: RegulatorSizeId;
  /** Name as printed on the part with the output put in. */
  partNumber(outputV: number): string;
  ratedA: number;
  outputsV: readonly number[];
  dropoutV: number;
  quiescentA: number;
  /** Thermal resistance junction to case, and junction to free air without a sink, K/W. */
  thetaJcKPerW: number;
  thetaJaKPerW: number;
  /** Whether a heatsink can be screwed on. */
  takesSink: boolean;
  package: string;
  tab: string;
  inputMaxV(outputV: number): number;
  priceEur: number;
}

const two = (v: number) => (v === 7.5 ? '75' : String(v).padStart(2, '0'));

export const REGULATOR_SIZES: readonly RegulatorSize[] = [
  {
    id: '78L',
    partNumber: (v) => `78L${two(v)}`,
    ratedA: 0.1,
    outputsV: [5, 6, 8, 9, 10, 12, 15, 18, 24],
    // 1.7 V at 40 mA.
    dropoutV: 2.15,
    quiescentA: 0.004,
    thetaJcKPerW: 60,
    thetaJaKPerW: 180,
    takesSink: false,
    package: 'TO-92',
    tab: 'no tab',
    inputMaxV: (v) => (v >= 24 ? 40 : v >= 12 ? 35 : 30),
    priceEur: 0.3,
  },
  {
    id: '78M',
    partNumber: (v) => `78M${two(v)}`,
    ratedA: 0.5,
    outputsV: [5, 6, 8, 9, 12, 15, 18, 20, 24],
    dropoutV: 2,
    quiescentA: 0.006,
    thetaJcKPerW: 5,
    thetaJaKPerW: 60,
    takesSink: true,
    package: 'TO-220',
    tab: 'tab is ground',
    inputMaxV: (v) => (v >= 20 ? 40 : 35),
    priceEur: 0.45,
  },
  {
    id: '78',
    partNumber: (v) => `78${two(v)}`,
    ratedA: 1,
    outputsV: [5, 6, 8, 9, 10, 12, 15, 18, 24],
    dropoutV: 2,
    quiescentA: 0.006,
    thetaJcKPerW: 4,
    thetaJaKPerW: 55,
    takesSink: true,
    package: 'TO-220',
    tab: 'tab is ground',
    inputMaxV: (v) => (v >= 24 ? 40 : 35),
    priceEur: 0.5,
  },
  {
    id: '78S',
    partNumber: (v) => `78S${two(v)}`,
    ratedA: 2,
    outputsV: [5, 7.5, 9, 10, 12, 15, 18, 24],
    dropoutV: 2.2,
    quiescentA: 0.008,
    thetaJcKPerW: 3,
    thetaJaKPerW: 50,
    takesSink: true,
    package: 'TO-220',
    tab: 'tab is ground',
    inputMaxV: (v) => (v >= 24 ? 40 : 35),
    priceEur: 0.9,
  },
];

/** @throws RangeError for an id that is not a size */
export function regulatorSize(id: RegulatorSizeId): RegulatorSize {
  const found = REGULATOR_SIZES.find((r) => r.id === id);
  if (!found) throw new RangeError(`no regulator size '${id}'`);
  return found;
}

/** Output accuracy of the family over line, load and spread, as a fraction. */
export const FIXED_OUTPUT_TOLERANCE = 0.04;

/** Highest junction temperature, °C. */
export const REGULATOR_JUNCTION_MAX_C = 125;

/** Ripple rejection at 100/120 Hz, dB: 78 dB at 5 V falling to 56 dB at 24 V with the logarithm of the output. */
export function rippleRejectionDb(outputV: number): number {
  return 78 - (22 * Math.log(outputV / 5)) / Math.log(24 / 5);
}

/** All outputs any size of the family is made for, V. */
export const FIXED_OUTPUTS_V: readonly number[] = [...new Set(REGULATOR_SIZES.flatMap((r) => r.outputsV))].sort(
  (a, b) => a - b,
);

export interface FixedRegulator {
  kind: 'fixed';
  size: RegulatorSizeId;
  outputV: number;
}

/** 330 nF and 100 nF; the negative twin, whose loop is faster, wants 2.2 µF and 1 µF. */
const AT_PINS = pinCapacitors(330e-9, 100e-9, { inputF: 2.2e-6, outputF: 1e-6 });

/** What of the dropout at rated current is left without load: two junctions and a saturated transistor. */
const IDLE_SHARE = 0.65;

/** A fixed three-terminal regulator of the 78 family; its negative twin has other pins and its tab on the input. */
export function fixedModel({ size: id, outputV }: FixedRegulator): RegulatorModel {
  const size = regulatorSize(id);
  return {
    family: 'fixed three-terminal',
    name: size.partNumber(outputV),
    outputV,
    lowestV: outputV,
    spread: FIXED_OUTPUT_TOLERANCE,
    spreadSource: 'Output accuracy of the 78 family, ±4 % over line, load and spread.',
    dropoutV: IDLE_SHARE * size.dropoutV,
    dropoutOhm: ((1 - IDLE_SHARE) * size.dropoutV) / size.ratedA,
    dropoutVPerK: -0.002,
    ratedA: size.ratedA,
    limitA: 2.2 * size.ratedA,
    shortA: always(0.75 * size.ratedA),
    limitsItself: true,
    failsTo: FAILS_ANYWAY,
    quiescentA: size.quiescentA,
    drains: () => [],
    passShare: 1,
    outputOhm: 0,
    minimumLoadA: 0,
    minimumTypicalA: 0,
    dividerA: 0,
    inputMaxV: size.inputMaxV(outputV),
    inputLimitSource: `Input maximum of the ${size.partNumber(outputV)}.`,
    rejectionDb: fallingRejection(rippleRejectionDb(outputV), 4000),
    noiseV: 8e-6 * outputV + 1e-5,
    pass: {
      package: size.package,
      tab: size.takesSink ? 'ground' : 'none',
      pins: size.takesSink ? 'input, ground, output' : 'output, ground, input',
      takesSink: size.takesSink,
      count: 1,
      fitted: 1,
      jcKPerW: size.thetaJcKPerW,
      jaKPerW: size.thetaJaKPerW,
      junctionMaxC: REGULATOR_JUNCTION_MAX_C,
      safeA: null,
    },
    burners: [],
    capacitors: 'No special wishes: 330 nF in, 100 nF out, at the pins.',
    small: [...AT_PINS, REVERSE_DIODE],
    wired: [
      wiredCapacitor(AT_PINS[0]!, 'in', 'ground'),
      wiredDiode(REVERSE_DIODE, 'out', 'in'),
      {
        kind: 'regulator',
        what: 'holds the output',
        carriesLoad: true,
        name: size.partNumber(outputV),
        value: null,
        unit: '',
        pins: { in: 'in', ground: 'ground', out: 'out' },
      },
      wiredCapacitor(AT_PINS[1]!, 'out', 'ground'),
    ],
    settings: [],
    priceEur: size.priceEur,
  };
}
