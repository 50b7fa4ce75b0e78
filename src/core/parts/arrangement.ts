import { once } from '@/core/quantity/once';

/** A capacitor, or a rail's filter, that a charging current passes through: +1 charges it, -1 draws from it. */
export interface Passed {
  cell: number;
  sign: 1 | -1;
}

/**
 * One closed path of the charging current: out of a winding, through diodes in series, through one cell or several, back
 * to the winding. Without faults every arrangement is a handful of such loops, and everything else about it follows.
 */
export interface Loop {
  winding: number;
  /** +1 when the current leaves the winding's first-named end. */
  sign: 1 | -1;
  /** The cells it passes through, the one it is there to charge first. */
  cells: readonly Passed[];
  /** Diodes in series on the way from the winding to the cells. */
  diodes: readonly number[];
  /** In a bridge, those on the way back from ground. */
  returnDiodes?: readonly number[];
}

/**
 * Where a cell stands: the filter input of a rail; one of the capacitors stacked at the head of the first rail, counted
 * from its top; or a pump, a capacitor that only hands charge on. What is stacked or pumps has the reservoir's values.
 */
export type Cell = { at: 'rail'; rail: 0 | 1 } | { at: 'stack' } | { at: 'pump' };

/** What builders know of an arrangement without calculating; all else is derived from its loops (arrangement-facts.ts). */
export interface ArrangementWords {
  name: string;
  /** When it is the right one. */
  when: string;
  /** RMS winding current as a multiple of the direct current, capacitor input: the middle of what builders use. */
  rmsFactor: number;
}

/** What can go wrong with an arrangement as a whole, beside its single diodes and cans: these diodes then carry nothing. */
export interface ArrangementFailure {
  how: 'path-open' | 'winding-open';
  /** Which winding, where it is one of several. */
  winding?: number;
  open: readonly number[];
}

/**
 * How its parts are joined, by the names of the places they meet at: 'P' the plus rail, 'G' ground, 'N' the minus rail,
 * any other its own.
 */
export interface Joints {
  /** Each winding from its first-named end to the other. */
  windings: readonly (readonly [string, string])[];
  /** Each diode from anode to cathode. */
  diodes: readonly (readonly [string, string])[];
  /** Each cell from plus to minus. */
  cells: readonly (readonly [string, string])[];
}

/** How windings, diodes and filters connect. A new arrangement is a new file with one of these. */
export interface Arrangement {
  words: ArrangementWords;
  /** Turns ratio of each winding against the common EMF, +1 or -1. */
  ratios: readonly (1 | -1)[];
  cells: readonly Cell[];
  loops: readonly Loop[];
  rails: 1 | 2;
  /** Fed by direct current: nothing is rectified, and nothing repeats half a period later. */
  direct?: true;
  /**
   * What the circuit looks like half a period later, when the EMF has changed its sign: loop n then does what
   * loop loops[n] did, winding n what winding windings[n] did (its current times windingSign). Null when the two halves
   * differ.
   */
  mirror: { loops: readonly number[]; windings: readonly number[]; windingSign: 1 | -1 } | null;
  /** The same as its loops, place by place: what is drawn, wired and built. */
  joints: Joints;
  /**
   * Its own faults that a meter tells from one of its diodes being open: where a winding or the way from it feeds one
   * diode alone, it is that diode, open.
   */
  failsTo: readonly ArrangementFailure[];
}

/** All diodes of a loop, those on the way back last. */
export const diodesOf: (loop: Loop) => readonly number[] = once(({ diodes, returnDiodes = [] }: Loop) => [
  ...diodes,
  ...returnDiodes,
]);

/** Number of diodes of an arrangement. */
export const diodeCount: (arrangement: Arrangement) => number = once(
  ({ loops }: Arrangement) => new Set(loops.flatMap(diodesOf)).size,
);
