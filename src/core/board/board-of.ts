import { flowsOf, type Flow } from '@/core/build/flows';
import type { BoardChoice, Design } from '@/core/design/design';
import { mainsSide } from '@/core/mains-side/mains-side';
import type { Netlist } from '@/core/netlist/netlist';
import type { Figure } from '@/core/study/figure';
import { studyDesign } from '@/core/study/study';
import { wantedWidths } from './branches';
import { distanceMm } from './copper-rules';
import { etch, type Etching } from './etch';
import type { EtchedBoard } from './etched';
import type { Stripboard } from './on-strips';
import { outlineMm, stripboard } from './stripboard';
import { stripVolts } from './strip-loads';

/** The board a design is built on. */
export type MadeBoard = { kind: 'strips'; board: Stripboard } | { kind: 'etched'; board: EtchedBoard };

/** Sides with copper; null for strips. */
export const sidesOf = ({ kind }: Pick<BoardChoice, 'kind'>): 1 | 2 | null =>
  kind === 'strips' ? null : kind === 'one side' ? 1 : 2;

/** Who lays boards out; who asks often keeps their answers. */
export interface BoardMakers {
  strips: typeof stripboard;
  etch: typeof etch;
}

const MAKERS: BoardMakers = { strips: stripboard, etch };

/** How a board with tracks is to be made for a design. */
export function etchingOf(
  { copperUm, places }: Pick<BoardChoice, 'copperUm' | 'places'>,
  sides: 1 | 2,
  { netlist, flows, volts }: { netlist: Netlist; flows: ReadonlyMap<string, Flow>; volts: Figure },
): Etching {
  return {
    sides,
    copperUm,
    places,
    apartMm: distanceMm(volts.value),
    widths: wantedWidths(netlist, flows, copperUm),
  };
}

/** The board a design is built on, of the kind that was chosen. @throws SolveError where tracks need what cannot be solved */
export function boardOf(design: Design, netlist: Netlist, makers: BoardMakers = MAKERS): MadeBoard {
  const { board } = design.build;
  const sides = sidesOf(board);
  if (sides === null) return { kind: 'strips', board: makers.strips(netlist, board.strips) };
  const study = studyDesign(design);
  const flows = flowsOf(study, netlist, mainsSide(study));
  const how = etchingOf(board, sides, { netlist, flows, volts: stripVolts(study) });
  return { kind: 'etched', board: makers.etch(netlist, how) };
}

/** A board's edges, mm; null where nothing is on it. */
export function outlineOf(made: MadeBoard): { wMm: number; dMm: number } | null {
  if (made.kind === 'strips') return outlineMm(made.board);
  const { wMm, hMm, parts } = made.board;
  return parts.length === 0 ? null : { wMm: Math.ceil(wMm), dMm: Math.ceil(hMm) };
}
