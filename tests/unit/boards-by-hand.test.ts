import { markOf } from '@/core/board/board-words';
import type { EtchedBoard } from '@/core/board/etched';
import { stripDrawing, SIDE_MM, type StripShape } from '@/core/board/strip-drawing';
import { stripboard } from '@/core/board/stripboard';
import type { Stripboard } from '@/core/board/on-strips';
import { gapMm, planGap, type Solid } from '@/core/box/solid';
import { flowWhere, type Flow } from '@/core/build/flows';
import { netlistOf } from '@/core/netlist/netlist-of';
import { clock, dome, drum, physics } from '../support/demos';

/** Which way round, and what is where, on boards: against places worked out by hand. */

type Etched = EtchedBoard['parts'][number];

const two = (names: [string, string], at: [number, number][], polarised: boolean): Etched =>
  ({
    polarised,
    body: { x0: -4, y0: -3, x1: 4, y1: 3 },
    pads: names.map((name, n) => ({ name, xMm: at[n]![0], yMm: at[n]![1], padMm: 2 })),
  }) as unknown as Etched;

describe('which way round a part is etched', () => {
  test.each([
    ['right', [5, 0], [-5, 0], [7.1, 0]],
    ['left', [-5, 0], [5, 0], [-7.1, 0]],
    ['below', [0, 5], [0, -5], [0, 7.1]],
    ['above', [0, -5], [0, 5], [0, -7.1]],
    ['askew', [3, 4], [0, 0], [3 + 0.6 * 2.1, 4 + 0.8 * 2.1]],
  ] as const)('the plus of a can whose plus is %s lies beyond it, away from the other leg', (_, plus, minus, mark) => {
    const shapes = markOf(two(['plus', 'minus'], [[...plus], [...minus]], true)) as {
      x1: number;
      y1: number;
      x2: number;
      y2: number;
    }[];
    expect(shapes).toHaveLength(2);
    for (const { x1, y1, x2, y2 } of shapes) {
      // Both strokes cross in the middle of the mark: 1 mm of pad and 1.1 mm beyond its leg.
      expect((x1 + x2) / 2).toBeCloseTo(mark[0], 9);
      expect((y1 + y2) / 2).toBeCloseTo(mark[1], 9);
      expect(Math.hypot(x2 - x1, y2 - y1)).toBeCloseTo(1.2, 9);
    }
  });

  test.each([
    ['right', [6, 0], [-6, 0], [3.2, -3, 3.2, 3]],
    ['left', [-6, 0], [6, 0], [-3.2, -3, -3.2, 3]],
    ['below', [0, 6], [0, -6], [-4, 2.2, 4, 2.2]],
    ['above', [0, -6], [0, 6], [-4, -2.2, 4, -2.2]],
  ] as const)('the band of a diode whose cathode is %s lies across that end of its body', (_, cathode, anode, band) => {
    for (const order of [true, false]) {
      const names: [string, string] = order ? ['cathode', 'anode'] : ['anode', 'cathode'];
      const at: [number, number][] = order ? [[...cathode], [...anode]] : [[...anode], [...cathode]];
      const [line, ...rest] = markOf(two(names, at, false)) as unknown as Record<string, number>[];
      expect(rest).toEqual([]);
      expect(['x1', 'y1', 'x2', 'y2'].map((k) => line![k])).toEqual(band.map((v) => expect.closeTo(v, 9)));
    }
  });

  test('film capacitors and resistors have no mark', () => {
    expect(
      markOf(
        two(
          ['plus', 'minus'],
          [
            [5, 0],
            [-5, 0],
          ],
          false,
        ),
      ),
    ).toEqual([]);
    expect(
      markOf(
        two(
          ['1', '2'],
          [
            [5, 0],
            [-5, 0],
          ],
          false,
        ),
      ),
    ).toEqual([]);
  });
});

