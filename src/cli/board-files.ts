import { byNet, saidVolts } from '@/core/bench/said-volts';
import { mainsForReadings } from '@/core/bench/readings';
import { testPoints } from '@/core/bench/test-points';
import { boardOf } from '@/core/board/board-of';
import { boardPdf } from '@/core/board/board-pdf';
import { printViews } from '@/core/board/board-print';
import { boardSvg } from '@/core/board/board-svg';
import { boardCsv, centroidCsv } from '@/core/board/centroid';
import { gerberFiles } from '@/core/board/gerber';
import { stripCsv } from '@/core/board/strip-names';
import { stripPdf } from '@/core/board/strip-pdf';
import { stripSvg } from '@/core/board/strip-svg';
import type { Design } from '@/core/design/design';
import { netlistOf } from '@/core/netlist/netlist-of';

export type NamedFile = [name: string, content: string | Uint8Array];

/** The files of the board a design is built on, of the kind it says; a sentence where there is none. @throws SolveError */
export async function boardFiles(design: Design): Promise<NamedFile[] | string> {
  const netlist = netlistOf(design);
  const made = boardOf(design, netlist);
  const { left, parts } = made.board;
  if (parts.length === 0 || left.length > 0) {
    const why = left.slice(0, 3).map((l) => `${l.ref} ${l.why}`);
    return `on its board ${why.join('; ') || 'is nothing'}`;
  }
  if (made.kind === 'strips') {
    const { board } = made;
    return [
      ['board-parts.svg', stripSvg(board, design.name, false)],
      ['board-copper.svg', stripSvg(board, design.name, true)],
      ['board.pdf', await stripPdf(board, design.name)],
      ['board.csv', stripCsv(board)],
    ];
  }
  const { board } = made;
  const volts = byNet(netlist, saidVolts(netlist, testPoints(design, mainsForReadings(design))));
  return [
    ...gerberFiles(board, volts).map((f): NamedFile => [`board-${f.suffix}`, f.text]),
    ...printViews(board).map((view): NamedFile => [
      `board-${view.replace(/ /g, '-')}.svg`,
      boardSvg(board, view, design.name, volts),
    ]),
    ['board.pdf', await boardPdf(board, design.name, volts)],
    ['centroid.csv', centroidCsv(board)],
    ['board.csv', boardCsv(board)],
  ];
}
