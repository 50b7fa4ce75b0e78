import fc from 'fast-check';
import { strFromU8, unzipSync } from 'fflate';
import Papa from 'papaparse';
import { PDFDocument } from 'pdf-lib';
import { boardPdf } from '@/core/board/board-pdf';
import { boardWords, markOf } from '@/core/board/board-words';
import { boardZip } from '@/core/board/board-zip';
import { boardSvg } from '@/core/board/board-svg';
import { boardCsv, centroidCsv } from '@/core/board/centroid';
import { wantedWidths } from '@/core/board/branches';
import { distanceMm, trackRiseK, trackWidthMm } from '@/core/board/copper-rules';
import { etch, type Etching } from '@/core/board/etch';
import type { EtchedBoard, Turn } from '@/core/board/etched';
import { etchedFaults } from '@/core/board/etched-check';
import { gerberFiles } from '@/core/board/gerber';
import { movedTo, turnedMore } from '@/core/board/move-part';
import { stripVolts } from '@/core/board/strip-loads';
import { boardParts } from '@/core/board/stripboard';
import { trackLoads } from '@/core/board/track-loads';
import { planBox } from '@/core/box/box-plan';
import { flowsOf, type Flow } from '@/core/build/flows';
import { demoDesigns } from '@/core/design/demo-designs';
import { outputDemand } from '@/core/design/defaults';
import { applyPatch, type Design, type FurtherOutput } from '@/core/design/design';
import { mainsSide } from '@/core/mains-side/mains-side';
import { netlistOf } from '@/core/netlist/netlist-of';
import { once } from '@/core/quantity/once';
import { SolveError } from '@/core/solve/solve-error';
import { studyDesign } from '@/core/study/study';
import { absurd, plausible } from '../support/designs';
import { clock, dome, drum, first, physics } from '../support/demos';
import { overBudget } from '../support/layout-budgets';
import { flooded, legsIn, plotted, rasterised } from '../support/read-gerber';
import { readPdf } from '../support/read-pdf';

const NO_VOLTS = new Map<string, string>();

/** What flows on a design's nets and the volts between them; a guess where it cannot be solved. */
function asked(design: Design): { flows: ReadonlyMap<string, Flow>; volts: number } {
  try {
    const study = studyDesign(design);
    return { flows: flowsOf(study, netlistOf(design), mainsSide(study)), volts: stripVolts(study).value };
  } catch (error) {
    if (!(error instanceof SolveError)) throw error;
    return { flows: new Map(), volts: 40 };
  }
}

const asItIs = { 1: once((design: Design) => made(design, 1, {})), 2: once((design: Design) => made(design, 2, {})) };

function made(design: Design, sides: 1 | 2, own?: Partial<Etching>): EtchedBoard {
  if (!own) return asItIs[sides](design);
  const netlist = netlistOf(design);
  const { flows, volts } = asked(design);
  const copperUm = 35;
  const widths = wantedWidths(netlist, flows, copperUm);
  return etch(netlist, { sides, copperUm, apartMm: distanceMm(volts), widths, places: [], ...own });
}

const loadsOf = (design: Design) => trackLoads(made(design, 1), netlistOf(design), asked(design).flows);

