import { nearestInDecades, SERIES, type SeriesName } from '@/core/quantity/preferred';
import {
  failsToReference,
  fallingRejection,
  pinCapacitors,
  REVERSE_DIODE,
  wiredCapacitor,
  wiredDiode,
  type RegulatorModel,
  type SmallPart,
} from './model';

export const ADJUSTABLE_PARTS = {
  '317L': {
    ratedA: 0.1,
    dropoutV: 1.8,
    jcKPerW: 60,
    jaKPerW: 180,
    package: 'TO-92',
    minimumLoadA: 0.005,
    priceEur: 0.35,
  },
  '317M': { ratedA: 0.5, dropoutV: 2, jcKPerW: 7, jaKPerW: 60, package: 'TO-220', minimumLoadA: 0.01, priceEur: 0.5 },
  '317': {
    ratedA: 1.5,
    dropoutV: 2.3,
    jcKPerW: 4,
    jaKPerW: 50,
    package: 'TO-220',
    minimumLoadA: 0.01,
    priceEur: 0.55,
  },
  '350': { ratedA: 3, dropoutV: 2.5, jcKPerW: 2, jaKPerW: 45, package: 'TO-220', minimumLoadA: 0.01, priceEur: 1.6 },
  '338': { ratedA: 5, dropoutV: 2.8, jcKPerW: 1.4, jaKPerW: 35, package: 'TO-3', minimumLoadA: 0.01, priceEur: 3.5 },
} as const;
export type AdjustableId = keyof typeof ADJUSTABLE_PARTS;
/** The weakest first. (Names that are numbers lead an object's own order.) */
export const ADJUSTABLE_IDS = (Object.keys(ADJUSTABLE_PARTS) as AdjustableId[]).sort(
  (a, b) => ADJUSTABLE_PARTS[a].ratedA - ADJUSTABLE_PARTS[b].ratedA,
);

export interface AdjustableRegulator {
  kind: 'adjustable';
  part: AdjustableId;
  /** Output to ADJ, ohm; more than nothing. */
  r1Ohm: number;
  /** ADJ to ground, the fixed part of it, ohm. */
  r2Ohm: number;
  /** Pot in series with it, ohm; null for none. */
  potOhm: number | null;
  /** 10 uF from ADJ to ground. */
  adjCapacitor: boolean;
}

/** Reference between output and ADJ, V, and the current out of ADJ, A. */
export const REFERENCE_V = 1.25;
export const ADJ_A = 50e-6;
/** Least load a typical part needs, A; the worst one needs what its class says. */
const MINIMUM_TYPICAL_A = 0.0035;
/** Limit as a multiple of the rated current up to this many volts across it, and what is left of that at the most it bears. */
const LIMIT_TIMES = 2.2 / 1.5;
const LIMIT_FROM_V = 15;
const LIMIT_LEFT = 0.18;
/** Most volts between input and output, V. */
export const ACROSS_MAX_V = 40;
/** Accuracy of the reference, and of ordinary metal-film resistors. */
const REFERENCE_SPREAD = 0.04;
const RESISTOR_SPREAD = 0.01;

const AT_PINS = pinCapacitors(330e-9, 1e-6);
const ADJ_CAPACITOR: SmallPart = {
  what: 'Capacitor, ADJ to ground',
  value: 10e-6,
  unit: 'F',
  why: 'buys 15 dB of rejection',
};
const ADJ_DIODE: SmallPart = {
  what: 'Diode 1N4002, ADJ to output',
  value: null,
  unit: '',
  why: 'discharges the ADJ capacitor past the chip when the output is shorted',
};

/** Output set by two resistors: 1.25*(1 + R2/R1) + Iadj*R2, V. */
export function adjustableOutput(r1Ohm: number, r2Ohm: number): number {
  return REFERENCE_V * (1 + r2Ohm / r1Ohm) + ADJ_A * r2Ohm;
}

/** R2 in all that makes an output with an R1, ohm; below nothing for less than the reference. */
export function adjustableR2(outputV: number, r1Ohm: number): number {
  return (outputV - REFERENCE_V) / (REFERENCE_V / r1Ohm + ADJ_A);
}

