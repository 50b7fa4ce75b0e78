import type { BoxFace } from '@/core/design/design';
import type { Hole, Size } from '@/core/parts/footprints';

/** What is on a part, as its distances go by it. A transformer has mains at one side and low volts at the other. */
export type Carries = 'mains' | 'low' | 'both' | 'input';

/** A part, or several that are built in as one, as it takes up room in the box. */
export interface Block {
  /** What it is known by: the reference of its first part, 'board', 'sink', or what the person called it. */
  id: string;
  /** As it is printed in its place. */
  label: string;
  /** What it is, in words. */
  what: string;
  /** Where it goes unless it is put elsewhere, and where it may. */
  face: BoxFace;
  may: readonly BoxFace[];
  round: boolean;
  size: Size;
  origin: 'typical' | 'rule of thumb' | 'drawer' | 'measured';
  /** What it needs of its panel; null for what stands on the floor. */
  hole: Hole | null;
  /** Of several holes: how many, and how far apart, mm. */
  holes: { count: number; apartMm: number };
  carries: Carries;
  /** Gives off heat others have to keep away from. */
  hot: boolean;
  /** Minds heat. */
  can: boolean;
  /** Iron with a field around it; its volt-amperes. */
  fieldVA: number | null;
  /** Fins that want air below and above. */
  fins: boolean;
  /** Outside the box: it takes up panel, not room. */
  outside: boolean;
  /** Stands on stand-offs of so many mm. */
  standOffMm: number;
  /** Screws it is held by through the floor, so far in from the corners of its footprint, mm; typical. */
  screws: { count: 0 | 1 | 2 | 4; diameterMm: number; insetMm: number };
  /** What is written beside each of its holes. */
  labels: readonly string[];
  /** Every net that is on it: volts that hurt are marked. */
  nets: readonly string[];
  /** What it is wired to, by id: near is short. */
  near: readonly string[];
}

/** Where a block is: its middle, from the left and from the front; on a panel from the left and from the floor, mm. */
export interface Spot {
  face: BoxFace;
  xMm: number;
  yMm: number;
  turned: boolean;
}

export interface PlacedBlock {
  block: Block;
  spot: Spot;
  /** Put there by the person. */
  byHand: boolean;
}

/** Inside of a box, mm. */
export interface Inside {
  wMm: number;
  dMm: number;
  hMm: number;
}
