import { boardLayer, drilled } from './board-layers';
import type { BoardShape } from './board-shape';
import type { EtchedBoard } from './etched';

/** A board on paper: its copper from below as it lies, mirrored to be ironed or exposed on, or its parts from above. */
export type PrintView = 'copper mirrored' | 'copper' | 'parts' | 'copper above';

export type Printed =
  | { kind: 'dot'; x: number; y: number; d: number; ink: 'black' | 'white' }
  | { kind: 'stroke'; x1: number; y1: number; x2: number; y2: number; w: number };

/** The hole a drill finds by itself, mm. */
const CENTRE_MM = 0.5;

/** Which pictures a board is printed in. Toner goes on face down: of what is under the board the picture as seen from above. */
export const printViews = ({ sides }: EtchedBoard): readonly PrintView[] =>
  sides === 2 ? ['copper mirrored', 'copper above', 'copper', 'parts'] : ['copper mirrored', 'copper', 'parts'];

/** What each is, in words. */
export const PRINT_WORDS: Readonly<Record<PrintView, string>> = {
  'copper mirrored': 'copper under the board, seen from above through it: for toner or a film laid ink down',
  copper: 'copper under the board, seen from below: as it will look',
  'copper above': 'copper above the board, mirrored: for toner or a film laid ink down',
  parts: 'parts and links, seen from above',
};

/** A view as black and white dots and strokes, mm from its upper left corner. */
export function printed(board: EtchedBoard, view: PrintView, volts: ReadonlyMap<string, string>): Printed[] {
  const turned = view === 'copper' || view === 'copper above';
  const X = (x: number) => (turned ? board.wMm - x : x);
  const ink = (shapes: readonly BoardShape[]): Printed[] =>
    shapes.map((s) =>
      s.kind === 'flash'
        ? { kind: 'dot', x: X(s.x), y: s.y, d: s.d, ink: 'black' }
        : { kind: 'stroke', x1: X(s.x1), y1: s.y1, x2: X(s.x2), y2: s.y2, w: s.w },
    );
  const holes = (d: (full: number) => number): Printed[] =>
    drilled(board).map((h) => ({ kind: 'dot', x: X(h.x), y: h.y, d: d(h.d), ink: 'white' }));
  const outline = ink(boardLayer(board, 'outline', volts));
  if (view === 'parts') {
    const pads = boardLayer(board, 'copper under', volts).filter((s) => s.kind === 'flash');
    return [...ink(pads), ...holes((d) => d), ...ink(boardLayer(board, 'silk', volts)), ...outline];
  }
  const layer = view === 'copper above' ? 'copper above' : 'copper under';
  return [...ink(boardLayer(board, layer, volts)), ...holes(() => CENTRE_MM), ...outline];
}
