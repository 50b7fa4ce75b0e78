import { inflateSync } from 'node:zlib';
import DxfParser from 'dxf-parser';
import fc from 'fast-check';
import { PDFDocument, PDFRawStream } from 'pdf-lib';
import type { Block, Inside, PlacedBlock, Spot } from '@/core/box/block';
import { boardOf } from '@/core/board/board-of';
import type { EtchedBoard } from '@/core/board/etched';
import { stripboard } from '@/core/board/stripboard';
import { blocksOf, plainBlock } from '@/core/box/blocks';
import { clearancesOf, surroundingsOf } from '@/core/box/as-placed';
import { planBox, smallestBox } from '@/core/box/box-plan';
import { clearances } from '@/core/box/clearances';
import { canSize, PANEL_PARTS, sinkSize, transformerSize, type PanelPart } from '@/core/parts/footprints';
import { outsideFigure } from '@/core/box/outside';
import { placeAll } from '@/core/box/place';
import { gapMm, solidOf } from '@/core/box/solid';
import { STANDARD_BOXES } from '@/core/box/standard-boxes';
import { fieldDistance } from '@/core/box/stray-field';
import { drillTemplate, labelTemplate } from '@/core/box/template';
import { templateDxf } from '@/core/box/template-dxf';
import { templatePdf } from '@/core/box/template-pdf';
import { templateSvg } from '@/core/box/template-svg';
import { wireLengths } from '@/core/box/wire-length';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { netlistOf } from '@/core/netlist/netlist-of';
import { clock, dome, drum } from '../support/demos';
import { absurd, plausible } from '../support/designs';
import { readPdf } from '../support/read-pdf';

const INSIDE: Inside = { wMm: 300, dMm: 200, hMm: 100 };
const AROUND = { ring: false, frequencyHz: 50 };
const PLAIN = plainBlock({ id: 'A', label: 'A', what: 'a part', size: { wMm: 40, dMm: 20, hMm: 30 } });
const PANEL: Block = {
  ...PLAIN,
  id: 'P',
  label: 'P',
  hole: { shape: 'round', diameterMm: 8, screws: null },
  size: { wMm: 14, dMm: 25, hMm: 14 },
};
const at = (block: Block, face: Spot['face'], xMm: number, yMm: number, turned = false): PlacedBlock => ({
  block,
  spot: { face, xMm, yMm, turned },
  byHand: true,
});
const verdict = (rule: string, ...placed: PlacedBlock[]) =>
  clearances(placed, INSIDE, AROUND).find((c) => c.rule === rule);
const boxed = (design: Design, box: Partial<Design['build']['box']>) =>
  applyPatch(design, { build: { box: { ...design.build.box, ...box } } });

describe('how large parts are', () => {
  test('iron and cans by their rows, and the next larger row between two', () => {
    expect(transformerSize(50, 'laminated')).toEqual({ wMm: 78, dMm: 60, hMm: 65 });
    expect(transformerSize(51, 'laminated')).toEqual({ wMm: 84, dMm: 75, hMm: 74 });
    expect(transformerSize(120, 'ring')).toEqual({ wMm: 95, dMm: 95, hMm: 53 });
    expect(canSize(4700e-6, 35)).toEqual({ diameterMm: 18, hMm: 36 });
    // Less than 4700 µF 35 V by its farads times volts, more than 4700 µF 25 V.
    expect(canSize(3300e-6, 40)).toEqual({ diameterMm: 18, hMm: 36 });
  });
  test('above the last row eight times as much is twice as long each way', () => {
    expect(transformerSize(2400, 'laminated')).toEqual({ wMm: 240, dMm: 184, hMm: 210 });
    expect(canSize(8 * 22000e-6, 50)).toEqual({ diameterMm: 70, hMm: 110 });
  });
  test('a sink of a kelvin a watt takes about half a litre', () => {
    const { wMm, dMm, hMm } = sinkSize(1);
    expect((wMm * dMm * hMm) / 1e6).toBeGreaterThan(0.5);
    expect((wMm * dMm * hMm) / 1e6).toBeLessThan(0.62);
  });
});