describe('a board of strips as it is drawn', () => {
  const boards: Stripboard[] = [clock, dome, drum, physics].map((d) => stripboard(netlistOf(d)));
  const x = (hole: number) => SIDE_MM + 2.54 * hole;
  const of = <K extends StripShape['kind']>(shapes: StripShape[], kind: K, key: RegExp) =>
    shapes.filter((s) => s.kind === kind && key.test(s.key)) as Extract<StripShape, { kind: K }>[];

  /** Every part of every board with what is drawn of it. */
  const drawn = boards.flatMap((board) => {
    const { shapes, hMm } = stripDrawing(board);
    const edge = (hMm - 2.54 * (board.strips - 1)) / 2;
    const y = (strip: number) => edge + 2.54 * strip;
    return board.parts
      .filter((p) => !p.wire)
      .map((part) => {
        const [body] = of(shapes, 'body', new RegExp(`^${part.ref} body$`));
        const [name] = of(shapes, 'text', new RegExp(`^${part.ref} text$`));
        const [lead] = of(shapes, 'lead', new RegExp(`^${part.ref} lead$`));
        const [band] = of(shapes, 'lead', new RegExp(`^${part.ref} band$`));
        const [mark] = of(shapes, 'text', new RegExp(`^${part.ref} plus$`));
        const pins = of(shapes, 'pin', new RegExp(`^${part.ref} `));
        const within = part.legs.filter((l) => y(l.at.strip) >= body!.y && y(l.at.strip) <= body!.y + body!.h);
        return { part, y, body: body!, name: name!, lead, band, mark, pins, flat: within.length === 0 };
      });
  });

  test('pins lie in their holes, a name on its part or beside its legs', () => {
    for (const { part, y, pins, name, body } of drawn) {
      expect(pins.map((p) => [p.x, p.y])).toEqual(
        part.legs.map((l) => [expect.closeTo(x(l.at.hole), 9), expect.closeTo(y(l.at.strip), 9)]),
      );
      expect(name.text).toBe(part.ref);
      expect(Math.abs(name.x - (body.x + body.w / 2))).toBeLessThanOrEqual(0.9 + 1e-9);
    }
  });

  test('a body lies along its leads, in the middle of both, or covers its holes', () => {
    const flat = drawn.filter((d) => d.flat);
    const standing = drawn.filter((d) => !d.flat);
    expect(Math.min(flat.length, standing.length)).toBeGreaterThan(4);
    for (const { part, body, pins, lead } of flat) {
      expect(body.x + body.w / 2).toBeCloseTo(x(part.legs[0]!.at.hole), 9);
      expect(body.y).toBeGreaterThan(Math.min(...pins.map((p) => p.y)));
      expect(body.y + body.h).toBeLessThan(Math.max(...pins.map((p) => p.y)));
      expect([lead!.x1, lead!.y1, lead!.x2, lead!.y2]).toEqual(pins.flatMap((p) => [p.x, p.y]));
    }
    for (const { part, body } of standing) {
      const [left, right] = part.body.holes;
      expect(body.x + body.w / 2).toBeCloseTo((x(left) + x(right)) / 2, 9);
      expect(body.w).toBeGreaterThan(2.54 * (right - left));
    }
  });

  test('bands lie across the end of the body that faces the cathode', () => {
    const banded = drawn.filter((d) => d.band);
    expect(banded.length).toBeGreaterThan(4);
    for (const { part, body, band } of banded) {
      const cathode = part.legs.find((l) => l.name === 'cathode')!;
      const other = part.legs.find((l) => l !== cathode)!;
      const middle = body.y + body.h / 2;
      expect(Math.sign(band!.y1 - middle)).toBe(Math.sign(cathode.at.strip - other.at.strip));
      expect([band!.x1, band!.x2]).toEqual([body.x, body.x + body.w].map((v) => expect.closeTo(v, 9)));
      expect(band!.y1).toBe(band!.y2);
      expect(Math.abs(band!.y1 - middle)).toBeCloseTo(body.h / 2 - 0.7, 9);
    }
  });

  test('a plus stands right beside its leg, and where there is one to mistake alone', () => {
    const plusOf = (d: (typeof drawn)[number]) =>
      d.part.polarised ? d.part.legs.find((l) => l.name === 'plus') : undefined;
    expect(drawn.filter((d) => d.mark).map((d) => d.part)).toEqual(drawn.filter(plusOf).map((d) => d.part));
    for (const d of drawn.filter(plusOf)) {
      expect(d.mark!.x - x(plusOf(d)!.at.hole)).toBeCloseTo(1.1, 9);
      expect(Math.abs(d.mark!.y - d.y(plusOf(d)!.at.strip))).toBeLessThan(1);
    }
  });

  test('a wire is named on the side it leaves by, once for each net on a strip', () => {
    for (const board of boards) {
      const { shapes } = stripDrawing(board);
      const named = of(shapes, 'text', /^wire /) as unknown as { text: string; x: number; y: number }[];
      const wires = board.parts.filter((p) => p.wire);
      expect(wires.length).toBeGreaterThan(0);
      for (const { of: from, legs } of wires) {
        const left = legs[0]!.at.hole < board.holes / 2;
        const mine = named.filter((n) => n.text.split(' ').some((w) => w.replace(',', '') === from));
        expect(
          mine.some((n) => n.text.endsWith(legs[0]!.net) && (left ? n.x < SIDE_MM : n.x > x(board.holes - 1))),
        ).toBe(true);
      }
    }
  });
});

