import { passTransistor, safeCurrent, type PassTransistor } from '../transistor';
import { fallingRejection, type PassDevice, type RegulatorModel } from './model';

export interface FollowerRegulator {
  kind: 'follower';
  zenerV: number;
  transistor: string;
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

export function passDevice(t: PassTransistor, count = 1): PassDevice {
  return {
    package: t.package,
    tab: 'input',
    pins: t.package === 'TO-3' ? 'base and emitter pins, the case is the collector' : 'base, collector, emitter',
    takesSink: t.package !== 'TO-126',
    count,
    jcKPerW: t.jcKPerW,
    jaKPerW: t.jaKPerW,
    junctionMaxC: t.junctionMaxC,
    safeA: (volts) => safeCurrent(t, volts),
  };
}

/** Zener and emitter follower: simple, quiet enough, the output a base-emitter voltage below the zener and moving with load. */
export function followerModel(r: FollowerRegulator): RegulatorModel {
  const t = passTransistor(r.transistor);
  const outputV = Math.max(r.zenerV - t.vbe, 0.1);
  const senseOhm = r.limitOhm ?? 0;
  const limitA = r.limitOhm === null ? t.maxA : LIMIT_VBE / r.limitOhm;
  return {
    family: 'zener and follower',
    name: `${r.zenerV} V zener and ${t.name.split(',')[0]!.split(' ')[0]!}`,
    outputV,
    lowestV: outputV,
    spread: 0.05 + 0.15 / Math.max(outputV, 1),
    spreadSource: 'Zener ±5 %; the base-emitter voltage moves by 0.15 V with load and warmth.',
    // Input has to stand above the output by the junction and by what the series resistor needs at that base current.
    dropoutV: t.vbe + r.seriesOhm * ZENER_MIN_A,
    dropoutOhm: r.seriesOhm / t.gain + senseOhm,
    dropoutVPerK: -0.002,
    ratedA: Math.min(0.7 * t.maxA, limitA),
    limitA,
    shortA: r.limitOhm === null ? t.maxA : limitA,
    quiescentA: ZENER_MIN_A,
    minimumLoadA: 0,
    dividerA: 0,
    inputMaxV: t.maxV,
    inputLimitSource: `Collector-emitter maximum of the ${t.name.split(',')[0]}; a short puts the whole input across it.`,
    // The zener's slope against its series resistor is all the rejection there is.
    rejectionDb: fallingRejection(20 * Math.log10(1 + r.seriesOhm / ZENER_OHM), 20000),
    noiseV: 5e-5,
    pass: passDevice(t),
    warm: [...(r.limitOhm === null ? [] : [{ label: 'sense resistor', watts: (i: number) => i * i * senseOhm }])],
    capacitors: '100 µF across the zener takes its noise; 10 µF at the output.',
    small: [
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
      { what: 'Capacitor across the zener', value: 100e-6, unit: 'F', why: 'takes its noise and some ripple' },
    ],
    settings: [
      {
        label: 'Output',
        value: outputV,
        unit: 'V',
        expression: 'zener − base-emitter voltage',
        inputs: [
          { label: 'zener', value: r.zenerV, unit: 'V' },
          { label: 'base-emitter', value: t.vbe, unit: 'V' },
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
    priceEur: t.priceEur + 0.6,
  };
}

/** Largest series resistor that still feeds zener and base at low line, ohm: (lowest input − zener)/(least zener + I/gain). */
export function followerSeries(lowestInputV: number, zenerV: number, amps: number, gain: number): number {
  return (lowestInputV - zenerV) / (ZENER_MIN_A + amps / gain);
}
