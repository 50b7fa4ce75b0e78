import { boardOf, outlineOf } from '@/core/board/board-of';
import { boardWords } from '@/core/board/board-words';
import type { EtchedBoard, OnBoard, Rect } from '@/core/board/etched';
import { etchedFaults } from '@/core/board/etched-check';
import type { Stripboard } from '@/core/board/on-strips';
import { overlapsOf } from '@/core/board/overlaps';
import { onCopper, stripDrawing, type StripShape } from '@/core/board/strip-drawing';
import { stripPdf } from '@/core/board/strip-pdf';
import { stripboard } from '@/core/board/stripboard';
import { sectionFor } from '@/core/build/wire-size';
import { applyPatch, type BoardChoice } from '@/core/design/design';
import { netlistOf } from '@/core/netlist/netlist-of';
import { clock, drum } from '../support/demos';
import { readPaths, type PrintedPath } from '../support/read-paths';

describe.each([
  ['drum', drum],
  ['clock', clock],
] as const)('the print of a board of strips, %s, read by its operators', (_name, design) => {
  const board = stripboard(netlistOf(design));
  const { wMm, shapes } = stripDrawing(board);
  let pages: PrintedPath[][];
  beforeAll(async () => {
    pages = await readPaths(await stripPdf(board, 'A board'));
  });
  const of = <K extends StripShape['kind']>(kind: K, list = shapes) =>
    list.filter((s) => s.kind === kind) as Extract<StripShape, { kind: K }>[];
  /** A place of the drawing on the sheet: 15 mm from its left and upper edge of 297 mm. */
  const X = (mm: number, mirrored: boolean) => 15 + (mirrored ? wMm - mm : mm);
  const Y = (mm: number) => 297 - 15 - mm;
  const spans = (
    paths: readonly PrintedPath[],
    [xa, ya, xb, yb]: readonly [number, number, number, number],
    mirrored: boolean,
    is: (p: PrintedPath) => boolean,
  ) => {
    const [x0, x1] = [X(xa, mirrored), X(xb, mirrored)].sort((a, b) => a - b) as [number, number];
    const [y0, y1] = [Y(ya), Y(yb)].sort((a, b) => a - b) as [number, number];
    const near = (a: number, b: number) => Math.abs(a - b) < 0.01;
    return paths.filter((p) => near(p.x0, x0) && near(p.x1, x1) && near(p.y0, y0) && near(p.y1, y1) && is(p)).length;
  };

  test.each([
    [0, false],
    [1, true],
  ] as const)('page %d: strips, holes and cuts lie where they are, at their own size', (n, mirrored) => {
    const paths = pages[n]!;
    for (const s of of('strip'))
      expect([s.key, spans(paths, [s.x, s.y, s.x + s.w, s.y + s.h], mirrored, (p) => p.filled && !p.curved)]).toEqual([
        s.key,
        1,
      ]);
    for (const h of of('hole')) {
      const box = [h.x - 0.5, h.y - 0.5, h.x + 0.5, h.y + 0.5] as const;
      expect([h.key, spans(paths, box, mirrored, (p) => p.curved)]).toEqual([h.key, 1]);
    }
    for (const c of of('cut')) {
      // Two strokes of 0.5 mm that cross in the hole.
      const box = [c.x - 0.9, c.y - 0.9, c.x + 0.9, c.y + 0.9] as const;
      const strokes = (p: PrintedPath) => !p.filled && Math.abs(p.lineMm - 0.5) < 1e-6;
      expect([c.key, spans(paths, box, mirrored, strokes)]).toEqual([c.key, 2]);
    }
  });

  test('parts, leads, links and legs lie on the side of the parts and nowhere else', () => {
    const paths = pages[0]!;
    for (const b of of('body')) {
      const box = [b.x, b.y, b.x + b.w, b.y + b.h] as const;
      expect([b.key, spans(paths, box, false, (p) => p.curved === b.round && p.lineMm > 0 && p.filled)]).toEqual([
        b.key,
        1,
      ]);
    }
    for (const l of [...of('link'), ...of('lead')]) {
      const wide = l.kind === 'link' ? 0.7 : 0.3;
      const dashed = l.kind === 'link' && l.insulated;
      const is = (p: PrintedPath) => !p.filled && Math.abs(p.lineMm - wide) < 1e-6 && p.dashed === dashed;
      expect([l.key, spans(paths, [l.x1, l.y1, l.x2, l.y2], false, is)]).toEqual([l.key, 1]);
    }
    for (const p of of('pin')) {
      const r = p.wire ? 0.9 : 0.6;
      const found = spans(paths, [p.x - r, p.y - r, p.x + r, p.y + r], false, (it) => it.curved && it.lineMm === 0);
      expect([p.key, found]).toEqual([p.key, 1]);
    }
    // The line to check the print by and its two ends are all a page has besides.
    const drawn = (list: readonly StripShape[]) =>
      list.reduce((sum, s) => sum + (s.kind === 'text' ? 0 : s.kind === 'cut' ? 2 : 1), 0);
    expect(pages.map((p) => p.length)).toEqual([drawn(shapes) + 3, drawn(shapes.filter(onCopper)) + 3]);
    const check = paths.find((p) => Math.abs(p.x1 - p.x0 - 100) < 1e-6)!;
    expect(check.x0).toBeCloseTo(15, 6);
  });
});

