/** Pass transistors by class, with standard type numbers where one says more than words. Typical; the data sheet wins. */
export interface PassTransistor {
  id: string;
  name: string;
  package: string;
  /** Leads from the left, the printed face towards you. */
  pins: string;
  maxA: number;
  maxV: number;
  /** Least current gain at a few amperes, and base-emitter volts there. */
  gain: number;
  vbe: number;
  jcKPerW: number;
  jaKPerW: number;
  junctionMaxC: number;
  powerW: number;
  /** Above this many volts across it second breakdown allows less than its power does. */
  secondBreakdownV: number;
  priceEur: number;
}

export const PASS_TRANSISTORS: readonly PassTransistor[] = [
  {
    id: 'bd139',
    name: 'BD139, 1.5 A',
    package: 'TO-126',
    pins: 'emitter, collector, base',
    maxA: 1.5,
    maxV: 80,
    gain: 40,
    vbe: 0.75,
    jcKPerW: 10,
    jaKPerW: 100,
    junctionMaxC: 150,
    powerW: 12.5,
    secondBreakdownV: 30,
    priceEur: 0.3,
  },
  {
    id: 'tip122',
    name: 'TIP122 Darlington, 5 A',
    package: 'TO-220',
    pins: 'base, collector, emitter',
    maxA: 5,
    maxV: 100,
    gain: 1000,
    vbe: 1.5,
    jcKPerW: 1.92,
    jaKPerW: 62,
    junctionMaxC: 150,
    powerW: 65,
    secondBreakdownV: 30,
    priceEur: 0.6,
  },
  {
    id: 'tip3055',
    name: 'TIP3055, 15 A',
    package: 'TO-247',
    pins: 'base, collector, emitter',
    maxA: 15,
    maxV: 60,
    gain: 30,
    vbe: 0.8,
    jcKPerW: 1.39,
    jaKPerW: 36,
    junctionMaxC: 150,
    powerW: 90,
    secondBreakdownV: 30,
    priceEur: 1.2,
  },
  {
    id: '2n3055',
    name: '2N3055, 15 A',
    package: 'TO-3',
    pins: 'base and emitter pins, the case is the collector',
    maxA: 15,
    maxV: 60,
    gain: 30,
    vbe: 0.8,
    jcKPerW: 1.5,
    jaKPerW: 35,
    junctionMaxC: 200,
    powerW: 115,
    secondBreakdownV: 40,
    priceEur: 1.8,
  },
  {
    id: 'mj15003',
    name: 'MJ15003, 20 A',
    package: 'TO-3',
    pins: 'base and emitter pins, the case is the collector',
    maxA: 20,
    maxV: 140,
    gain: 40,
    vbe: 0.8,
    jcKPerW: 0.7,
    jaKPerW: 35,
    junctionMaxC: 200,
    powerW: 250,
    secondBreakdownV: 50,
    priceEur: 4,
  },
];

/** @throws RangeError for an id that is not a class */
export function passTransistor(id: string): PassTransistor {
  const found = PASS_TRANSISTORS.find((t) => t.id === id);
  if (!found) throw new RangeError(`no pass transistor '${id}'`);
  return found;
}

/**
 * Largest lasting current at a voltage across it, case at 25 °C, A: what package and power allow, and from the second
 * breakdown on less than that, falling with the 2.4th power of the voltage as such curves do.
 */
export function safeCurrent(t: PassTransistor, volts: number): number {
  if (volts <= 0) return t.maxA;
  if (volts > t.maxV) return 0;
  const byPower = t.powerW / Math.min(volts, t.secondBreakdownV);
  const beyond = volts > t.secondBreakdownV ? (t.secondBreakdownV / volts) ** 2.4 : 1;
  return Math.min(t.maxA, byPower * beyond);
}

/** What is left of a safe area at the hottest: what is hotter still is past saving, and has a figure all the same. */
const LEAST_LEFT = 0.05;

/**
 * The share of its safe area that is left of a transistor with a warm case: the curves hold for a case at 25 °C; a warm one
 * bears less in proportion.
 * @param caseC °C @param junctionMaxC °C
 * @returns the share, 0.05 at least, and how far it is from there: negative where it would be less
 */
export function deratedBy(caseC: number, junctionMaxC: number): { share: number; edge: number } {
  const left = (junctionMaxC - caseC) / (junctionMaxC - 25);
  return { share: Math.max(LEAST_LEFT, left), edge: left - LEAST_LEFT };
}
