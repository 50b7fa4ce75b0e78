import fc from 'fast-check';
import Papa from 'papaparse';
import { PDFDocument } from 'pdf-lib';
import { stripDrawing } from '@/core/board/strip-drawing';
import { stripFaults } from '@/core/board/strip-check';
import { stripLoads, stripVolts } from '@/core/board/strip-loads';
import { holeName, stripCsv, stripName } from '@/core/board/strip-names';
import { lyings } from '@/core/board/strip-footprint';
import { stripPdf } from '@/core/board/strip-pdf';
import { stripSvg } from '@/core/board/strip-svg';
import type { Stripboard } from '@/core/board/on-strips';
import { boardParts, stripboard } from '@/core/board/stripboard';
import { flowsOf } from '@/core/build/flows';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design, type StripPlace } from '@/core/design/design';
import { once } from '@/core/quantity/once';
import { mainsSide } from '@/core/mains-side/mains-side';
import { netlistOf } from '@/core/netlist/netlist-of';
import { studyDesign } from '@/core/study/study';
import { absurd, plausible } from '../support/designs';
import { clock, dome, drum, physics, tide } from '../support/demos';
import { overBudget } from '../support/layout-budgets';
import { readPdf } from '../support/read-pdf';

const laid = once((design: Design) => stripboard(netlistOf(design)));

/** Which legs are one piece of copper, by the finished picture alone: strips as drawn, links as drawn, legs as drawn. */
function piecesOf(board: Stripboard): number[] {
  const svg = stripSvg(board, 'x', false);
  const strips = [
    ...svg.matchAll(/<rect x="([-\d.]+)" y="([-\d.]+)" width="([\d.]+)" height="([\d.]+)" fill="#ddd"/g),
  ].map((m) => m.slice(1).map(Number) as [number, number, number, number]);
  const links = [
    ...svg.matchAll(
      /<line x1="([-\d.]+)" y1="([-\d.]+)" x2="([-\d.]+)" y2="([-\d.]+)" stroke="#000" stroke-width="0.7"/g,
    ),
  ].map((m) => m.slice(1).map(Number) as [number, number, number, number]);
  const pins = [...svg.matchAll(/<circle cx="([-\d.]+)" cy="([-\d.]+)" r="0\.[69]0?" fill="#000"/g)].map(
    (m) => [Number(m[1]), Number(m[2])] as const,
  );
  const on = (x: number, y: number) =>
    strips.findIndex(([sx, sy, w, h]) => x >= sx && x <= sx + w && y >= sy && y <= sy + h);
  const root = strips.map((_, n) => n);
  const find = (n: number): number => (root[n] === n ? n : find(root[n]!));
  for (const [x1, y1, x2, y2] of links) root[find(on(x1, y1))] = find(on(x2, y2));
  return pins.map(([x, y]) => find(on(x, y)));
}

