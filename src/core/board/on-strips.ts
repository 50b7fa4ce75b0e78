import type { Leg } from './strip-footprint';

/** A hole: which strip, from above, and which hole on it, from the left; both from 0. */
export interface Hole {
  strip: number;
  hole: number;
}

/** A part on the board, or a wire that leaves it. */
export interface OnStrips {
  ref: string;
  /** The part a wire comes from; of any other itself. */
  of: string;
  /** By which it is found again when references move. */
  key: string;
  /** Whether it is a pin a wire to somewhere else is soldered to. */
  wire: boolean;
  /** Whether it has a plus that must not be mistaken. */
  polarised: boolean;
  legs: readonly (Leg & { at: Hole })[];
  body: { strips: readonly [number, number]; holes: readonly [number, number] };
}

/** A board of copper strips with holes a tenth of an inch apart: what goes where, where strips are cut, and what links them. */
export interface Stripboard {
  strips: number;
  holes: number;
  parts: OnStrips[];
  /** Holes at which the strip is cut through. */
  cuts: Hole[];
  /** Wires on the side of the parts, from hole to hole. */
  links: { net: string; from: Hole; to: Hole; insulated: boolean }[];
  /** What found no place. */
  left: { ref: string; why: string }[];
}