const part = (ref: string, body: Rect, pads: readonly (readonly [number, number])[] = [], more = {}): OnBoard => ({
  ref,
  of: ref,
  key: ref,
  value: '',
  wire: false,
  polarised: false,
  heat: null,
  round: false,
  turn: 0,
  xMm: body.x0,
  yMm: body.y0,
  body,
  pads: pads.map(([xMm, yMm], n) => ({ name: String(n), net: 'n', branch: 0, xMm, yMm, drillMm: 0.8, padMm: 2 })),
  ...more,
});
const rect = (x0: number, y0: number, x1: number, y1: number): Rect => ({ x0, y0, x1, y1 });

test('what hangs over an edge is named for each of the four, what lies on another with it; touching is neither', () => {
  const on = (...bodies: Rect[]) => overlapsOf({ wMm: 60, hMm: 40, parts: bodies.map((b, n) => part(`P${n + 1}`, b)) });
  for (const over of [rect(-0.1, 5, 8, 9), rect(5, -0.1, 8, 9), rect(50, 5, 60.1, 9), rect(5, 30, 8, 40.1)])
    expect(on(over)).toEqual([['P1', 'the edge']]);
  expect(on(rect(0, 0, 60, 40))).toEqual([]);
  expect(on(rect(0, 0, 20, 20), rect(20, 0, 40, 20), rect(0, 20, 20, 40))).toEqual([]);
  expect(on(rect(0, 0, 20, 20), rect(19.9, 19.9, 40, 40))).toEqual([['P1', 'P2']]);
  expect(on(rect(0, 0, 20, 20), rect(19.9, 20, 40, 40), rect(5, 5, 8, 8))).toEqual([['P1', 'P3']]);
  // A wire leaves over the edge.
  expect(overlapsOf({ wMm: 60, hMm: 40, parts: [part('J1', rect(-5, 5, 2, 9), [], { wire: true })] })).toEqual([]);
});

