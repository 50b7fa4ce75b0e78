import { passTransistor } from '../transistor';
import { FAILS_ANYWAY, always, fallingRejection, wiredCapacitor, type RegulatorModel, type SmallPart } from './model';
import { passDevice, sharing, shortName, wiredLimit, wiredPass, type PassStage } from './pass-stage';

export interface FollowerRegulator extends PassStage {
  kind: 'follower';
  zenerV: number;
  /** What the zener bears for long, W. */
  zenerW: number;
  transistor: string;
  /** Current gain of the transistor at hand; null for the least of its class. */
  gain: number | null;
  /** From the input to the zener and the base, ohm. */
  seriesOhm: number;
  /** Sense resistor of the current limit, ohm; null for none: then a short is not survived. */
  limitOhm: number | null;
}

/** A base-emitter junction that begins to take the drive away, V. */
const LIMIT_VBE = 0.65;
/** Least current that keeps a zener at its voltage, A, and its slope, ohm. */
const ZENER_MIN_A = 0.003;
const ZENER_OHM = 8;

const ZENER_CAPACITOR: SmallPart = {
  what: 'Capacitor across the zener',
  value: 100e-6,
  unit: 'F',
  why: 'takes its noise and some ripple',
};
const OUTPUT_CAPACITOR: SmallPart = {
  what: 'Capacitor at the output',
  value: 10e-6,
  unit: 'F',
  why: 'keeps it steady when the load jumps',
};

/** Zener and emitter follower: simple, quiet enough, the output a base-emitter voltage below the zener and moving with load. */
export function followerModel(r: FollowerRegulator): RegulatorModel {
  const t = passTransistor(r.transistor);
  const gain = r.gain ?? t.gain;
  const outputV = Math.max(r.zenerV - t.vbe, 0.1);
  const limitA = r.limitOhm === null ? t.maxA * r.passes : LIMIT_VBE / r.limitOhm;
  const ratedA = Math.min(0.7 * t.maxA * sharing(r, limitA), limitA);
  const emitterOhm = r.emitterOhm / r.passes;
  const through = (v: number) => Math.max(0, v - r.zenerV) / r.seriesOhm;
  return {
    family: 'zener and follower',
    name: `${r.zenerV} V zener and ${r.passes > 1 ? `${r.passes} × ` : ''}${shortName(t)}`,
    outputV,
    lowestV: outputV,
    spread: 0.05 + 0.15 / Math.max(outputV, 1),
    spreadSource: 'Zener ±5 %; the base-emitter voltage moves by 0.15 V with load and warmth.',
    // Input has to stand above the output by the junction and by what the series resistor needs at that base current.
    dropoutV: t.vbe + r.seriesOhm * ZENER_MIN_A,
    dropoutOhm: r.seriesOhm / gain,
    dropoutVPerK: -0.002,
    ratedA,
    limitA,
    shortA: always(limitA),
    limitsItself: false,
    failsTo: FAILS_ANYWAY,
    quiescentA: 0,
    drains: () => [{ fromV: r.zenerV, ohm: r.seriesOhm }],
    passShare: gain / (gain + 1),
    outputOhm: (r.limitOhm ?? 0) + emitterOhm,
    minimumLoadA: 0,
    minimumTypicalA: 0,
    dividerA: 0,
    inputMaxV: t.maxV,
    inputLimitSource: `Collector-emitter maximum of the ${shortName(t)}; a short puts the whole input across it.`,
    // The zener's slope against its series resistor is all the rejection there is.
    rejectionDb: fallingRejection(20 * Math.log10(1 + r.seriesOhm / ZENER_OHM), 20000),
    noiseV: 5e-5,
    pass: passDevice(t, r, limitA),
    burners: [
      {
        label: 'zener',
        watts: ({ inputV, amps }) => r.zenerV * Math.max(0, through(inputV) - amps / (gain + 1)),
        bearsW: r.zenerW,
      },
      { label: 'series resistor', watts: ({ inputV }) => through(inputV) ** 2 * r.seriesOhm, bearsW: null },
      ...(r.limitOhm === null
        ? []
        : [
            { label: 'sense resistor', watts: ({ amps }: { amps: number }) => amps * amps * r.limitOhm!, bearsW: null },
          ]),
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
    capacitors: '100 µF across the zener takes its noise; 10 µF at the output.',
    small: [
      { what: 'Zener', value: r.zenerV, unit: 'V', why: 'the reference, and what takes the current no base wants' },
      { what: 'Series resistor', value: r.seriesOhm, unit: 'ohm', why: 'feeds the zener and the base' },
      ...(r.limitOhm === null
        ? []
        : [
            {
              what: 'Small transistor and sense resistor',
              value: r.limitOhm,
              unit: 'ohm' as const,
              why: 'take the base current away at the limit',
            },
          ]),
      ZENER_CAPACITOR,
      OUTPUT_CAPACITOR,
    ],
    wired: [
      {
        kind: 'resistor',
        what: 'feeds the zener and the base',
        value: r.seriesOhm,
        unit: 'ohm',
        pins: { a: 'in', b: 'base' },
        billed: 'series resistor',
      },
      {
        kind: 'zener',
        what: 'the reference',
        value: r.zenerV,
        unit: 'V',
        pins: { anode: 'ground', cathode: 'base' },
        billed: 'zener',
      },
      wiredCapacitor(ZENER_CAPACITOR, 'base', 'ground'),
      ...wiredPass(t, r, 'base', r.limitOhm === null ? 'out' : 'sense'),
      ...(r.limitOhm === null ? [] : wiredLimit(r.limitOhm, 'base')),
      wiredCapacitor(OUTPUT_CAPACITOR, 'out', 'ground'),
    ],
    settings: [
      {
        label: 'Output, unloaded',
        value: outputV,
        unit: 'V',
        expression: 'zener − base-emitter voltage',
        inputs: [
          { label: 'zener', value: r.zenerV, unit: 'V' },
          { label: 'base-emitter', value: t.vbe, unit: 'V' },
        ],
      },
      {
        label: 'Falls by an ampere',
        value: (r.limitOhm ?? 0) + emitterOhm,
        unit: 'ohm',
        expression: 'sense resistor + emitter resistors side by side',
        inputs: [
          { label: 'sense', value: r.limitOhm ?? 0, unit: 'ohm' },
          { label: 'emitter, each', value: r.emitterOhm, unit: 'ohm' },
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
    priceEur: t.priceEur * r.passes + 0.6,
  };
}