/** Resistors of a series that come closest to an output, R1 within 120 to 240 ohm. */
export function settingPair(
  outputV: number,
  series: SeriesName,
): { r1Ohm: number; r2Ohm: number; outputV: number; errorPct: number } {
  let best: { r1Ohm: number; r2Ohm: number; outputV: number; errorPct: number } | null = null;
  for (const mantissa of SERIES[series]) {
    const r1Ohm = Number((100 * mantissa).toPrecision(4));
    if (r1Ohm < 119 || r1Ohm > 241) continue;
    const wanted = adjustableR2(outputV, r1Ohm);
    const r2Ohm = wanted < 1 ? 0 : nearestInDecades(wanted, SERIES[series]);
    const got = adjustableOutput(r1Ohm, r2Ohm);
    const errorPct = 100 * (got / outputV - 1);
    if (!best || Math.abs(errorPct) < Math.abs(best.errorPct)) best = { r1Ohm, r2Ohm, outputV: got, errorPct };
  }
  return best!;
}

/**
 * Current a part of the 317 class limits itself to, A: typically 2.2 A for 1.5 A rated while no more than 15 V stand across
 * it, falling in a line to 0.4 A at 40 V to keep its safe area.
 */
export function adjustableLimit(ratedA: number, acrossV: number): number {
  const beyond = Math.min(1, Math.max(0, (acrossV - LIMIT_FROM_V) / (ACROSS_MAX_V - LIMIT_FROM_V)));
  return LIMIT_TIMES * ratedA * (1 - (1 - LIMIT_LEFT) * beyond);
}