describe('where a name is written', () => {
  const board = (pads: readonly (readonly [number, number])[], more: Partial<EtchedBoard> = {}): EtchedBoard => ({
    wMm: 60,
    hMm: 40,
    sides: 1,
    copperUm: 35,
    apartMm: 0.5,
    parts: [part('R1', rect(10, 10, 40, 30), pads)],
    branches: [],
    tracks: [],
    links: [],
    vias: [],
    holes: [],
    left: [],
    ...more,
  });
  const at = (b: EtchedBoard) => boardWords(b, new Map()).map((w) => [w.text, w.x, w.y]);

  test('in the middle of its body; a quarter of it aside, then to the other side, where legs are in the way', () => {
    expect(at(board([]))).toEqual([['R1', 25, 20]]);
    expect(at(board([[25, 20]]))).toEqual([['R1', 25, 25]]);
    expect(
      at(
        board([
          [25, 20],
          [25, 25],
        ]),
      ),
    ).toEqual([['R1', 25, 15]]);
    const column = [20, 25, 15, 28, 12];
    expect(at(board(column.map((y) => [25, y] as const)))).toEqual([['R1', 32.5, 20]]);
  });

  test('a leg counts over its whole pad, an end of a link and a joint of both sides like one', () => {
    // The name is 2.55 mm wide and 1.5 high, with a quarter around it: clear of a pad of 2 mm only beyond 2.525 and 2.
    expect(at(board([[22.4, 20]]))).toEqual([['R1', 25, 20]]);
    expect(at(board([[22.6, 20]]))).toEqual([['R1', 25, 25]]);
    expect(at(board([[27.6, 20]]))).toEqual([['R1', 25, 20]]);
    expect(at(board([[27.4, 20]]))).toEqual([['R1', 25, 25]]);
    expect(at(board([[25, 17.9]]))).toEqual([['R1', 25, 20]]);
    expect(at(board([[25, 18.1]]))).toEqual([['R1', 25, 25]]);
    expect(at(board([[25, 22.1]]))).toEqual([['R1', 25, 20]]);
    expect(at(board([], { vias: [{ branch: 0, xMm: 25, yMm: 20 }] }))).toEqual([['R1', 25, 25]]);
    for (const ends of [
      { x1: 25, y1: 20, x2: 50, y2: 20 },
      { x1: 50, y1: 20, x2: 25, y2: 20 },
    ])
      expect(at(board([], { links: [{ branch: 0, ...ends }] }))).toEqual([['R1', 25, 25]]);
  });
});

test('a section’s working: each input as it is, and the rule they are put to comes out', () => {
  for (const [role, rmsA, railV, lengthM] of [
    ['output', 2, 1, 0.3],
    ['rail', 3.2, 24, 0.5],
    ['winding', 0.02, 12, 0.2],
    ['mains', 3.9, 24, 0.3],
  ] as const) {
    const { figure } = sectionFor(role, rmsA, railV, lengthM);
    const input = (label: RegExp) => figure.inputs.find((i) => label.test(i.label))?.value;
    const sold = [0.25, 0.34, 0.5, 0.75, 1, 1.5, 2.5];
    expect(input(/^flows/)).toBe(rmsA);
    expect(input(/by what it carries/)).toBeCloseTo(rmsA / 4, 12);
    const drop = [Math.min(railV / 100, 0.05)].filter(() => role !== 'mains');
    expect(figure.inputs.filter((i) => i.label === 'may lose').map((i) => i.value)).toEqual(drop);
    const lost = drop.map((v) => (0.0172 * lengthM * rmsA) / v);
    const told = figure.inputs.filter((i) => i.label === `by what it loses over ${lengthM} m, mm²`);
    expect(told.map((i) => i.value.toFixed(9))).toEqual(lost.map((mm2) => mm2.toFixed(9)));
    const least = role === 'mains' ? 0.75 : 0.25;
    expect(figure.value).toBe(sold.find((s) => s >= Math.max(rmsA / 4, least, ...lost)));
  }
});

