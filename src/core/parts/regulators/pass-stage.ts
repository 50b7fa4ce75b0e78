import { safeCurrent, type PassTransistor } from '../transistor';
import type { PassDevice, WiredPart } from './model';

/** Drop across each emitter resistor at full current from which transistors side by side share it, V. */
export const SHARING_V = 0.05;

/** Pass transistors side by side, with the emitter resistors that make them share. */
export interface PassStage {
  passes: number;
  emitterOhm: number;
}

/** How many of them carry the current: without a drop in their emitters the warmest takes all of it. */
export function sharing({ passes, emitterOhm }: PassStage, amps: number): number {
  return passes > 1 && (emitterOhm * amps) / passes < SHARING_V - 1e-9 ? 1 : passes;
}

/** @param amps full current, A: what the emitter resistors are judged at */
export function passDevice(t: PassTransistor, stage: PassStage, amps: number): PassDevice {
  return {
    package: t.package,
    tab: 'input',
    pins: t.pins,
    takesSink: t.package !== 'TO-126',
    count: sharing(stage, amps),
    fitted: stage.passes,
    jcKPerW: t.jcKPerW,
    jaKPerW: t.jaKPerW,
    junctionMaxC: t.junctionMaxC,
    safeA: (volts) => safeCurrent(t, volts),
  };
}

/** Pass transistors as they are joined: collectors, bases and emitters each on a net, the resistors that make them share. */
export function wiredPass(t: PassTransistor, { passes, emitterOhm }: PassStage, base: string, to: string): WiredPart[] {
  const shares = emitterOhm > 0;
  const name = shortName(t);
  const pass: WiredPart = {
    kind: 'transistor',
    what: 'carries the load',
    carriesLoad: true,
    name,
    value: null,
    unit: '',
    pins: { base, collector: 'in', emitter: shares ? 'emitter#' : to },
    times: passes,
  };
  if (!shares) return [pass];
  return [
    pass,
    {
      kind: 'resistor',
      what: 'makes them share',
      carriesLoad: true,
      value: emitterOhm,
      unit: 'ohm',
      pins: { a: 'emitter#', b: to },
      times: passes,
      billed: 'emitter resistors',
    },
  ];
}

/** A small transistor that takes the drive away when the volts across the sense resistor open it. */
export const wiredLimit = (limitOhm: number, drive: string): WiredPart[] => [
  {
    kind: 'resistor',
    what: 'senses the current',
    carriesLoad: true,
    value: limitOhm,
    unit: 'ohm',
    pins: { a: 'sense', b: 'out' },
    billed: 'sense resistor',
  },
  {
    kind: 'transistor',
    what: 'takes the drive away at the limit',
    name: 'small NPN',
    value: null,
    unit: '',
    pins: { base: 'sense', collector: drive, emitter: 'out' },
  },
];

/** A transistor in a few words: 'TIP3055'. */
export function shortName({ name }: PassTransistor): string {
  return name.split(',')[0]!.split(' ')[0]!;
}