/** The copper of the picture is the netlist: legs of one net on one piece, of two nets on two. */
function sound(design: Design): void {
  const board = laid(design);
  const legs = board.parts.flatMap((p) => p.legs);
  const pieces = piecesOf(board);
  expect(pieces).toHaveLength(legs.length);
  const loose = new Set(board.left.map((l) => l.ref));
  const netOf = new Map<number, string>();
  const pieceOf = new Map<string, number>();
  legs.forEach(({ net }, n) => {
    expect([net, netOf.get(pieces[n]!) ?? net]).toEqual([net, net]);
    netOf.set(pieces[n]!, net);
    if (loose.has(net)) return;
    expect([net, pieceOf.get(net) ?? pieces[n]]).toEqual([net, pieces[n]]);
    pieceOf.set(net, pieces[n]!);
  });
  // Everything is on it, or named with a reason.
  const refs = boardParts(netlistOf(design)).map((p) => p.part.ref);
  const there = new Set([...board.parts.map((p) => p.ref), ...loose]);
  expect(refs.filter((r) => !there.has(r))).toEqual([]);
  // No part lies on another's legs, and no two bodies on each other.
  for (const p of board.parts)
    for (const other of board.parts.filter((o) => o !== p)) {
      const [top, bottom] = p.body.strips;
      const [first, last] = p.body.holes;
      const under = other.legs.filter(
        ({ at }) => at.strip >= top && at.strip <= bottom && at.hole >= first && at.hole <= last,
      );
      expect([p.ref, other.ref, under.length]).toEqual([p.ref, other.ref, 0]);
      const apart =
        other.body.strips[0] > bottom ||
        other.body.strips[1] < top ||
        other.body.holes[0] > last ||
        other.body.holes[1] < first;
      expect([p.ref, other.ref, apart]).toEqual([p.ref, other.ref, true]);
    }
  // A bare link lies over nothing: no leg, no body, no other bare link between its ends.
  const bare = board.links.filter((l) => !l.insulated);
  for (const l of bare) {
    expect(l.from.hole).toBe(l.to.hole);
    const [upper, lower] = [Math.min(l.from.strip, l.to.strip), Math.max(l.from.strip, l.to.strip)];
    const between = (strip: number, hole: number) => hole === l.from.hole && strip > upper && strip < lower;
    expect(legs.some(({ at }) => between(at.strip, at.hole))).toBe(false);
    expect(bare.filter((o) => o !== l && [o.from, o.to].some((h) => between(h.strip, h.hole)))).toEqual([]);
  }
  // No two legs or link ends in one hole, none in a cut.
  const ends = [...legs.map((l) => l.at), ...board.links.flatMap((l) => [l.from, l.to]), ...board.cuts].map(holeName);
  expect(new Set(ends).size).toBe(ends.length);
  expect(stripFaults(board).touching).toEqual([]);
}

test.each(demoDesigns().map((d) => [d.name, d] as const))(
  '%s: the copper is the circuit, and nothing is left over',
  (_, design) => {
    sound(design);
    const board = laid(design);
    expect(board.left).toEqual([]);
    expect(stripFaults(board)).toEqual({ apart: [], touching: [] });
    expect(
      overBudget(design, ({ strips: [holes, links, cuts] }) => ({
        holes: [board.strips * board.holes, holes],
        links: [board.links.length, links],
        cuts: [board.cuts.length, cuts],
      })),
    ).toEqual([]);
  },
);

test('100 random designs: no two nets touch, what is joined is what the netlist joins', () => {
  fc.assert(
    fc.property(fc.oneof(absurd, plausible), (design) => {
      if (boardParts(netlistOf(design)).length <= 40) sound(design);
    }),
    { numRuns: 100 },
  );
}, 120_000);

test('the mains stay off it, big cans and chokes are wired to it', () => {
  for (const design of [clock, dome, drum, tide]) {
    const nets = laid(design).parts.flatMap((p) => p.legs.map((l) => l.net));
    for (const net of ['L', 'N', 'PE']) expect(nets).not.toContain(net);
  }
  expect(laid(dome).parts.map((p) => p.ref)).toEqual(expect.arrayContaining(['C1 plus', 'C1 minus', 'J2 plus']));
  expect(laid(drum).parts.map((p) => p.ref)).toContain('C1');
});

test('a check of the copper says what is apart and what touches', () => {
  const board = laid(clock);
  const [link] = board.links;
  expect(stripFaults({ ...board, links: board.links.slice(1) }).apart).toContain(link!.net);
  const short = {
    net: 'x',
    insulated: true,
    from: board.parts[0]!.legs[0]!.at,
    to: board.parts.find((p) => p.ref === 'U1')!.legs[1]!.at,
  };
  expect(stripFaults({ ...board, links: [...board.links, short] }).touching).toHaveLength(1);
});

test('a regulator lies with its legs in their order, a can with as much room as it is wide', () => {
  const u1 = netlistOf(clock).parts.find((p) => p.ref === 'U1')!;
  expect(lyings(u1)[0]!.legs.map((l) => l.name)).toEqual(['in', 'ground', 'out']);
  expect(lyings(u1)[1]!.legs.map((l) => [l.name, l.strip])).toEqual([
    ['in', 2],
    ['ground', 1],
    ['out', 0],
  ]);
  const can = netlistOf(drum).parts.find((p) => p.ref === 'C1')!;
  // 16 mm: six holes and a bit, legs three holes apart.
  const [lying] = lyings(can);
  expect(lying!.legs[1]!.strip).toBe(3);
  expect(lying!.body.holes[1] - lying!.body.holes[0]).toBe(6);
});

