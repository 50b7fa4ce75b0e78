import type { Circuit } from '@/core/circuit/assemble';
import { dropV, type Port } from '@/core/circuit/port';

/** Means and extremes of one quantity over the records. */
export interface Tally {
  mean: number;
  meanSquare: number;
  max: number;
  min: number;
}

/** What the records of a run come to, quantity by quantity, each when it is asked for. Integrals are per period. */
export interface Reading {
  windingA(n: number): Tally;
  /** What the primary carries, referred to the first section's winding. */
  primaryA(): Tally;
  portA(n: number): Tally;
  elementA(n: number): Tally;
  elementV(n: number): Tally;
  railV(n: number): Tally;
  railInputV(n: number): Tally;
  loadA(n: number): Tally;
  /** Most volts against the direction of a port, V. */
  reverseV(port: number): number;
  /** Mean of the EMF times a winding's current, W for a winding of ratio 1. */
  drawnW(winding: number): number;
  /** Mean of a port's volts times its current, W. */
  portW(port: number): number;
  /** Mean of a rail's volts times all its loads, W. */
  loadW(rail: number): number;
  /** Mean of the square of what a rail is off `meanV`, V². */
  spreadV2(rail: number, meanV: number): number;
  /** Time during which a port's current exceeds a threshold, s. */
  conductionS(port: number, thresholdA: number): number;
}

/**
 * The resistance around a port, itself included, ohm. Where a current crosses a threshold is found on voltage plus this
 * resistance times current, which runs smoothly through turn-on, rather than on the current, whose knee is too sharp to
 * interpolate.
 */
export function ohmAround(circuit: Circuit, port: Port): number {
  const winding = circuit.windings[port.winding]!;
  const esrOhm = port.into.reduce((sum, { input }) => {
    const { plus } = circuit.inputs[input]!;
    const can = circuit.elements.find((e) => e.kind === 'capacitor' && e.plus === plus);
    return sum + (can?.kind === 'capacitor' ? can.esrOhm : 0);
  }, 0);
  return port.ohm + winding.ownOhm * port.share ** 2 + circuit.sharedOhm * (port.share * winding.ratio) ** 2 + esrOhm;
}

/** What volts plus resistance times current come to where a port carries `threshold` amperes, V. */
export const levelOf = (port: Port, threshold: number, ohm: number): number =>
  dropV(port, threshold) + (port.ohm + ohm) * threshold;
