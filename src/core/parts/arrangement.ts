export const RECTIFIER_KINDS = [
  'half-wave',
  'centre-tap',
  'bridge',
  'split-bridge',
  'split-half-wave',
  'two-bridges',
  'doubler',
] as const;
export type RectifierKind = (typeof RECTIFIER_KINDS)[number];
/** How any source meets its rails: a rectifier, or nothing but a lead. */
export type ArrangementKind = RectifierKind | 'direct';

/**
 * One closed path of the charging current: out of a winding, through one diode or two in series, into the input of a
 * filter, back to the winding. Without faults every arrangement is a handful of such loops.
 */
export interface Loop {
  winding: number;
  /** +1 when the current leaves the winding's first-named end. */
  sign: 1 | -1;
  /** Which filter input it charges. */
  input: number;
  /** The diode at the filter's end of the path. */
  railDiode: number;
  /** In a bridge, the diode on the way back from ground. */
  groundDiode?: number;
}

/** What builders know of an arrangement without calculating. */
export interface ArrangementFacts {
  name: string;
  /** When it is the right one. */
  when: string;
  /** Whether the reservoir is charged in both half waves. */
  fullWave: boolean;
  diodesInPath: 1 | 2;
  /** Reverse volts per diode with a reservoir, as a multiple of one winding's peak. */
  reversePeaks: 1 | 2;
  /** RMS winding current as a multiple of the direct current, capacitor input: the middle of what builders use. */
  rmsFactor: number;
}

/** How windings, diodes and filters connect. A new arrangement is a new file with one of these. */
export interface Arrangement {
  kind: ArrangementKind;
  facts: ArrangementFacts;
  /** Turns ratio of each winding against the common EMF, +1 or -1. */
  ratios: readonly (1 | -1)[];
  loops: readonly Loop[];
  rails: 1 | 2;
  /** True when the first filter element stands for two capacitors in series, charged in turn. */
  stacked: boolean;
  /**
   * What the circuit looks like half a period later, when the EMF has changed its sign: loop n then does what
   * loop loops[n] did, winding n what winding windings[n] did (its current times windingSign). Null when the two halves
   * differ.
   */
  mirror: { loops: readonly number[]; windings: readonly number[]; windingSign: 1 | -1 } | null;
}

/** Number of diodes of an arrangement. */
export function diodeCount(arrangement: Arrangement): number {
  return arrangement.loops.reduce((n, loop) => n + (loop.groundDiode === undefined ? 1 : 2), 0);
}