const loadsOf = (design: Design) => {
  const study = studyDesign(design);
  const netlist = netlistOf(design);
  const board = stripboard(netlist);
  return stripLoads(board, netlist, flowsOf(study, netlist, mainsSide(study)), design.demand.outputV);
};

test('what carries more than a strip does is said, with the wire along it', () => {
  const loads = loadsOf(dome);
  expect(loads.map((l) => l.net)).toEqual(expect.arrayContaining(['raw +', 'AC 1', '0 V']));
  const amps = loads.map((l) => l.flows.value);
  expect(amps).toEqual([...amps].sort((a, b) => b - a));
  for (const l of loads) {
    expect(l.flows.value).toBeGreaterThan(2);
    expect(l.wire.value).toBeGreaterThanOrEqual(l.flows.value / 4);
  }
  expect(loadsOf(drum)).toEqual([]);
});

test('pulses flow on the board’s own nets too, where the reservoir is soldered in and no wire leads to it', () => {
  // 18 mm across: it is no can in a clamp.
  const small = applyPatch(clock, { reservoir: { capacitanceF: 4700e-6, ratedV: 35 } });
  const nets = netlistOf(small);
  const raw = nets.parts.filter((p) => p.pins.some((pin) => pin.net === 'raw +')).map((p) => p.ref);
  expect(raw).toContain('C1');
  const load = loadsOf(small).find((l) => l.net === 'raw +')!;
  // 1.2 A drawn in pulses: about twice that, RMS.
  expect(load.flows.value).toBeGreaterThan(2);
  expect(load.flows.value).toBeLessThan(3);
});

test('of a pass stage the emitters carry the load and the base does not', () => {
  const strong = applyPatch(physics, { demand: { outputA: 3 } });
  const nets = loadsOf(strong).map((l) => l.net);
  expect(nets).toContain('25 V, sense');
  expect(nets).toContain('25 V');
  expect(nets.some((n) => /base|drive/.test(n))).toBe(false);
});

test('two rails stand on each other, and a tapped winding has both its ends at once: twice the crest less what drops', () => {
  const split = studyDesign(drum);
  const { rails } = split.idle;
  expect(stripVolts(split).value).toBeGreaterThanOrEqual(rails[0]!.rail.inputMaxV + rails[1]!.rail.inputMaxV);
  // 205 V each half, 230 V + its high end, no load: 2·√2·205 is 580 V at the rated load already.
  expect(stripVolts(studyDesign(tide)).value).toBeGreaterThan(580);
  expect(stripVolts(studyDesign(dome)).value).toBeLessThan(50);
});

test('strips are lettered, holes numbered, and the list has a row for each thing to do', () => {
  expect([0, 25, 26, 51, 52].map(stripName)).toEqual(['A', 'Z', 'AA', 'AZ', 'BA']);
  expect(holeName({ strip: 2, hole: 11 })).toBe('C12');
  const board = laid(drum);
  const { data } = Papa.parse<Record<string, string>>(stripCsv(board).trim(), { header: true });
  expect(data).toHaveLength(board.cuts.length + board.links.length + board.parts.length);
  expect(data.filter((r) => r['what']!.startsWith('link')).map((r) => r['holes'])).toEqual(
    board.links.map((l) => `${holeName(l.from)} ${holeName(l.to)}`),
  );
});

test('too many parts for strips: all are named, and nothing is drawn', () => {
  const bank = applyPatch(clock, { reservoir: { cans: 100, capacitanceF: 100e-6 } });
  const board = laid(bank);
  expect(board.parts).toEqual([]);
  expect(board.left.length).toBe(boardParts(netlistOf(bank)).length);
  expect(board.left[0]!.why).toContain('more than a board of strips is laid out for');
});