describe('distances', () => {
  test('two round parts by their circles, a round and a square one by the nearest edge, one above the other by height', () => {
    const can = { ...PLAIN, round: true, size: { wMm: 20, dMm: 20, hMm: 30 } };
    const solid = (block: Block, x: number, y: number) => solidOf(block, at(block, 'floor', x, y).spot, INSIDE);
    // Middles 30 and 40 apart: 50, less twice the radius of 10.
    expect(gapMm(solid(can, 50, 50), solid(can, 80, 90))).toBeCloseTo(30, 9);
    // Corner at 3, 4 from the edge of the middle: 5, less the radius.
    const slab = { ...PLAIN, size: { wMm: 10, dMm: 10, hMm: 10 } };
    expect(gapMm(solid(can, 50, 50), solid(slab, 50 + 12 + 5, 50 + 16 + 5))).toBeCloseTo(10, 9);
    const raised = { ...slab, standOffMm: 42 };
    expect(gapMm(solid(can, 50, 50), solid(raised, 50, 50))).toBeCloseTo(12, 9);
    expect(gapMm(solid(slab, 50, 50), solid(slab, 56, 50))).toBeCloseTo(-4, 9);
  });

  const rows: [string, number, (gap: number) => PlacedBlock[]][] = [
    // A is 40 wide with its middle at 100: its edge is at 120.
    ['reach', 5, (g) => [at(PLAIN, 'floor', 100, 100), at({ ...PLAIN, id: 'B' }, 'floor', 140 + g, 100)]],
    [
      'mains-to-low',
      8,
      (g) => [at({ ...PLAIN, carries: 'mains' }, 'floor', 100, 100), at({ ...PLAIN, id: 'B' }, 'floor', 140 + g, 100)],
    ],
    [
      'heat-to-can',
      10,
      (g) => [
        at({ ...PLAIN, hot: true }, 'floor', 100, 100),
        at({ ...PLAIN, id: 'B', can: true }, 'floor', 140 + g, 100),
      ],
    ],
    // 25 mm behind the front panel, then the wire, then B, 20 deep.
    ['bend', 15, (g) => [at(PANEL, 'front', 100, 15), at({ ...PLAIN, id: 'B' }, 'floor', 100, 25 + g + 10)]],
    ['lid', 5, (g) => [at({ ...PLAIN, size: { ...PLAIN.size, hMm: 100 - g } }, 'floor', 100, 100)]],
    ['lid', 25, (g) => [at({ ...PLAIN, fins: true, size: { ...PLAIN.size, hMm: 100 - g } }, 'floor', 100, 100)]],
    ['inside', 2, (g) => [at(PLAIN, 'floor', 20 + g, 100)]],
    ['inside', 2, (g) => [at(PLAIN, 'floor', 100, 200 - 10 - g)]],
    ['inside', 5, (g) => [at(PANEL, 'front', 100, 100 - 7 - g)]],
  ];
  test.each(rows)('%s: %d mm hold, a tenth less does not', (rule, wanted, place) => {
    expect(verdict(rule, ...place(wanted))).toMatchObject({ holds: true, wantsMm: wanted });
    const short = verdict(rule, ...place(wanted - 0.1))!;
    expect(short.holds).toBe(false);
    expect(short.hasMm).toBeCloseTo(wanted - 0.1, 6);
  });

  test('what burns outside the box warms no can inside, and a part above fins is said', () => {
    const hot = { ...PLAIN, id: 'H', hot: true, outside: true, face: 'rear' as const };
    expect(
      verdict('heat-to-can', at(hot, 'rear', 100, 50), at({ ...PLAIN, can: true }, 'floor', 100, 190)),
    ).toBeUndefined();
    const fins = { ...PLAIN, fins: true, standOffMm: 25 };
    const above = { ...PLAIN, id: 'B', standOffMm: 25 + 30 + 10 };
    expect(verdict('above-fins', at(fins, 'floor', 100, 100), at(above, 'floor', 110, 100))).toMatchObject({
      holds: false,
      hasMm: 10,
    });
    expect(verdict('above-fins', at(fins, 'floor', 100, 100), at(above, 'floor', 145, 100))).toBeUndefined();
  });

  test('inlet and switch on two panels are not together; a wire past the tabs is no bend', () => {
    const inlet = { ...PANEL, id: 'J1', carries: 'mains' as const };
    const other = { ...inlet, id: 'S1' };
    expect(verdict('together', at(inlet, 'rear', 50, 50), at(other, 'rear', 90, 50))!.holds).toBe(true);
    expect(verdict('together', at(inlet, 'rear', 50, 50), at(other, 'front', 50, 50))!.holds).toBe(false);
    expect(verdict('together', at(inlet, 'rear', 50, 50), at(other, 'rear', 171, 50))!.holds).toBe(false);
    expect(verdict('bend', at(PANEL, 'front', 100, 15), at({ ...PLAIN, id: 'B' }, 'floor', 130, 30))).toBeUndefined();
  });

  test('an input keeps so far that what its loop picks up is allowed: 2πf·B·A with B falling as 1/r³', () => {
    const { value } = fieldDistance(100, false, 50);
    const fieldT = 10e-6 * (100 / value) ** 3;
    expect(2 * Math.PI * 50 * fieldT * 1e-3).toBeCloseTo(1e-6, 12);
    expect(value).toBeCloseTo(146.5, 0);
    expect(fieldDistance(100, true, 50).value).toBeLessThan(0.6 * value);
    const iron = { ...PLAIN, fieldVA: 100, carries: 'both' as const };
    const input = { ...PLAIN, id: 'I', carries: 'input' as const };
    expect(verdict('field', at(iron, 'floor', 40, 100), at(input, 'floor', 40 + 40 + 147, 100))!.holds).toBe(true);
    expect(verdict('field', at(iron, 'floor', 40, 100), at(input, 'floor', 40 + 40 + 146, 100))!.holds).toBe(false);
  });
});

