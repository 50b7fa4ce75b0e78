import { passTransistor } from '../transistor';
import { FAILS_ANYWAY, always, fallingRejection, wiredCapacitor, type RegulatorModel, type SmallPart } from './model';
import { passDevice, sharing, shortName, wiredPass } from './pass-stage';

export interface BenchRegulator {
  kind: 'bench';
  /** Top of the voltage knob, V; the bottom is zero. */
  maxV: number;
  /** Top of the current knob, A. */
  limitA: number;
  referenceV: number;
  /** Accuracy of the reference, per cent. */
  referencePct: number;
  shuntOhm: number;
  transistor: string;
  /** Pass transistors side by side, each with an emitter resistor. */
  passes: number;
  emitterOhm: number;
  /** Current gain of the transistors at hand; null for the least of their class. */
  gain: number | null;
  /** Most supply volts of the op-amps, and whether they run from the raw rail or from one of their own. */
  opampMaxV: number;
  opampRail: 'raw' | 'own';
  /** Accuracy of the shunt and of the matched resistors around the amplifiers, per cent. */
  shuntPct: number;
  resistorPct: number;
}

/** What an op-amp's output stays below its supply by, V, and a driver's junction. */
const SWING_LOSS_V = 1.5;
const DRIVER_VBE = 0.65;
/** What saturated transistors keep, V, and what a driver of its class bears without a sink, W. */
const SATURATED_V = 1;
const DRIVER_W = 1.2;
/** What op-amps, reference and driver draw, A; on a rail of their own the driver's share stays. */
const AMPLIFIERS_A = 0.012;
const DRIVER_A = 0.002;
/** Drift of a wire shunt, 1/K, over the rise it makes itself. */
const SHUNT_PER_K = 1e-4;
const SHUNT_K_PER_W = 40;

const OUTPUT_CAPACITOR: SmallPart = {
  what: 'Capacitor at the output',
  value: 10e-6,
  unit: 'F',
  why: 'keeps it steady, and no larger: what stands there comes out before the limit acts',
};