describe('how far things in a box are apart', () => {
  const slab = (x: [number, number], y: [number, number], z: [number, number] = [0, 10]): Solid => ({
    x,
    y,
    z,
    round: false,
  });
  const disc = (cx: number, cy: number, d: number, z: [number, number] = [0, 10]): Solid => ({
    x: [cx - d / 2, cx + d / 2],
    y: [cy - d / 2, cy + d / 2],
    z,
    round: true,
  });

  test('from above: slabs by their sides and corners, discs by their circles', () => {
    expect(planGap(slab([0, 10], [0, 10]), slab([13, 20], [0, 10]))).toBe(3);
    expect(planGap(slab([0, 10], [0, 10]), slab([13, 20], [14, 20]))).toBe(5);
    expect(planGap(disc(0, 0, 10), disc(6, 8, 4))).toBeCloseTo(3, 9);
    // A disc beside a side, off a corner, and with its middle within.
    expect(planGap(disc(20, 5, 10), slab([0, 10], [0, 10]))).toBeCloseTo(5, 9);
    expect(planGap(slab([0, 10], [0, 10]), disc(13, 14, 4))).toBeCloseTo(3, 9);
    expect(planGap(disc(9, 5, 4), slab([0, 10], [0, 10]))).toBeCloseTo(-3, 9);
    expect(planGap(disc(11, 5, 4), slab([0, 10], [0, 10]))).toBeCloseTo(-1, 9);
  });

  test('one above the other is apart by the air between them', () => {
    expect(gapMm(slab([0, 10], [0, 10], [0, 5]), slab([0, 10], [0, 10], [8, 20]))).toBe(3);
    expect(gapMm(slab([0, 10], [0, 10], [0, 5]), slab([14, 20], [0, 10], [8, 20]))).toBe(5);
  });
});

describe('what flows on a net', () => {
  const flow = (rmsA: number, origin: Flow['origin'], from: string): Flow => ({
    rmsA,
    peakA: null,
    origin,
    from,
    pulses: false,
  });

  test('what two outputs are asked for adds up, what one part carries does not; the most of all counts', () => {
    const flows = new Map([
      ['a', flow(0.5, 'chosen', 'the main output')],
      ['b', flow(0.8, 'chosen', 'the radio')],
      ['c net', flow(1, 'simulated', 'the can')],
    ]);
    const parts = [
      { ref: 'a', output: 'main' as const },
      { ref: 'b', output: 'out-1' as const },
      { ref: 'c', output: null },
    ];
    expect(flowWhere('net', parts, flows)).toMatchObject({ rmsA: 1.3, from: 'the main output + the radio' });
    expect(flowWhere('net', parts.slice(1), flows)).toMatchObject({ rmsA: 1, from: 'the can' });
    // Two parts of one output carry the same amperes, not twice as many.
    const twice = [
      { ref: 'a', output: 'main' as const },
      { ref: 'b', output: 'main' as const },
    ];
    expect(flowWhere('net', twice, flows)).toMatchObject({ rmsA: 0.8, from: 'the radio' });
    expect(flowWhere('net', [], flows)).toBeNull();
    expect(flowWhere('net', parts, flows, (f) => f.origin === 'simulated')).toMatchObject({ rmsA: 1 });
  });
});
