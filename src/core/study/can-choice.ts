import type { Design, Reservoir } from '@/core/design/design';
import { typicalCapacitorPrice, typicalEsr, typicalRippleRating } from '@/core/parts/capacitor';
import { E6, nearestInDecades } from '@/core/quantity/preferred';

/** Hours a can's life is promised for at its grade: the usual figure. */
export const GRADE_HOURS = 2000;

/** Ripple at its rating warms a can by about this much inside, K. */
const RATED_RISE_K = 5;

/** Hours a can lasts: doubles for every 10 K its core stays below its grade; ripple warms it by the square of its share. */
export function canLife(
  grade: { hours: number; gradeC: number },
  airC: number,
  rippleShare: number,
): { coreC: number; hours: number } {
  const coreC = airC + RATED_RISE_K * rippleShare ** 2;
  return { coreC, hours: grade.hours * 2 ** ((grade.gradeC - coreC) / 10) };
}

/**
 * What a ripple rating given at 100 kHz is worth at the ripple frequency: 0.5 to 0.8 at 100 Hz, bigger cans the more.
 * @param ratedA at 100 kHz, A
 */
export function rippleAtLowFrequency(ratedA: number, capacitanceF: number): number {
  const factor = Math.min(0.8, Math.max(0.5, 0.5 + 0.1 * Math.log10(Math.max(capacitanceF, 1e-6) / 100e-6)));
  return factor * ratedA;
}

/** A load step or gap in the mains, by both schools. */
export interface HoldUp {
  /** Load current taken as constant: C = I*t/dV. Right for a linear regulator or a constant current. */
  chargeF: number;
  /** Power taken as constant: C = 2*P*t/(V1^2 - V2^2). Right for a switching converter on this rail. */
  energyF: number;
  /** Which of the two fits what hangs on the rail, and why. */
  school: 'charge' | 'energy';
  why: string;
}

/**
 * Capacitance that carries the load for a while.
 * @param fromV rail voltage at the start; @param toV the lowest the load or regulator bears, below fromV
 */
export function holdUpCapacitance(design: Design, seconds: number, fromV: number, toV: number): HoldUp {
  const { outputA } = design.demand;
  const constantPower = design.regulator.kind === 'none' && design.demand.kind === 'power';
  return {
    chargeF: (outputA * seconds) / (fromV - toV),
    energyF:
      (2 * outputA * (design.regulator.kind === 'none' ? design.demand.outputV : fromV) * seconds) /
      (fromV ** 2 - toV ** 2),
    school: constantPower ? 'energy' : 'charge',
    why: constantPower
      ? 'a converter draws constant power: the lower the rail, the more it takes'
      : design.regulator.kind === 'none'
        ? 'the load’s current hardly depends on the rail'
        : 'a linear regulator’s input current is its output current, whatever the rail',
  };
}

/** One way of making up the same capacitance. */
export interface BankOption {
  reservoir: Pick<Reservoir, 'cans' | 'capacitanceF' | 'ratedV' | 'esrOhm' | 'rippleA' | 'pair'>;
  totalF: number;
  esrOhm: number;
  rippleA: number;
  priceEur: number;
  /** Of one can, from what it stores; rough. */
  heightMm: number;
  /** How a can of this size is usually mounted. */
  mounting: string;
}

/** The same capacitance as one can and as banks of two to four, in preferred values at typical ratings. */
export function bankOptions({ reservoir }: Design): BankOption[] {
  const total = reservoir.capacitanceF * reservoir.cans;
  const { ratedV, pair } = reservoir;
  return [1, 2, 3, 4].map((cans) => {
    const nearest = nearestInDecades(total / cans, E6);
    const capacitanceF = cans === reservoir.cans ? reservoir.capacitanceF : nearest;
    return {
      reservoir: { cans, capacitanceF, ratedV, esrOhm: null, rippleA: null, pair },
      totalF: cans * capacitanceF,
      esrOhm: typicalEsr(capacitanceF, ratedV) / cans,
      rippleA: cans * typicalRippleRating(capacitanceF, ratedV),
      priceEur: cans * typicalCapacitorPrice(capacitanceF, ratedV),
      heightMm: canHeight(capacitanceF, ratedV),
      mounting: canMounting(capacitanceF, ratedV),
    };
  });
}

/** How an electrolytic of this charge at rated volts is usually mounted: makers differ about the borders. */
export function canMounting(capacitanceF: number, ratedV: number): string {
  const charge = capacitanceF * ratedV;
  return charge < 0.12 ? 'radial leads' : charge < 1.5 ? 'snap-in' : 'screw terminals';
}

/** Height of an electrolytic from its charge at rated volts, mm; within a third or so. */
export function canHeight(capacitanceF: number, ratedV: number): number {
  return Math.round(14 + 62 * (capacitanceF * ratedV) ** (1 / 3));
}
