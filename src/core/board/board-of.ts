import { flowsOf, type Flow } from '@/core/build/flows';
import type { BoardChoice, Design } from '@/core/design/design';
import { mainsSide } from '@/core/mains-side/mains-side';
import type { Netlist } from '@/core/netlist/netlist';
import { studyDesign, type Study } from '@/core/study/study';
import { etch, type Etching } from './etch';
import type { EtchedBoard } from './etched';
import type { Stripboard } from './on-strips';
import { outlineMm, stripboard } from './stripboard';
import { stripVolts } from './strip-loads';

/** The board a design is built on. */
export type MadeBoard = { kind: 'strips'; board: Stripboard } | { kind: 'etched'; board: EtchedBoard };

/** How a board with tracks is to be made for a design. */
export const etchingOf = (
  { sides, copperUm, places }: Pick<BoardChoice, 'copperUm' | 'places'> & { sides: 1 | 2 },
  study: Pick<Study, 'idle'>,
): Etching => ({ sides, copperUm, places, volts: stripVolts(study).value });

/** Sides with copper; null for strips. */
export const sidesOf = ({ kind }: Pick<BoardChoice, 'kind'>): 1 | 2 | null =>
  kind === 'strips' ? null : kind === 'one side' ? 1 : 2;

/** Who lays boards out; who asks often keeps their answers. */
export interface BoardMakers {
  strips: typeof stripboard;
  etch(netlist: Netlist, flows: readonly (readonly [string, Flow])[], etching: Etching): EtchedBoard;
}

const MAKERS: BoardMakers = { strips: stripboard, etch: (netlist, flows, how) => etch(netlist, new Map(flows), how) };

/** The board a design is built on, of the kind that was chosen. @throws SolveError where tracks need what cannot be solved */
export function boardOf(design: Design, netlist: Netlist, makers: BoardMakers = MAKERS): MadeBoard {
  const { board } = design.build;
  const sides = sidesOf(board);
  if (sides === null) return { kind: 'strips', board: makers.strips(netlist, board.strips) };
  const study = studyDesign(design);
  const flows = flowsOf(study, netlist, mainsSide(study));
  return { kind: 'etched', board: makers.etch(netlist, [...flows], etchingOf({ ...board, sides }, study)) };
}

/** A board's edges, mm; null where nothing is on it. */
export function outlineOf(made: MadeBoard): { wMm: number; dMm: number } | null {
  if (made.kind === 'strips') return outlineMm(made.board);
  const { wMm, hMm, parts } = made.board;
  return parts.length === 0 ? null : { wMm: Math.ceil(wMm), dMm: Math.ceil(hMm) };
}