/** The copper as an independent reader sees it in the finished files, flooded, is the netlist. */
async function readBack(design: Design, board: EtchedBoard): Promise<void> {
  const { wMm, hMm, sides } = board;
  const files = gerberFiles(board, NO_VOLTS);
  const file = (suffix: string) => files.find((f) => f.suffix === suffix)!.text;
  const under = file('copper-under.gbr');
  const texts = sides === 2 ? [under, file('copper-above.gbr')] : [under];
  const layers = await Promise.all(texts.map((t) => rasterised(t, wMm, hMm)));
  const holes = (await plotted(file(sides === 2 ? 'drill-plated.drl' : 'drill.drl'))).flatMap((o) =>
    o.type === 'pad' ? [[o.x as number, o.y as number] as const] : [],
  );
  const pieceAt = flooded(layers, sides === 2 ? holes : []);
  const listed = Papa.parse<string[]>(boardCsv(board)).data.filter((row) => row[0] === 'link');
  const links = listed.map((row) => row[3]!.split('; ').map((p) => p.split(' ').map(Number) as [number, number]));
  const root = new Map<number, number>();
  const find = (n: number): number => (root.has(n) ? find(root.get(n)!) : n);
  for (const [a, b] of links) {
    const [p, q] = [find(pieceAt(...a!)), find(pieceAt(...b!))];
    if (p !== q) root.set(p, q);
  }
  const legs = legsIn(under);
  const wanted = new Map<string, string>(
    boardParts(netlistOf(design)).flatMap(({ part }) =>
      part.pins.map((p) => [`${part.ref} ${p.name}`, p.net] as const),
    ),
  );
  expect(legs).toHaveLength(wanted.size);
  const netOn = new Map<number, string>();
  const pieceOf = new Map<string, number>();
  for (const { ref, name, x, y } of legs) {
    const net = wanted.get(`${ref} ${name}`);
    const piece = find(pieceAt(x, y));
    expect([ref, name, net, piece > 0]).toEqual([ref, name, expect.any(String), true]);
    expect([ref, name, netOn.get(piece) ?? net]).toEqual([ref, name, net]);
    netOn.set(piece, net!);
    if (board.left.some((l) => l.ref === net)) continue;
    expect([ref, name, pieceOf.get(net!) ?? piece]).toEqual([ref, name, piece]);
    pieceOf.set(net!, piece);
  }
  // Each leg has its hole.
  const drilled = new Set(holes.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`));
  expect(legs.filter((l) => !drilled.has(`${l.x.toFixed(2)} ${l.y.toFixed(2)}`))).toEqual([]);
}

const BOTH = [1, 2] as const;

describe.each(demoDesigns().map((d) => [d.name, d] as const))('%s', (_, design) => {
  test.each(BOTH)(
    'copper on %d side(s), read back from its files, is the circuit; nothing is left over',
    async (sides) => {
      const board = made(design, sides);
      expect(board.left).toEqual([]);
      const { apart, touching, shared, overlaps, close } = etchedFaults(board);
      expect({ apart, touching, shared, overlaps }).toEqual({ apart: [], touching: [], shared: [], overlaps: [] });
      // Only a part's own legs may be nearer than its volts ask, and that is said.
      expect(close.filter((c) => !c.legs)).toEqual([]);
      await readBack(design, board);
      const long = (t: EtchedBoard['tracks'][number]) => Math.hypot(t.x2 - t.x1, t.y2 - t.y1);
      const copperMm2 = board.tracks.reduce((sum, t) => sum + t.widthMm * long(t), 0);
      expect(
        overBudget(design, ({ etched }) => {
          const [boardMm2, links, copperMm, least] = etched[sides - 1]!;
          return {
            board: [board.wMm * board.hMm, boardMm2],
            links: [board.links.length, links],
            copper: [board.tracks.reduce((sum, t) => sum + long(t), 0), copperMm],
            thinness: [least / copperMm2, 1],
          };
        }),
      ).toEqual([]);
    },
  );
});

test('100 random designs of up to 40 parts: the copper of the files is the netlist, on one side and on two', async () => {
  await fc.assert(
    fc.asyncProperty(fc.oneof(absurd, plausible), fc.constantFrom(...BOTH), async (design, sides) => {
      const count = boardParts(netlistOf(design)).length;
      if (count === 0 || count > 40) return;
      const board = made(design, sides);
      const faults = etchedFaults(board);
      expect(faults.touching).toEqual([]);
      expect(faults.overlaps).toEqual([]);
      expect(faults.shared).toEqual([]);
      expect(faults.apart.filter((net) => !board.left.some((l) => l.ref === net))).toEqual([]);
      expect(faults.close.filter((c) => !c.legs)).toEqual([]);
      // What is not on it is named.
      expect(board.parts.length + board.left.length).toBeGreaterThan(0);
      if (board.parts.length > 0) await readBack(design, board);
    }),
    { numRuns: 100 },
  );
}, 600_000);

test('widths and distances are those of the charts', () => {
  // 1.5 A at 10 K on 35 µm wants 0.53 mm; twice the copper half of it.
  expect(trackWidthMm(1.5, 10, 35)).toBeCloseTo(0.526, 2);
  expect(trackWidthMm(1.5, 10, 70)).toBeCloseTo(0.263, 2);
  expect(trackRiseK(1.5, trackWidthMm(1.5, 10, 35), 35)).toBeCloseTo(10, 6);
  expect([20, 30, 31, 150, 151, 300, 301, 500, 700].map(distanceMm)).toEqual([
    0.4, 0.4, 0.6, 0.6, 1.25, 1.25, 2.5, 2.5, 3.5,
  ]);
});

test('the star: pulses and what is taken from the reservoir share its leg and no track', () => {
  for (const design of [clock, drum, first]) {
    const board = made(design, 1);
    const halves = board.branches.filter((b) => b.net === '0 V');
    expect(halves.map((b) => b.carries)).toEqual(['pulses', 'load']);
    expect(halves[0]!.star).toEqual(halves[1]!.star);
    // A track laid across from one half to the other is found.
    const legOf = (carries: string) => {
      const n = board.branches.findIndex((b) => b.net === '0 V' && b.carries === carries);
      return board.parts.flatMap((p) => p.pads).find((p) => p.branch === n && p.xMm !== halves[0]!.star!.xMm)!;
    };
    const [a, b] = [legOf('pulses'), legOf('load')];
    const across = {
      layer: 'under' as const,
      branch: a.branch,
      x1: a.xMm,
      y1: a.yMm,
      x2: b.xMm,
      y2: b.yMm,
      widthMm: 1,
    };
    expect(etchedFaults({ ...board, tracks: [...board.tracks, across] }).shared).toEqual(['0 V']);
  }
});

test('a link from one half of a star to the other is found like a track; a can at a sink by its distance', () => {
  const board = made(drum, 1);
  const n = (carries: string) => board.branches.findIndex((b) => b.net === '0 V' && b.carries === carries);
  const legOf = (branch: number) => board.parts.flatMap((p) => p.pads).find((p) => p.branch === branch)!;
  const [a, b] = [legOf(n('pulses')), legOf(n('load'))];
  const across = { branch: n('load'), x1: a.xMm, y1: a.yMm, x2: b.xMm, y2: b.yMm };
  expect(etchedFaults({ ...board, links: [...board.links, across] }).shared).toEqual(['0 V']);
  expect(etchedFaults(board).warmed).toEqual([]);
  const u1 = board.parts.find((p) => p.ref === 'U1')!;
  const near = board.parts.map((p) =>
    p.ref === 'C5' ? { ...p, body: { x0: u1.body.x1 + 2, x1: u1.body.x1 + 8, y0: u1.body.y0, y1: u1.body.y0 + 6 } } : p,
  );
  const [found] = etchedFaults({ ...board, parts: near }).warmed.filter((w) => [w.a, w.b].includes('U1'));
  expect(found).toMatchObject({ mm: expect.closeTo(2, 9), wantsMm: 5 });
});

test('a missing track, a stray one and a part on another are found', () => {
  const board = made(clock, 1);
  const without = { ...board, tracks: board.tracks.filter((t) => board.branches[t.branch]!.net !== 'AC 1') };
  expect(etchedFaults(without).apart).toEqual(['AC 1']);
  const [a, b] = ['AC 1', 'AC 2'].map((net) => board.parts.flatMap((p) => p.pads).find((p) => p.net === net)!);
  const stray = {
    layer: 'under' as const,
    branch: a!.branch,
    x1: a!.xMm,
    y1: a!.yMm,
    x2: b!.xMm,
    y2: b!.yMm,
    widthMm: 1,
  };
  expect(etchedFaults({ ...board, tracks: [...board.tracks, stray] }).touching).toEqual([['AC 1', 'AC 2']]);
  const [first, second] = board.parts.filter((p) => !p.wire);
  const onTop = board.parts.map((p) => (p === second ? { ...p, body: first!.body } : p));
  expect(etchedFaults({ ...board, parts: onTop }).overlaps).toContainEqual([first!.ref, second!.ref]);
});

test('the mains and what stands in a panel stay off it; cans stay 5 mm from what is on a sink', () => {
  for (const design of [clock, dome, drum, physics]) {
    const { parts } = made(design, 1);
    for (const net of ['L', 'N', 'PE']) expect(parts.flatMap((p) => p.pads.map((pad) => pad.net))).not.toContain(net);
    const hot = parts.filter((p) => p.ref.startsWith('U') && p.pads.length === 3);
    for (const can of parts.filter((p) => p.polarised))
      for (const h of hot) {
        const dx = Math.max(can.body.x0 - h.body.x1, h.body.x0 - can.body.x1);
        const dy = Math.max(can.body.y0 - h.body.y1, h.body.y0 - can.body.y1);
        expect([can.ref, h.ref, Math.max(dx, dy) >= 5 - 1e-9]).toEqual([can.ref, h.ref, true]);
      }
  }
});

test('tracks are as wide as what flows asks, the pulses of the reservoir by their RMS', () => {
  const loads = loadsOf(clock);
  const raw = loads.find((l) => l.net === 'raw +' && l.carries === 'pulses')!;
  const solution = studyDesign(clock);
  // Pulses carry more RMS than the direct current they make.
  expect(raw.flows.value).toBeGreaterThan(1.4 * solution.design.demand.outputA);
  for (const l of loads) {
    expect(l.narrowest.value).toBeGreaterThanOrEqual(0.8);
    expect(l.narrowMm > 0 || l.rise.value <= 10.5).toBe(true);
  }
});

test('the working of a track: what flows, its narrowest piece and the copper come to its rise and to the width it wants', () => {
  for (const design of [clock, dome]) {
    for (const { flows, wanted, narrowest, rise, narrowMm } of loadsOf(design)) {
      const of = (figure: typeof rise, label: RegExp) => figure.inputs.find((i) => label.test(i.label))!.value;
      const copperUm = 35;
      expect(of(rise, /narrowest/)).toBe(narrowest.value);
      // In square mils of copper 1.378 mils thick: amps = 0.048 · kelvin^0.44 · area^0.725.
      const mils = (mm: number) => (mm / 0.0254) * (copperUm / 25.4);
      const kelvin = (flows.value / (0.048 * mils(narrowest.value) ** 0.725)) ** (1 / 0.44);
      expect(Math.abs(rise.value - kelvin)).toBeLessThan(0.06);
      expect(of(rise, /copper/i)).toBe(of(wanted, /copper/i));
      const wide = 0.048 * 10 ** 0.44 * mils(wanted.value) ** 0.725;
      expect(wide).toBeGreaterThan(0.999 * flows.value);
      // Nowhere too narrow means no length of it is.
      expect(narrowMm === 0).toBe(narrowest.value >= wanted.value - 0.1);
    }
  }
});

test('what two outputs take from one reservoir flows through one track to it, added up', () => {
  const amps = (design: Design) =>
    new Map(loadsOf(design).flatMap((l) => (l.carries === 'load' ? [[l.net, l.flows.value] as const] : [])));
  expect(clock.outputs).toEqual([]);
  const one = amps(clock);
  const logic: FurtherOutput = {
    name: 'Chime logic',
    rail: 'plus',
    demand: outputDemand({ outputV: 5, outputA: 0.2, tolerancePct: 5, rippleVpp: 0.05, kind: 'current' }),
    regulator: { kind: 'fixed', size: '78', outputV: 5 },
    regulatorSheet: null,
    sinkKPerW: 20,
  };
  const both = amps(applyPatch(clock, { outputs: [logic] }));
  expect(one.get('0 V')).toBeCloseTo(1.2, 9);
  for (const net of ['0 V', 'raw +']) expect(both.get(net)! - one.get(net)!).toBeCloseTo(0.2, 9);
});

test('a part put by hand stays where it was put, the others around it', () => {
  const board = made(clock, 1);
  const places = board.parts.map(({ key, xMm, yMm, turn }) => ({ part: key, xMm, yMm, turn }));
  const again = made(clock, 1, { places });
  expect(again.parts).toEqual(board.parts);
  const d = board.parts.find((p) => p.ref === 'D5')!;
  const half = ((d.turn + 2) % 4) as Turn;
  const turned = places.map((p) => (p.part === d.key ? { ...p, turn: half } : p));
  const moved = made(clock, 1, { places: turned }).parts.find((p) => p.ref === 'D5')!;
  expect([moved.turn, moved.xMm, moved.yMm]).toEqual([half, d.xMm, d.yMm]);
});

test('print and centroids are true to size: the copper for toner lies as seen from above, the view from below mirrored', async () => {
  const board = made(drum, 1);
  const dots = (svg: string) =>
    [...svg.matchAll(/<circle cx="([\d.]+)" cy="([\d.]+)" r="[\d.]+" fill="#000"/g)].map((m) => [
      Number(m[1]),
      Number(m[2]),
    ]);
  const size = /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="0 0 ([\d.]+) ([\d.]+)"/;
  const svg = boardSvg(board, 'copper mirrored', 'x', NO_VOLTS);
  expect(size.exec(svg)!.slice(1).map(Number)).toEqual(
    [board.wMm, board.hMm, board.wMm, board.hMm].map((mm) => Number(mm.toFixed(3))),
  );
  const pads = board.parts.flatMap((p) => p.pads);
  expect(dots(svg)[0]![0]).toBeCloseTo(pads[0]!.xMm, 2);
  expect(dots(boardSvg(board, 'copper', 'x', NO_VOLTS))[0]![0]).toBeCloseTo(board.wMm - pads[0]!.xMm, 2);
  const rows = Papa.parse<Record<string, string>>(centroidCsv(board), { header: true }).data;
  const c1 = board.parts.find((p) => p.ref === 'C1')!;
  const row = rows.find((r) => r.part === 'C1')!;
  expect(Number(row['x mm'])).toBeCloseTo((c1.body.x0 + c1.body.x1) / 2, 1);
  expect(Number(row['y mm'])).toBeCloseTo(board.hMm - (c1.body.y0 + c1.body.y1) / 2, 1);
  const pdf = await boardPdf(board, 'Drum ±18 V', NO_VOLTS);
  expect(Buffer.from(await boardPdf(board, 'Drum ±18 V', NO_VOLTS)).equals(Buffer.from(pdf))).toBe(true);
  expect((await PDFDocument.load(pdf)).getPages()).toHaveLength(3);
  const print = await readPdf(pdf);
  expect(print.text).toContain('Drum ±18 V');
  expect(print.fonts.every((f) => f.embedded)).toBe(true);
});

test('a doubtful board: nothing to solder; 400 V between its nets', () => {
  const empty = etch(
    { parts: [], nets: [], tests: [] },
    { sides: 1, copperUm: 35, apartMm: 0.4, widths: [], places: [] },
  );
  expect([empty.parts, empty.left]).toEqual([[], []]);
  const high = made(clock, 1, { apartMm: distanceMm(400) });
  expect(high.apartMm).toBe(2.5);
  expect(etchedFaults(high).close.filter((c) => !c.legs)).toEqual([]);
});

const onBoard = (design: Design, patch: Partial<Design['build']['board']>): Design =>
  applyPatch(design, { build: { ...design.build, board: { ...design.build.board, ...patch } } });

test('mains stays off unless asked; then 8 mm of bare board lie around its copper, measured in the finished file', async () => {
  expect(clock.mainsSide.primaryFuseA).not.toBeNull();
  const fuse = (design: Design) => boardParts(netlistOf(design)).some((p) => p.part.ref === 'F1');
  expect(fuse(onBoard(clock, { kind: 'one side' }))).toBe(false);
  // Never on strips: they lie 0.64 mm apart.
  expect(fuse(onBoard(clock, { kind: 'strips', mains: true }))).toBe(false);
  const design = onBoard(clock, { kind: 'one side', mains: true });
  expect(fuse(design)).toBe(true);
  const board = made(design, 1);
  expect(board.left).toEqual([]);
  expect(etchedFaults(board).close.filter((c) => !c.legs)).toEqual([]);
  await readBack(design, board);
  const mm = 0.25;
  const under = gerberFiles(board, NO_VOLTS).find((f) => f.suffix === 'copper-under.gbr')!.text;
  const picture = await rasterised(under, board.wMm, board.hMm, mm);
  const pieceAt = flooded([picture], []);
  const mains = new Set(
    board.parts
      .flatMap((p) => p.pads)
      .filter((p) => ['L', 'L fused'].includes(p.net))
      .map((p) => pieceAt(p.xMm, board.hMm - p.yMm)),
  );
  expect(mains.size).toBe(2);
  const squares = Array.from(picture.dark, (dark, n) => ({
    dark,
    x: (n % picture.columns) * mm,
    y: Math.floor(n / picture.columns) * mm,
  })).filter((s) => s.dark === 1);
  const live = squares.filter((s) => mains.has(pieceAt(s.x, s.y)));
  const other = squares.filter((s) => !mains.has(pieceAt(s.x, s.y)));
  expect(Math.min(live.length, other.length)).toBeGreaterThan(100);
  let nearest = Infinity;
  for (const a of live) for (const b of other) nearest = Math.min(nearest, Math.hypot(a.x - b.x, a.y - b.y));
  expect(nearest).toBeGreaterThan(8 - 2 * mm);
  // The box then keeps its distances from it too.
  expect(planBox(design).placed.find((p) => p.block.id === 'board')!.block.carries).toBe('both');
});

test('a part is moved and turned about its middle: four turns are none, legs go with it', () => {
  const part = made(clock, 1).parts.find((p) => p.ref === 'U1')!;
  let turned = part;
  for (let n = 0; n < 4; n++) turned = movedTo(turned, turnedMore(turned));
  expect([turned.turn, turned.xMm, turned.yMm]).toEqual([
    part.turn,
    expect.closeTo(part.xMm, 9),
    expect.closeTo(part.yMm, 9),
  ]);
  const once = movedTo(part, turnedMore(part));
  const middle = ({ body }: typeof part) => [(body.x0 + body.x1) / 2, (body.y0 + body.y1) / 2];
  for (const [n, mm] of middle(once).entries()) expect(Math.abs(mm - middle(part)[n]!)).toBeLessThan(1.27);
  const span = ({ pads }: typeof part) => [pads[2]!.xMm - pads[0]!.xMm, pads[2]!.yMm - pads[0]!.yMm];
  // A row down the board lies along it, against the clock: what was below is to the right.
  const [dx, dy] = span(part);
  expect(span(once)[0]).toBeCloseTo(dy!, 9);
  expect(span(once)[1]).toBeCloseTo(-dx!, 9);
  const moved = movedTo(part, { xMm: part.xMm + 2.54, yMm: part.yMm, turn: part.turn });
  expect(moved.pads.map((p, n) => p.xMm - part.pads[n]!.xMm)).toEqual(part.pads.map(() => expect.closeTo(2.54, 9)));
});

test('names on a board lie on no leg and not on each other; which way round is marked on every can and diode', () => {
  for (const design of [clock, drum, physics]) {
    const board = made(design, 1);
    const words = boardWords(board, NO_VOLTS);
    for (const p of board.parts.filter((q) => !q.wire)) expect(words.some((w) => w.text === p.ref)).toBe(true);
    const box = (w: (typeof words)[number]) => ({
      x0: w.x - 0.4 * w.mm * w.text.length,
      x1: w.x + 0.4 * w.mm * w.text.length,
      y0: w.y - w.mm / 2,
      y1: w.y + w.mm / 2,
    });
    words.forEach((a, n) => {
      for (const b of words.slice(n + 1).map(box)) {
        const p = box(a);
        expect([a.text, p.x0 < b.x1 && b.x0 < p.x1 && p.y0 < b.y1 && b.y0 < p.y1]).toEqual([a.text, false]);
      }
    });
    const marked = board.parts.filter((p) => !p.wire && markOf(p).length > 0).map((p) => p.ref[0]);
    const wanted = board.parts.filter((p) => !p.wire && (p.polarised || p.pads.some((q) => q.name === 'cathode')));
    expect(marked).toHaveLength(wanted.length);
  }
});

test('what a board house gets is one archive, the same bytes for the same board', () => {
  const board = made(drum, 2);
  const zip = boardZip(board, 'drum', new Map([['+18 V', '18.0 V']]));
  expect(Buffer.from(boardZip(board, 'drum', new Map([['+18 V', '18.0 V']]))).equals(Buffer.from(zip))).toBe(true);
  const files = unzipSync(zip);
  expect(Object.keys(files).sort()).toEqual(
    [
      ...['copper-above', 'copper-under', 'mask-above', 'mask-under', 'outline', 'silk'].map((f) => `drum-${f}.gbr`),
      ...['drill-bare', 'drill-plated'].map((f) => `drum-${f}.drl`),
      ...['board', 'centroid'].map((f) => `drum-${f}.csv`),
    ].sort(),
  );
  // Screws are never plated.
  expect(strFromU8(files['drum-drill-bare.drl']!)).toContain('T1C3.200');
  expect(strFromU8(files['drum-drill-plated.drl']!)).not.toContain('C3.200');
});
