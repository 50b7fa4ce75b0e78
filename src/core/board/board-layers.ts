import { LINK_PAD, VIA_PAD, type EtchedBoard, type Layer } from './etched';
import type { BoardShape } from './board-shape';
import { boardText } from './board-text';
import { boardWords, line, markOf, SILK_MM } from './board-words';

export type LayerName = 'copper under' | 'copper above' | 'mask under' | 'mask above' | 'silk' | 'outline';

/** A hole as it is drilled; through copper, plated where there are two sides. */
export interface Drilled {
  x: number;
  y: number;
  d: number;
  screw: boolean;
}

/** Solder resist leaves so much around a pad free, mm. */
const MASK_MM = 0.1;
const OUTLINE_MM = 0.1;

/** The layers of a board that are made: of two sides with copper above, of one with links printed where they go. */
export const layersOf = ({ sides }: EtchedBoard): LayerName[] =>
  sides === 2
    ? ['copper under', 'copper above', 'mask under', 'mask above', 'silk', 'outline']
    : ['copper under', 'mask under', 'silk', 'outline'];

/**
 * One layer of a board.
 * @param volts what its test points should read, by net, in words; printed beside the wires that leave the board
 */
export function boardLayer(board: EtchedBoard, layer: LayerName, volts: ReadonlyMap<string, string>): BoardShape[] {
  switch (layer) {
    case 'copper under':
      return copper(board, 'under');
    case 'copper above':
      return copper(board, 'above');
    case 'mask under':
      return flashes(board, board.sides === 2 ? [] : board.links).map((f) => ({
        ...f,
        d: f.d + 2 * MASK_MM,
        net: null,
      }));
    case 'mask above':
      return flashes(board, []).map((f) => ({ ...f, d: f.d + 2 * MASK_MM, net: null }));
    case 'silk':
      return silk(board, volts);
    case 'outline':
      return rectangle(0, 0, board.wMm, board.hMm, OUTLINE_MM);
  }
}

type Flash = Extract<BoardShape, { kind: 'flash' }>;

const netOf = ({ branches }: EtchedBoard, branch: number) => branches[branch]!.net;

/** Legs and ends of links. */
function flashes(board: EtchedBoard, links: EtchedBoard['links']): Flash[] {
  return [
    ...board.parts.flatMap(({ ref, pads }) =>
      pads.map((p): Flash => ({
        kind: 'flash',
        x: p.xMm,
        y: p.yMm,
        d: p.padMm,
        net: p.net,
        pin: { ref, name: p.name },
      })),
    ),
    ...links.flatMap((l) =>
      [
        [l.x1, l.y1],
        [l.x2, l.y2],
      ].map(([x, y]): Flash => ({
        kind: 'flash',
        x: x!,
        y: y!,
        d: LINK_PAD.padMm,
        net: netOf(board, l.branch),
        pin: null,
      })),
    ),
  ];
}

function copper(board: EtchedBoard, side: Layer): BoardShape[] {
  return [
    ...flashes(board, board.links),
    ...board.vias.map((v): Flash => ({
      kind: 'flash',
      x: v.xMm,
      y: v.yMm,
      d: VIA_PAD.padMm,
      net: netOf(board, v.branch),
      pin: null,
    })),
    ...board.tracks
      .filter((t) => t.layer === side)
      .map((t): BoardShape => ({
        kind: 'stroke',
        x1: t.x1,
        y1: t.y1,
        x2: t.x2,
        y2: t.y2,
        w: t.widthMm,
        net: netOf(board, t.branch),
      })),
  ];
}

/** Every hole of a board. */
export function drilled({ parts, links, vias, holes }: EtchedBoard): Drilled[] {
  return [
    ...parts.flatMap((p) => p.pads.map((pad) => ({ x: pad.xMm, y: pad.yMm, d: pad.drillMm, screw: false }))),
    ...links.flatMap((l) => [
      { x: l.x1, y: l.y1, d: LINK_PAD.drillMm, screw: false },
      { x: l.x2, y: l.y2, d: LINK_PAD.drillMm, screw: false },
    ]),
    ...vias.map((v) => ({ x: v.xMm, y: v.yMm, d: VIA_PAD.drillMm, screw: false })),
    ...holes.map((h) => ({ x: h.xMm, y: h.yMm, d: h.drillMm, screw: true })),
  ];
}

function rectangle(x0: number, y0: number, x1: number, y1: number, w = SILK_MM): BoardShape[] {
  return [line(x0, y0, x1, y0, w), line(x1, y0, x1, y1, w), line(x1, y1, x0, y1, w), line(x0, y1, x0, y0, w)];
}

const CIRCLE_STEPS = 48;
function circle(x: number, y: number, r: number): BoardShape[] {
  const at = (n: number) => {
    const angle = (2 * Math.PI * n) / CIRCLE_STEPS;
    return [x + r * Math.cos(angle), y + r * Math.sin(angle)] as const;
  };
  return Array.from({ length: CIRCLE_STEPS }, (_, n) => line(...at(n), ...at(n + 1)));
}

/** Bodies, which way round they go in, and what is written on them. */
function silk(board: EtchedBoard, volts: ReadonlyMap<string, string>): BoardShape[] {
  return [
    ...board.parts.filter((p) => !p.wire).flatMap((p) => [...bodyOf(p), ...markOf(p)]),
    ...board.links.map((l) => line(l.x1, l.y1, l.x2, l.y2, 2 * SILK_MM)),
    ...boardWords(board, volts).flatMap(({ text, x, y, mm }) =>
      boardText(text, { x, y, mm }).map(([a, b]) => line(a[0], a[1], b[0], b[1])),
    ),
  ];
}

function bodyOf({ body: { x0, y0, x1, y1 }, round }: EtchedBoard['parts'][number]): BoardShape[] {
  return round ? circle((x0 + x1) / 2, (y0 + y1) / 2, (x1 - x0) / 2) : rectangle(x0, y0, x1, y1);
}
