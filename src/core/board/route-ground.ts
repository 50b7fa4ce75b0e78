import { LINK_PAD, VIA_PAD, type Branch, type OnBoard } from './etched';
import { ABOVE, CELL_MM, cellsOf, UNDER, type Grid } from './route-grid';

/** What tracks are laid on. */
export interface Ground {
  wMm: number;
  hMm: number;
  sides: 1 | 2;
  apartMm: number;
  parts: readonly OnBoard[];
  branches: readonly Branch[];
  screws: readonly { xMm: number; yMm: number }[];
}

/** Tracks are laid at this width and widened where there is room, mm. */
export const TRACK_MM = 0.8;
/** Between bare wires above the board, mm. */
export const WIRE_GAP_MM = 1.4;
/** A grid's cells are told by their middles: what that can miss, mm. */
export const SLACK_MM = 0.08;
/** Layers of copper. */
export const copperOf = (sides: 1 | 2): readonly number[] => (sides === 2 ? [UNDER, ABOVE] : [UNDER]);
/** Pads where layers are joined, mm. */
export const holeMm = (sides: 1 | 2): number => (sides === 2 ? VIA_PAD : LINK_PAD).padMm;

/** Whether a pad belongs to a branch: to its own, and a star's to both. */
export function isOn({ branches }: Pick<Ground, 'branches'>, pad: OnBoard['pads'][number], branch: number): boolean {
  if (pad.branch === branch) return true;
  const { star, net } = branches[branch]!;
  return star !== null && pad.net === net && star.xMm === pad.xMm && star.yMm === pad.yMm;
}

/** The nodes of a leg: it goes through all copper. */
export const nodesAt = (grid: Grid, xMm: number, yMm: number): number[] => {
  const cell = Math.round(yMm / CELL_MM) * grid.columns + Math.round(xMm / CELL_MM);
  return grid.sides === 2 ? [cell, cellsOf(grid) + cell] : [cell];
};
