import { strToU8, zipSync } from 'fflate';
import { boardCsv, centroidCsv } from './centroid';
import type { EtchedBoard } from './etched';
import { gerberFiles } from './gerber';

/** A day before which no archive can be dated: the same board gives the same bytes. */
const NO_DAY = new Date(1980, 0, 1);

/** What a board house asks for, and what goes where, in one archive. */
export function boardZip(board: EtchedBoard, name: string, volts: ReadonlyMap<string, string>): Uint8Array {
  const files = [
    ...gerberFiles(board, volts),
    { suffix: 'centroid.csv', text: centroidCsv(board) },
    { suffix: 'board.csv', text: boardCsv(board) },
  ];
  return zipSync(Object.fromEntries(files.map((f) => [`${name}-${f.suffix}`, strToU8(f.text)])), { mtime: NO_DAY });
}
