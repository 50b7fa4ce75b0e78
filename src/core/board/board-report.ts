import { flowsOf } from '@/core/build/flows';
import type { Design } from '@/core/design/design';
import { mainsSide } from '@/core/mains-side/mains-side';
import { netlistOf } from '@/core/netlist/netlist-of';
import type { Figure } from '@/core/study/figure';
import { studyDesign } from '@/core/study/study';
import { etchingOf, sidesOf } from './board-of';
import { etching, type EtchProgress, type Etching } from './etch';
import type { EtchedBoard } from './etched';
import { etchedFaults, type EtchedFaults } from './etched-check';
import type { Stripboard } from './on-strips';
import { stripFaults, type StripFaults } from './strip-check';
import { stripLoads, stripVolts, type StripLoad } from './strip-loads';
import { stripboard } from './stripboard';
import { apartFigure, trackLoads, type TrackLoad } from './track-loads';
import type { Netlist } from '@/core/netlist/netlist';

/** A board with what was found of it. */
export type BoardReport = {
  /** The highest volts between two of its nets. */
  volts: Figure;
} & (
  | { kind: 'strips'; board: Stripboard; faults: StripFaults; loads: StripLoad[] }
  | { kind: 'etched'; board: EtchedBoard; faults: EtchedFaults; loads: TrackLoad[]; apart: Figure }
);

/** Who lays boards out step by step; who asks often keeps their answers. */
export interface SteppedMakers {
  strips: typeof stripboard;
  etching(netlist: Netlist, how: Etching): Generator<EtchProgress, EtchedBoard>;
}

/** The board a design is built on, found again from its copper, and what that has to bear. @throws SolveError */
export function* reportingBoard(
  design: Design,
  makers: SteppedMakers = { strips: stripboard, etching },
): Generator<EtchProgress, BoardReport> {
  const netlist = netlistOf(design);
  const study = studyDesign(design);
  const flows = flowsOf(study, netlist, mainsSide(study));
  const volts = stripVolts(study);
  const choice = design.build.board;
  const sides = sidesOf(choice);
  if (sides === null) {
    const board = makers.strips(netlist, choice.strips);
    const loads = stripLoads(board, netlist, flows, design.demand.outputV);
    return { kind: 'strips', board, faults: stripFaults(board), loads, volts };
  }
  const board = yield* makers.etching(netlist, etchingOf(choice, sides, { netlist, flows, volts }));
  return {
    kind: 'etched',
    board,
    faults: etchedFaults(board),
    loads: trackLoads(board, netlist, flows),
    volts,
    apart: apartFigure(board, volts),
  };
}