/** The same by another way: every pair of boxes around parts, by hand. */
function overlaps(placed: readonly PlacedBlock[], inside: Inside): string[] {
  const spans = placed
    .filter((p) => !p.block.outside)
    .map(({ block: { id, size, standOffMm }, spot: { face, xMm, yMm, turned } }) => {
      const [w, d] = turned ? [size.dMm, size.wMm] : [size.wMm, size.dMm];
      const low =
        face === 'floor'
          ? [xMm - w / 2, yMm - d / 2, standOffMm]
          : [xMm - size.wMm / 2, face === 'front' ? 0 : inside.dMm - size.dMm, yMm - size.hMm / 2];
      const lengths = face === 'floor' ? [w, d, size.hMm] : [size.wMm, size.dMm, size.hMm];
      return { id, low, high: low.map((v, n) => v + lengths[n]!) };
    });
  return spans.flatMap((a, n) =>
    spans
      .slice(n + 1)
      .filter((b) => [0, 1, 2].every((k) => a.low[k]! < b.high[k]! - 1e-6 && b.low[k]! < a.high[k]! - 1e-6))
      .map((b) => `${a.id} in ${b.id}`),
  );
}

describe('a place for everything', () => {
  test.each(demoDesigns().map((d) => [d.name, d] as const))('%s has room with every distance kept', (_, design) => {
    const plan = planBox(design);
    expect(plan.left).toEqual([]);
    expect(clearancesOf(design, plan).filter((c) => !c.holds)).toEqual([]);
    // Round parts are taken as squares here: where that alone makes them meet it is no overlap.
    const square = plan.placed.filter((p) => !p.block.round);
    expect(overlaps(square, plan.inside)).toEqual([]);
    // What stands in the panels and on the floor is all of the netlist that is not on the board.
    const board = plan.placed.find((p) => p.block.id === 'board');
    const inBoard = board ? board.block.what : '';
    for (const part of netlistOf(design).parts.filter((p) =>
      ['transformer', 'inlet', 'switch', 'terminal'].includes(p.kind),
    ))
      expect(plan.placed.map((p) => p.block.id)).toContain(part.ref);
    expect(inBoard).not.toContain('T1');
  });

  test('its board is as large as it is laid out, on strips or with tracks', () => {
    const boardOn = (kind: 'strips' | 'one side') => {
      const design = applyPatch(drum, { build: { ...drum.build, board: { ...drum.build.board, kind } } });
      return planBox(design).placed.find((p) => p.block.id === 'board')!.block.size;
    };
    const { strips, holes } = stripboard(netlistOf(drum));
    expect(boardOn('strips')).toMatchObject({ wMm: Math.round(2.54 * holes), dMm: Math.round(2.54 * strips) });
    const made = boardOf(drum, netlistOf(drum)).board as EtchedBoard;
    const screws = made.holes.map((h) => h.xMm);
    // From screw to screw and 4 mm beyond each.
    expect(boardOn('one side').wMm).toBe(Math.ceil(Math.max(...screws) - Math.min(...screws) + 8));
  });

  test('the next smaller standard box does not hold it, and it is said why', () => {
    const blocks = blocksOf(dome, netlistOf(dome));
    const { inside, smaller } = smallestBox(blocks, surroundingsOf(dome));
    const place = STANDARD_BOXES.findIndex(
      (b) => b.wMm === inside!.wMm && b.dMm === inside!.dMm && b.hMm === inside!.hMm,
    );
    expect(smaller!.inside).toEqual(STANDARD_BOXES[place - 1]);
    // A home-wound transformer of 225 VA is 95 mm high, and 80 were there.
    expect(smaller!.why).toMatch(/^T1 .* wants 100 mm of height .* there are 80 mm\.$/);
    for (const b of STANDARD_BOXES.slice(0, place).filter((s) => s.hMm >= 100))
      expect(placeAll(blocks, new Map(), b, surroundingsOf(dome)).left.length).toBeGreaterThan(0);
  });

  test('a box too small for the transformer alone says so; the rest is placed', () => {
    const plan = planBox(boxed(clock, { inside: { wMm: 80, dMm: 60, hMm: 120 } }));
    expect(plan.left.map((l) => l.block.id)).toContain('T1');
    expect(plan.left.find((l) => l.block.id === 'T1')!.why).toMatch(
      /T1 \(transformer.*\) alone is larger than its wall: 84 × 75 mm/,
    );
    expect(plan.placed.map((p) => p.block.id)).toContain('J1');
  });

  test('what was put somewhere by hand stays, right or wrong; a size measured goes before a typical one', () => {
    const places = [{ block: 'T1', face: 'floor' as const, xMm: 10, yMm: 10, turned: true }];
    const sizes = [{ block: 'T1', wMm: 90, dMm: 70, hMm: 60 }];
    const design = boxed(dome, { places: [...places, { ...places[0]!, block: 'gone' }], sizes });
    const plan = planBox(design);
    const t1 = plan.placed.find((p) => p.block.id === 'T1')!;
    expect(t1).toMatchObject({ byHand: true, spot: { xMm: 10, yMm: 10, turned: true } });
    expect(t1.block.size).toEqual({ wMm: 90, dMm: 70, hMm: 60 });
    expect(clearancesOf(design, plan).find((c) => c.rule === 'inside' && c.blocks[0] === 'T1')).toMatchObject({
      holds: false,
      // Turned, 70 wide and 90 deep: 35 mm out to the left, 35 … and 45 to the front.
      hasMm: -35,
    });
  });

  test('both sinks of a split supply are in it, and one for all is one', () => {
    const sinks = (d: Design) =>
      blocksOf(d, netlistOf(d))
        .filter((b) => b.fins)
        .map((b) => b.id);
    expect(sinks(drum)).toEqual(['H1', 'H2']);
    expect(sinks(applyPatch(drum, { heat: { oneSink: true } }))).toEqual(['H1']);
  });

  test('any design: everything placed keeps its distances, everything else is named with a reason', () => {
    fc.assert(
      fc.property(fc.oneof(absurd, plausible), (design) => {
        const blocks = blocksOf(design, netlistOf(design));
        const inside = STANDARD_BOXES[15]!;
        const { placed, left } = placeAll(blocks, new Map(), inside, AROUND);
        expect(placed.length + left.length).toBe(blocks.length);
        expect(clearances(placed, inside, AROUND).filter((c) => !c.holds)).toEqual([]);
      }),
      { numRuns: 25 },
    );
  });
});