test('seen from its copper it is mirrored: a cut is as far from the right edge as it was from the left', () => {
  const board = laid(drum);
  const width = Number(/width="([\d.]+)mm"/.exec(stripSvg(board, 'x', false))![1]);
  const cut = (copper: boolean) => Number(/<path d="M([\d.]+)/.exec(stripSvg(board, 'x', copper))![1]);
  // The cross begins 0.9 mm to the left of its middle, mirrored to the right of it.
  expect(cut(true)).toBeCloseTo(width - cut(false), 1);
});

test('a plus is drawn where there is one to mistake: at cans, not at film capacitors', () => {
  const plus = stripDrawing(laid(drum)).shapes.filter((s) => s.kind === 'text' && s.text === '+');
  expect(plus.map((s) => s.key).sort()).toEqual(['C1 plus', 'C2 plus', 'C5 plus', 'C6 plus']);
});

const placesOf = (board: Stripboard): StripPlace[] =>
  board.parts.map(({ key, legs }) => ({
    part: key,
    strip: legs[0]!.at.strip,
    hole: legs[0]!.at.hole,
    down: legs.at(-1)!.at.strip - legs[0]!.at.strip,
  }));

test('what was put somewhere by hand lies there, and the copper is still the circuit', () => {
  const netlist = netlistOf(clock);
  const board = laid(clock);
  const again = stripboard(netlist, placesOf(board));
  expect(placesOf(again).sort(byPart)).toEqual(placesOf(board).sort(byPart));
  // Far to the right, where nothing is.
  const c3 = board.parts.find((p) => p.ref === 'C3')!;
  const far = { ...placesOf(board).find((p) => p.part === c3.key)!, hole: board.holes + 4 };
  const moved = stripboard(netlist, [...placesOf(board).filter((p) => p.part !== c3.key), far]);
  expect(moved.parts.find((p) => p.ref === 'C3')!.legs[0]!.at.hole).toBe(far.hole);
  expect(moved.holes).toBeGreaterThan(far.hole);
  expect(stripFaults(moved)).toEqual({ apart: [], touching: [] });
});

test('put onto another part it goes into the nearest holes that are free; turned, its legs change ends', () => {
  const netlist = netlistOf(clock);
  const board = laid(clock);
  const places = placesOf(board);
  const of = (ref: string) => places.find((p) => p.part === board.parts.find((q) => q.ref === ref)!.key)!;
  const onto = { ...of('C3'), strip: of('C2').strip, hole: of('C2').hole, down: of('C2').down };
  const moved = stripboard(netlist, [...places.filter((p) => p.part !== onto.part), onto]);
  expect(moved.left).toEqual([]);
  const [c3, c2] = ['C3', 'C2'].map((ref) => moved.parts.find((p) => p.ref === ref)!.legs[0]!.at);
  expect(c2).toEqual({ strip: of('C2').strip, hole: of('C2').hole });
  const away = Math.abs(c3!.strip - c2!.strip) + Math.abs(c3!.hole - c2!.hole);
  expect(away).toBeGreaterThan(0);
  expect(away).toBeLessThan(8);
  expect(stripFaults(moved)).toEqual({ apart: [], touching: [] });
  const d5 = of('D5');
  const turned = { ...d5, strip: d5.strip + d5.down, down: -d5.down };
  const back = stripboard(netlist, [...places.filter((p) => p.part !== d5.part), turned]);
  const [was, is] = [board, back].map((b) => b.parts.find((p) => p.ref === 'D5')!.legs.map((l) => [l.net, l.at.strip]));
  expect(is!.map(([, strip]) => strip)).toEqual(was!.map(([, strip]) => strip).reverse());
  expect(stripFaults(back)).toEqual({ apart: [], touching: [] });
});

const byPart = (a: StripPlace, b: StripPlace) => (a.part < b.part ? -1 : 1);

test('its print is two pages, the same bytes for the same board', async () => {
  const pdf = await stripPdf(laid(drum), 'Drum ±18 V');
  expect(Buffer.from(await stripPdf(laid(drum), 'Drum ±18 V')).equals(Buffer.from(pdf))).toBe(true);
  const pages = (await PDFDocument.load(pdf)).getPages();
  expect(pages).toHaveLength(2);
  const print = await readPdf(pdf);
  expect(print.text).toContain('Drum ±18 V');
  expect(print.fonts.map((f) => f.embedded)).toEqual([true]);
  expect(pages[0]!.getWidth()).toBeCloseTo((210 * 72) / 25.4, 1);
});