/** Op-amp bench supply: constant voltage, constant current, down to zero, its amplifiers on the raw rail. */
export function benchModel(r: BenchRegulator): RegulatorModel {
  const t = passTransistor(r.transistor);
  const seriesOhm = r.shuntOhm + r.emitterOhm / r.passes;
  const junctions = t.gain >= 500 ? t.vbe : t.vbe + DRIVER_VBE;
  const resistors = r.resistorPct / 100;
  const reference = r.referencePct / 100;
  const worst = reference + 2 * resistors;
  const likely = Math.hypot(reference, Math.SQRT2 * resistors);
  const gain = r.gain ?? t.gain;
  const own = r.opampRail === 'own';
  const opampLimits = !own && r.opampMaxV <= t.maxV;
  const shuntW = r.limitA ** 2 * r.shuntOhm;
  const drift = SHUNT_PER_K * SHUNT_K_PER_W * shuntW;
  const shuntV = r.limitA * r.shuntOhm;
  return {
    family: 'op-amp, constant voltage and current',
    name: `op-amp bench supply, ${r.passes > 1 ? `${r.passes} × ` : ''}${shortName(t)}`,
    outputV: r.maxV,
    lowestV: 0,
    spread: worst,
    spreadSource: `Reference ±${r.referencePct} % and matched resistors, worst case; root sum square ±${(100 * likely).toFixed(1)} %.`,
    // On a rail of their own the amplifiers swing above the input: only junctions are left.
    dropoutV: own ? SATURATED_V : junctions + SWING_LOSS_V,
    dropoutOhm: seriesOhm,
    dropoutVPerK: -0.004,
    ratedA: Math.min(r.limitA, 0.7 * t.maxA * sharing(r, r.limitA)),
    limitA: r.limitA,
    shortA: always(r.limitA),
    limitsItself: false,
    failsTo: FAILS_ANYWAY,
    quiescentA: own ? DRIVER_A : AMPLIFIERS_A,
    drains: () => [],
    passShare: 1,
    outputOhm: 0,
    minimumLoadA: 0,
    minimumTypicalA: 0,
    dividerA: 0,
    inputMaxV: opampLimits ? r.opampMaxV : t.maxV,
    inputLimitSource: opampLimits
      ? `Supply maximum of the op-amps, ${r.opampMaxV} V: they hang on the raw rail.`
      : `Collector-emitter maximum of the ${shortName(t)}.`,
    rejectionDb: fallingRejection(75, 2000),
    noiseV: 1e-4,
    pass: passDevice(t, r, r.limitA),
    burners: [
      { label: 'shunt', watts: ({ amps }) => amps * amps * r.shuntOhm, bearsW: null },
      ...(r.emitterOhm === 0
        ? []
        : [
            {
              label: 'emitter resistors',
              watts: ({ amps }: { amps: number }) => (amps * amps * r.emitterOhm) / r.passes,
              bearsW: null,
            },
          ]),
      ...(t.gain >= 500
        ? []
        : [
            {
              label: 'driver',
              watts: ({ inputV, outputV: v, amps }: { inputV: number; outputV: number; amps: number }) =>
                (Math.max(0, inputV - v) * amps) / (gain + 1),
              bearsW: DRIVER_W,
            },
          ]),
    ],
    capacitors:
      '10 µF at the output, no more: what stands there comes out before the limit acts. Compensation is found on the bench.',
    small: [
      { what: 'Shunt', value: r.shuntOhm, unit: 'ohm', why: `${(1000 * shuntV).toFixed(0)} mV at the limit` },
      {
        what: 'Emitter resistor, each',
        value: r.emitterOhm,
        unit: 'ohm',
        why: 'shares the current between the pass transistors',
      },
      { what: 'Reference', value: r.referenceV, unit: 'V', why: 'both knobs divide it' },
      OUTPUT_CAPACITOR,
    ],
    wired: [
      ...(t.gain >= 500
        ? []
        : [
            {
              kind: 'transistor' as const,
              what: 'drives the pass transistors',
              name: 'driver',
              value: null,
              unit: '' as const,
              pins: { base: 'drive', collector: 'in', emitter: 'base' },
              billed: 'driver',
            },
          ]),
      ...wiredPass(t, r, t.gain >= 500 ? 'drive' : 'base', 'sense'),
      {
        kind: 'resistor',
        what: 'senses the current',
        carriesLoad: true,
        value: r.shuntOhm,
        unit: 'ohm',
        pins: { a: 'sense', b: 'out' },
        billed: 'shunt',
      },
      {
        kind: 'control',
        what: 'compares volts and amperes with its two knobs',
        name: `op-amps, reference ${r.referenceV} V`,
        value: null,
        unit: '',
        pins: {
          ...(own ? {} : { supply: 'in' }),
          drive: 'drive',
          sense: 'sense',
          out: 'out',
          ground: 'ground',
        },
      },
      wiredCapacitor(OUTPUT_CAPACITOR, 'out', 'ground'),
    ],
    settings: [
      {
        label: 'Gain behind the voltage knob',
        value: r.maxV / r.referenceV,
        unit: '',
        expression: 'top of the knob / reference',
        inputs: [
          { label: 'top', value: r.maxV, unit: 'V' },
          { label: 'reference', value: r.referenceV, unit: 'V' },
        ],
      },
      {
        label: 'Voltage error, worst case',
        value: 100 * worst,
        unit: '%',
        expression: 'reference + two resistors of the gain',
        inputs: [
          { label: 'reference', value: r.referencePct, unit: '%' },
          { label: 'resistors', value: r.resistorPct, unit: '%' },
        ],
      },
      {
        label: 'Voltage error, root sum square',
        value: 100 * likely,
        unit: '%',
        expression: '√(reference² + 2·resistor²)',
        inputs: [],
      },
      {
        label: 'Volts across the shunt at the limit',
        value: shuntV,
        unit: 'V',
        expression: 'limit × shunt',
        inputs: [
          { label: 'limit', value: r.limitA, unit: 'A' },
          { label: 'shunt', value: r.shuntOhm, unit: 'ohm' },
        ],
      },
      {
        label: 'Current error, worst case',
        value: r.shuntPct + 2 * r.resistorPct + 100 * drift,
        unit: '%',
        expression: 'shunt + two matched resistors + drift by its own heat',
        inputs: [
          { label: 'shunt', value: r.shuntPct, unit: '%' },
          { label: 'resistors', value: r.resistorPct, unit: '%' },
          { label: 'drift', value: 100 * drift, unit: '%' },
          { label: 'heat in the shunt', value: shuntW, unit: 'W' },
        ],
      },
      {
        label: 'Across each emitter resistor',
        value: (r.limitA / r.passes) * r.emitterOhm,
        unit: 'V',
        expression: 'limit / transistors × resistor; from 50 mV on they share, 0.1 to 0.5 V share well',
        inputs: [{ label: 'resistor', value: r.emitterOhm, unit: 'ohm' }],
      },
    ],
    priceEur: t.priceEur * r.passes + 9 + (own ? 4 : 0),
  };
}