test('a wire runs along the walls: 100 to the right, 50 back, 30 up, and its ends', () => {
  const low = { ...PLAIN, id: 'T1', size: { wMm: 10, dMm: 10, hMm: 20 } };
  const high = { ...low, id: 'board', standOffMm: 30 };
  const length = wireLengths([at(low, 'floor', 50, 50), at(high, 'floor', 150, 100)], INSIDE);
  expect(length('T1', 'board')!.value).toBe(100 + 50 + 30 + 60);
  expect(length('T1', 'chassis')!.value).toBe(100);
  expect(length('T1', 'gone')).toBeNull();
});

test('the lid and four sides give heat away: a box of 96 × 46 × 46 mm inside, walls counted in', () => {
  // 10 × 5 lid, sides 2 × 10 × 5 and 2 × 5 × 5.
  expect(outsideFigure({ wMm: 96, dMm: 46, hMm: 46 }).value).toBe(50 + 100 + 50);
});

test('no screw of a panel part falls into the hole it stands beside', () => {
  for (const [name, { hole }] of Object.entries(PANEL_PARTS) as [string, PanelPart][]) {
    if (!hole.screws) continue;
    const { at: where, apartMm, diameterMm } = hole.screws;
    const away = where === 'corners' ? (apartMm / 2) * Math.SQRT2 : apartMm / 2;
    const edge = hole.shape === 'round' ? hole.diameterMm / 2 : hole.wMm / 2;
    expect([name, away - diameterMm / 2 > edge + 1]).toEqual([name, true]);
  }
});