describe('a board is made as it was chosen', () => {
  const chosen = (kind: BoardChoice['kind']) =>
    applyPatch(clock, { build: { ...clock.build, board: { ...clock.build.board, kind } } });

  test('of strips, with copper on one side, or on two', () => {
    const made = (kind: BoardChoice['kind']) => boardOf(chosen(kind), netlistOf(clock));
    const strips = made('strips');
    const outline = outlineOf(strips)!;
    const { strips: rows, holes } = strips.board as Stripboard;
    expect([strips.kind, outline.wMm, outline.dMm]).toEqual([
      'strips',
      Math.round(holes * 2.54),
      Math.round(rows * 2.54),
    ]);
    for (const [kind, sides] of [
      ['one side', 1],
      ['two sides', 2],
    ] as const) {
      const etched = made(kind);
      const board = etched.board as EtchedBoard;
      expect([etched.kind, board.sides]).toEqual(['etched', sides]);
      expect(outlineOf(etched)).toEqual({ wMm: Math.ceil(board.wMm), dMm: Math.ceil(board.hMm) });
      // Wires above it on one side, holes through it on two.
      expect([board.vias.length > 0 && sides === 1, board.links.length > 0 && sides === 2]).toEqual([false, false]);
    }
  });

  test('strips have a hole each pitch, a letter each strip and a number every five', () => {
    const board = stripboard(netlistOf(drum));
    const { shapes } = stripDrawing(board);
    const keys = (kind: StripShape['kind'], key = /./) =>
      shapes.filter((s) => s.kind === kind && key.test(s.key)).map((s) => s.key);
    expect(new Set(keys('hole')).size).toBe(board.strips * board.holes);
    expect(keys('hole')).toHaveLength(board.strips * board.holes);
    expect(keys('text', /^letter /)).toHaveLength(board.strips);
    expect(keys('text', /^number /)).toHaveLength(Math.floor(board.holes / 5));
    expect(keys('cut')).toHaveLength(board.cuts.length);
    expect(keys('link')).toHaveLength(board.links.length);
  });

  test('a name stands beside legs in a row, above two that are close, else in the middle of its part', () => {
    for (const design of [clock, drum]) {
      const board = stripboard(netlistOf(design));
      const { shapes } = stripDrawing(board);
      for (const { ref, legs } of board.parts.filter((p) => !p.wire)) {
        const body = shapes.find((s) => s.key === `${ref} body`) as Extract<StripShape, { kind: 'body' }>;
        const name = shapes.find((s) => s.key === `${ref} text`) as Extract<StripShape, { kind: 'text' }>;
        const [x, y] = [body.x + body.w / 2, body.y + body.h / 2];
        const apart = Math.abs(legs[0]!.at.strip - legs.at(-1)!.at.strip);
        const inside = legs.filter((l) => 6 + 2.54 * l.at.strip > body.y && 6 + 2.54 * l.at.strip < body.y + body.h);
        const close = legs.length === 2 && apart < 2 && inside.length > 0;
        expect([ref, Math.abs(name.x - x)]).toEqual([ref, expect.closeTo(legs.length > 2 ? 0.9 : 0, 6)]);
        expect([ref, name.y - (close ? body.y : y)]).toEqual([ref, expect.closeTo(close ? 2.2 : 0.8, 6)]);
      }
    }
  });
});

test('copper that ends a hair short of a leg is joined to it, a tenth of a millimetre short it is not', () => {
  const board = (shortMm: number): EtchedBoard => ({
    wMm: 60,
    hMm: 40,
    sides: 1,
    copperUm: 35,
    apartMm: 0.5,
    parts: [part('R1', rect(10, 10, 12, 12), [[11, 20]]), part('R2', rect(40, 10, 42, 12), [[41, 20]])],
    branches: [{ net: 'n', carries: 'all', star: null, mains: false, wantedMm: 1 }],
    // Pads of 2 mm, a track of 1 mm: its round end begins half a millimetre before it.
    tracks: [{ layer: 'under', branch: 0, x1: 12.5 + shortMm, y1: 20, x2: 41, y2: 20, widthMm: 1 }],
    links: [],
    vias: [],
    holes: [],
    left: [],
  });
  expect(etchedFaults(board(0)).apart).toEqual([]);
  expect(etchedFaults(board(0.0005)).apart).toEqual([]);
  expect(etchedFaults(board(0.1)).apart).toEqual(['n']);
});
