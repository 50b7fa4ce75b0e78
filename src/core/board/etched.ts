import { LEAST_MM } from './copper-rules';

/** Which copper a track is on: under the board, where parts are soldered, or above it, where they stand. */
export type Layer = 'under' | 'above';

/** A soldered leg: a round pad with its hole. */
export interface Pad {
  name: string;
  net: string;
  /** Part of a net that shares no copper with the rest of it but one pad; the net itself where there is none. */
  branch: number;
  xMm: number;
  yMm: number;
  drillMm: number;
  padMm: number;
}

export interface Rect {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** A part where it stands, or a wire that leaves the board, mm from the upper left corner, seen from above. */
export interface OnBoard {
  ref: string;
  /** The part a wire comes from; of any other itself. */
  of: string;
  /** By which it is found again when references move. */
  key: string;
  value: string;
  wire: boolean;
  polarised: boolean;
  /** What heat it gives or minds. */
  heat: Heat | null;
  /** Whether its body is round; the rectangle is around it. */
  round: boolean;
  turn: Turn;
  /** Where its first leg is. */
  xMm: number;
  yMm: number;
  pads: readonly Pad[];
  body: Rect;
}

/** What heat a part of a board gives, or minds: on a sink, a resistor the load flows through, a can, what sets the output. */
export type Heat = 'sink' | 'shunt' | 'can' | 'setting';

/** Quarter turns, against the clock. */
export type Turn = 0 | 1 | 2 | 3;

/** Where a first leg is, mm, and how the part is turned. */
export interface Place {
  xMm: number;
  yMm: number;
  turn: Turn;
}

/** A straight piece of copper with round ends. */
export interface Track {
  layer: Layer;
  branch: number;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  widthMm: number;
}

/** A wire on the side of the parts from pad to pad, or the two ends of a hole that joins both sides. */
export interface Link {
  branch: number;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** What belongs together without its other half. */
export interface Branch {
  net: string;
  /** What flows on it in words: all of its net, the pulses of the reservoir, or what is taken from there. */
  carries: 'all' | 'pulses' | 'load';
  /** Where it meets its net's other half: the reservoir's leg. */
  star: { xMm: number; yMm: number; padMm: number } | null;
  /** Whether the mains is on it. */
  mains: boolean;
  /** How wide it should be, mm. */
  wantedMm: number;
}

/** A board with tracks of its own, etched or ordered. */
export interface EtchedBoard {
  wMm: number;
  hMm: number;
  sides: 1 | 2;
  copperUm: number;
  /** What is kept between copper of two nets, mm; more where one is of the mains. */
  apartMm: number;
  parts: OnBoard[];
  branches: Branch[];
  tracks: Track[];
  /** One side: wires above it. */
  links: Link[];
  /** Two sides: holes that join them. */
  vias: { branch: number; xMm: number; yMm: number }[];
  /** Screws, mm. */
  holes: { xMm: number; yMm: number; drillMm: number }[];
  /** What found no place or no way. */
  left: { ref: string; why: string }[];
}

/** Between two poles of the mains, and from the mains to low volts and to metal that can be touched, mm; as usual at 230 V, the local code decides. */
export const POLES_MM = 3;
export const MAINS_MM = 8;

/** What copper of one branch keeps from that of another, mm. */
export function apartBetween(
  a: Pick<Branch, 'net' | 'mains'>,
  b: Pick<Branch, 'net' | 'mains'>,
  apartMm: number,
): number {
  if (a.net === b.net) return LEAST_MM;
  if (a.mains && b.mains) return Math.max(POLES_MM, apartMm);
  return a.mains || b.mains ? Math.max(MAINS_MM, apartMm) : apartMm;
}

/** What it keeps from a screw's head, mm. */
export const fromScrew = ({ mains }: Pick<Branch, 'mains'>, apartMm: number): number =>
  mains ? Math.max(MAINS_MM, apartMm) : apartMm;

/** Pads and drills of what joins: ends of links and of vias, mm. */
export const LINK_PAD = { padMm: 2, drillMm: 0.9 } as const;
export const VIA_PAD = { padMm: 1.5, drillMm: 0.8 } as const;
/** A screw of M3, and what its head covers, mm. */
export const SCREW = { drillMm: 3.2, headMm: 6.5 } as const;
/** Copper keeps so far from the edge, mm. */
export const EDGE_MM = 1;
/** Around a star's pad its two halves may touch, mm beyond the pad. */
export const STAR_MM = 1.2;
/** Parts stand on a grid of half a pitch, mm. */
export const GRID_MM = 1.27;