test('a part of the person’s own that is moved from the floor into a panel is drilled there, and keeps what panels ask for', () => {
  const own = [
    { id: 'own 1', name: 'meter', face: 'floor' as const, wMm: 46, dMm: 25, hMm: 27, carries: 'low' as const },
  ];
  const places = [{ block: 'own 1', face: 'front' as const, xMm: 100, yMm: 40, turned: false }];
  const plan = planBox(boxed(clock, { own, places }));
  const { items } = drillTemplate(plan.placed, plan.inside, 'front', 'outside', 'x');
  expect(items.find((i) => i.kind === 'slot')).toMatchObject({ xMm: 77, yMm: 26.5, wMm: 46, hMm: 27 });
  expect(clearancesOf(clock, plan).find((c) => c.rule === 'inside' && c.blocks[0] === 'own 1')!.wantsMm).toBe(5);
});

describe('templates, read back', () => {
  const plan = planBox(clock);
  const spotOf = (id: string) => plan.placed.find((p) => p.block.id === id)!.spot;

  test('a rear panel seen from outside is mirrored, seen from inside it is not', () => {
    const fuse = spotOf('F1');
    const hole = (from: 'outside' | 'inside') =>
      drillTemplate(plan.placed, plan.inside, 'rear', from, 'x').items.find(
        (i) => i.kind === 'hole' && i.diameterMm === 12.7,
      )!;
    expect(hole('inside').xMm).toBe(fuse.xMm);
    expect(hole('outside').xMm).toBe(plan.inside.wMm - fuse.xMm);
    const posts = (from: 'outside' | 'inside') =>
      drillTemplate(plan.placed, plan.inside, 'front', from, 'x')
        .items.filter((i) => i.kind === 'hole')
        .map((i) => i.xMm);
    const j2 = spotOf('J2');
    expect(posts('outside')).toEqual([j2.xMm - 9.5, j2.xMm + 9.5]);
    expect(posts('inside').sort((a, b) => a - b)).toEqual(
      [plan.inside.wMm - j2.xMm - 9.5, plan.inside.wMm - j2.xMm + 9.5].sort((a, b) => a - b),
    );
  });

  test('SVG: its units are millimetres, its line is 100 of them, the fuse’s hole is where it is', () => {
    const text = templateSvg(drillTemplate(plan.placed, plan.inside, 'rear', 'inside', 'Clock & co <1>'));
    const [, width, viewWidth] = /width="([\d.]+)mm".*?viewBox="0 0 ([\d.]+) /.exec(text)!;
    expect(width).toBe(viewWidth);
    const lines = [...text.matchAll(/<line x1="([\d.]+)" y1="([\d.]+)" x2="([\d.]+)" y2="([\d.]+)"/g)].map((m) =>
      m.slice(1).map(Number),
    );
    expect(lines.filter(([x1, y1, x2, y2]) => y1 === y2 && Math.abs(x2! - x1! - 100) < 1e-9)).toHaveLength(1);
    const edge = Math.min(...lines.map(([x1]) => x1!));
    const [, cx] = /<circle cx="([\d.]+)" cy="[\d.]+" r="6.35"/.exec(text)!;
    expect(Number(cx) - edge).toBeCloseTo(spotOf('F1').xMm, 6);
    expect(text).toContain('Clock &amp; co &lt;1&gt;');
  });

  test('DXF, by a reader of its own: millimetres, holes on the layer that is cut', () => {
    const dxf = new DxfParser().parseSync(templateDxf(drillTemplate(plan.placed, plan.inside, 'rear', 'inside', 'x')))!;
    expect(dxf.header['$INSUNITS']).toBe(4);
    const circles = dxf.entities.filter((e) => e.type === 'CIRCLE') as unknown as {
      center: { x: number; y: number };
      radius: number;
      layer: string;
    }[];
    const fuse = circles.find((c) => Math.abs(c.radius - 6.35) < 1e-9)!;
    expect(fuse.layer).toBe('cut');
    expect(fuse.center).toMatchObject({ x: spotOf('F1').xMm, y: spotOf('F1').yMm });
    const lines = dxf.entities.filter((e) => e.type === 'LINE') as unknown as {
      vertices: { x: number; y: number }[];
    }[];
    const lengths = lines.map(({ vertices: [a, b] }) => Math.hypot(b!.x - a!.x, b!.y - a!.y));
    expect(lengths.filter((l) => Math.abs(l - 100) < 1e-9)).toHaveLength(1);
  });

  test('PDF: the line is 100 mm of 72 points to the inch, on paper no smaller than the face', async () => {
    const faces = (['front', 'rear', 'floor'] as const).map((f) =>
      drillTemplate(plan.placed, plan.inside, f, 'inside', 'x'),
    );
    const bytes = await templatePdf(faces, 'Clock −1');
    expect(Buffer.compare(bytes, await templatePdf(faces, 'Clock −1'))).toBe(0);
    const print = await readPdf(bytes);
    expect(print.text).toContain('Pilot 2 mm first');
    expect(print.fonts.map((f) => f.embedded)).toEqual([true]);
    const pdf = await PDFDocument.load(bytes);
    expect(pdf.getPageCount()).toBe(3);
    for (const page of pdf.getPages()) expect(page.getWidth()).toBeGreaterThanOrEqual((plan.inside.wMm * 72) / 25.4);
    const streams = pdf.context
      .enumerateIndirectObjects()
      .map(([, o]) => o)
      .filter((o): o is PDFRawStream => o instanceof PDFRawStream)
      .map((s) => {
        try {
          return inflateSync(Buffer.from(s.contents)).toString('latin1');
        } catch {
          return '';
        }
      });
    const moves = streams.flatMap((s) =>
      [...s.matchAll(/([-\d.]+) ([-\d.]+) m\s+(?:\[\] 0 d\s+)?([-\d.]+) ([-\d.]+) l/g)].map((m) =>
        m.slice(1).map(Number),
      ),
    );
    const hundred = moves.filter(
      ([x1, y1, x2, y2]) => y1 === y2 && Math.abs(Math.abs(x2! - x1!) - (100 * 72) / 25.4) < 1e-3,
    );
    expect(hundred).toHaveLength(3);
  });

  test('the floor says how each part is drilled: its screws at its corners, four feet, a can’s clamp beside it', () => {
    const { items } = drillTemplate(plan.placed, plan.inside, 'floor', 'inside', 'x');
    const t1 = plan.placed.find((p) => p.block.id === 'T1')!;
    const holes = items.filter((i) => i.kind === 'hole' && i.of === 'T1');
    // 6 mm in from the corners of its own footprint, 84 by 75.
    const [w, d] = t1.spot.turned ? [75, 84] : [84, 75];
    expect(holes.map((h) => [Math.abs(h.xMm - t1.spot.xMm), Math.abs(h.yMm - t1.spot.yMm)])).toEqual(
      Array.from({ length: 4 }, () => [w / 2 - 6, d / 2 - 6]),
    );
    expect(items.some((i) => i.kind === 'text' && i.text === 'T1  4 × ⌀4.3')).toBe(true);
    expect(items.filter((i) => i.of === 'foot')).toHaveLength(4);
    const can = plan.placed.find((p) => p.block.id === 'C1')!;
    const clamp = items.filter((i) => i.kind === 'hole' && i.of === 'C1');
    expect(clamp.map((h) => Math.hypot(h.xMm - can.spot.xMm, h.yMm - can.spot.yMm))).toEqual([17.5, 17.5]);
  });

  test('labels are read from outside: what is on the posts, the fuse’s amperes at the rear', () => {
    const words = (face: 'front' | 'rear') =>
      labelTemplate(plan.placed, plan.inside, face, 'x').items.map((i) => (i.kind === 'text' ? i.text : ''));
    expect(words('front')).toEqual(['24 V', '0 V']);
    expect(words('rear')).toEqual(expect.arrayContaining(['T 500 mA', '230 V 50 Hz', 'I · 0']));
  });
});