/** A three-terminal regulator whose output two resistors set (317 family; 337 for the negative rail). */
export function adjustableModel(r: AdjustableRegulator): RegulatorModel {
  const part = ADJUSTABLE_PARTS[r.part];
  const most = r.r2Ohm + (r.potOhm ?? 0);
  const outputV = adjustableOutput(r.r1Ohm, most);
  const lowestV = r.potOhm === null ? outputV : adjustableOutput(r.r1Ohm, r.r2Ohm);
  const share = 1 - REFERENCE_V / outputV;
  // R2/R1 can be off by both resistors; the reference moves everything.
  const worst = REFERENCE_SPREAD + 2 * RESISTOR_SPREAD * share;
  const likely = Math.hypot(REFERENCE_SPREAD, Math.SQRT2 * RESISTOR_SPREAD * share);
  const shareOfIdle = 0.7;
  return {
    family: 'adjustable three-terminal',
    name: r.part,
    outputV,
    lowestV,
    spread: worst,
    spreadSource: `Reference ±4 % and two 1 % resistors, worst case; root sum square ±${(100 * likely).toFixed(1)} %.`,
    dropoutV: shareOfIdle * part.dropoutV,
    dropoutOhm: ((1 - shareOfIdle) * part.dropoutV) / part.ratedA,
    dropoutVPerK: -0.002,
    ratedA: part.ratedA,
    limitA: LIMIT_TIMES * part.ratedA,
    shortA: (acrossV) => adjustableLimit(part.ratedA, acrossV),
    limitsItself: true,
    failsTo: failsToReference(REFERENCE_V),
    quiescentA: REFERENCE_V / r.r1Ohm,
    drains: () => [],
    passShare: 1,
    outputOhm: 0,
    minimumLoadA: part.minimumLoadA,
    minimumTypicalA: Math.min(MINIMUM_TYPICAL_A, part.minimumLoadA),
    dividerA: REFERENCE_V / r.r1Ohm,
    // Only the difference counts; at switch-on and when shorted the output is at zero.
    inputMaxV: ACROSS_MAX_V,
    inputLimitSource: 'Most between input and output, 40 V: with the output shorted it is the whole input.',
    rejectionDb: fallingRejection(r.adjCapacitor ? 80 : 65, r.adjCapacitor ? 1000 : 4000),
    noiseV: 3e-5 * outputV,
    pass: {
      package: part.package,
      tab: part.package === 'TO-92' ? 'none' : 'output',
      pins: part.package === 'TO-3' ? 'ADJ and input pins, the case is the output' : 'ADJ, output, input',
      takesSink: part.package !== 'TO-92',
      count: 1,
      fitted: 1,
      jcKPerW: part.jcKPerW,
      jaKPerW: part.jaKPerW,
      junctionMaxC: 125,
      safeA: null,
    },
    burners: [
      { label: 'R1', watts: ({ outputV: v }) => (v > 0 ? REFERENCE_V ** 2 / r.r1Ohm : 0), bearsW: null },
      {
        label: 'R2',
        watts: ({ outputV: v }) => (Math.max(0, v - REFERENCE_V) * REFERENCE_V) / r.r1Ohm,
        bearsW: null,
      },
    ],
    capacitors: r.adjCapacitor
      ? '10 µF at ADJ buys 15 dB of rejection and wants a diode to discharge it past the chip.'
      : '330 nF in, 1 µF out. 10 µF at ADJ would buy 15 dB of rejection.',
    small: [...AT_PINS, REVERSE_DIODE, ...(r.adjCapacitor ? [ADJ_CAPACITOR, ADJ_DIODE] : [])],
    wired: [
      wiredCapacitor(AT_PINS[0]!, 'in', 'ground'),
      wiredDiode(REVERSE_DIODE, 'out', 'in'),
      {
        kind: 'regulator',
        what: 'holds the output',
        carriesLoad: true,
        name: r.part,
        value: null,
        unit: '',
        pins: { in: 'in', adjust: 'adjust', out: 'out' },
      },
      ...(r.adjCapacitor
        ? [wiredCapacitor(ADJ_CAPACITOR, 'adjust', 'ground'), wiredDiode(ADJ_DIODE, 'adjust', 'out')]
        : []),
      {
        kind: 'resistor',
        what: 'sets the output with R2',
        value: r.r1Ohm,
        unit: 'ohm',
        pins: { a: 'out', b: 'adjust' },
        billed: 'R1',
      },
      ...(r.r2Ohm > 0
        ? [
            {
              kind: 'resistor' as const,
              what: 'sets the output with R1',
              value: r.r2Ohm,
              unit: 'ohm' as const,
              pins: { a: 'adjust', b: r.potOhm === null ? 'ground' : 'pot' },
              billed: 'R2',
            },
          ]
        : []),
      ...(r.potOhm === null
        ? []
        : [
            {
              kind: 'pot' as const,
              what: 'turns the output',
              value: r.potOhm,
              unit: 'ohm' as const,
              pins: { a: r.r2Ohm > 0 ? 'pot' : 'adjust', b: 'ground', wiper: 'ground' },
            },
          ]),
      wiredCapacitor(AT_PINS[1]!, 'out', 'ground'),
    ],
    settings: [
      {
        label: r.potOhm === null ? 'Output set' : 'Highest setting',
        value: outputV,
        unit: 'V',
        expression: '1.25·(1 + R2/R1) + 50 µA·R2',
        inputs: [
          { label: 'R1', value: r.r1Ohm, unit: 'ohm' },
          { label: 'R2', value: most, unit: 'ohm' },
        ],
      },
      ...(r.potOhm === null
        ? []
        : [
            {
              label: 'Lowest setting',
              value: lowestV,
              unit: 'V' as const,
              expression: 'the same with the pot at its end; never below the reference itself',
              inputs: [{ label: 'R2', value: r.r2Ohm, unit: 'ohm' as const }],
            },
            {
              label: 'A degree of the pot',
              value: (outputV - lowestV) / 270,
              unit: 'V' as const,
              expression: '(highest − lowest) / 270°',
              inputs: [{ label: 'pot', value: r.potOhm, unit: 'ohm' as const }],
            },
          ]),
      {
        label: 'Least load outside',
        value: Math.max(0, part.minimumLoadA - REFERENCE_V / r.r1Ohm),
        unit: 'A',
        expression: 'minimum load of the part − 1.25 V / R1',
        inputs: [{ label: 'minimum of the part', value: part.minimumLoadA, unit: 'A' }],
      },
    ],
    priceEur: part.priceEur + 0.1,
  };
}
