import { passTransistor } from '../transistor';
import { passDevice } from './follower';
import { fallingRejection, type RegulatorModel } from './model';

export interface BenchRegulator {
  kind: 'bench';
  /** Top of the voltage knob, V; the bottom is zero. */
  maxV: number;
  /** Top of the current knob, A. */
  limitA: number;
  referenceV: number;
  shuntOhm: number;
  transistor: string;
  /** Pass transistors side by side, each with an emitter resistor. */
  passes: number;
  emitterOhm: number;
  /** Most supply volts of the op-amp, which runs from the raw rail. */
  opampMaxV: number;
  /** Accuracy of the shunt and of the matched resistors around the amplifiers, per cent. */
  shuntPct: number;
  resistorPct: number;
}

/** What an op-amp's output stays below its supply by, V, and a driver's junction. */
const SWING_LOSS_V = 1.5;
const DRIVER_VBE = 0.65;
const REFERENCE_SPREAD = 0.01;
/** Drift of a wire shunt, 1/K, over the rise it makes itself. */
const SHUNT_PER_K = 1e-4;
const SHUNT_K_PER_W = 40;

/** Op-amp bench supply: constant voltage, constant current, down to zero, its amplifiers on the raw rail. */
export function benchModel(r: BenchRegulator): RegulatorModel {
  const t = passTransistor(r.transistor);
  const seriesOhm = r.shuntOhm + r.emitterOhm / r.passes;
  const junctions = t.gain >= 500 ? t.vbe : t.vbe + DRIVER_VBE;
  const resistors = r.resistorPct / 100;
  const worst = REFERENCE_SPREAD + 2 * resistors;
  const likely = Math.hypot(REFERENCE_SPREAD, Math.SQRT2 * resistors);
  const shuntW = r.limitA ** 2 * r.shuntOhm;
  const drift = SHUNT_PER_K * SHUNT_K_PER_W * shuntW;
  const shuntV = r.limitA * r.shuntOhm;
  return {
    family: 'op-amp, constant voltage and current',
    name: `op-amp bench supply, ${r.passes > 1 ? `${r.passes} × ` : ''}${t.name.split(',')[0]!.split(' ')[0]!}`,
    outputV: r.maxV,
    lowestV: 0,
    spread: worst,
    spreadSource: `Reference ±1 % and matched resistors, worst case; root sum square ±${(100 * likely).toFixed(1)} %.`,
    dropoutV: junctions + SWING_LOSS_V,
    dropoutOhm: seriesOhm,
    dropoutVPerK: -0.004,
    ratedA: Math.min(r.limitA, 0.7 * t.maxA * r.passes),
    limitA: r.limitA,
    shortA: r.limitA,
    quiescentA: 0.012,
    minimumLoadA: 0,
    dividerA: 0,
    inputMaxV: Math.min(r.opampMaxV, t.maxV),
    inputLimitSource:
      r.opampMaxV <= t.maxV
        ? `Supply maximum of the op-amps, ${r.opampMaxV} V: they hang on the raw rail.`
        : `Collector-emitter maximum of the ${t.name.split(',')[0]}.`,
    rejectionDb: fallingRejection(75, 2000),
    noiseV: 1e-4,
    pass: passDevice(t, r.passes),
    warm: [
      { label: 'shunt', watts: (i) => i * i * r.shuntOhm },
      { label: 'emitter resistors', watts: (i) => (i * i * r.emitterOhm) / r.passes },
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
          { label: 'reference', value: 100 * REFERENCE_SPREAD, unit: '%' },
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
        expression: 'limit / transistors × resistor; 50 to 100 mV share the current',
        inputs: [{ label: 'resistor', value: r.emitterOhm, unit: 'ohm' }],
      },
    ],
    priceEur: t.priceEur * r.passes + 9,
  };
}
