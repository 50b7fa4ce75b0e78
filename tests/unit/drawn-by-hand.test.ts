import { etch } from '@/core/board/etch';
import { wantedWidths } from '@/core/board/branches';
import { distanceMm } from '@/core/board/copper-rules';
import { gerberFiles } from '@/core/board/gerber';
import { blocksOf, plainBlock } from '@/core/box/blocks';
import { planBox, type BoxPlan } from '@/core/box/box-plan';
import { outsideFigure } from '@/core/box/outside';
import { fieldDistance } from '@/core/box/stray-field';
import { drillTemplate, labelTemplate, type Template } from '@/core/box/template';
import { templatePdf } from '@/core/box/template-pdf';
import { templatePaper, templateStrokes } from '@/core/box/template-strokes';
import { circuitDrawing } from '@/core/build/circuit/circuit-drawing';
import type { Point, Wire } from '@/core/build/circuit/drawing';
import { flowsOf } from '@/core/build/flows';
import { stationOf } from '@/core/build/station-of';
import { sectionFor } from '@/core/build/wire-size';
import { wiring } from '@/core/build/wiring';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { mainsSide } from '@/core/mains-side/mains-side';
import { netlistOf } from '@/core/netlist/netlist-of';
import { studyDesign } from '@/core/study/study';
import { clock, drum, logger, tide } from '../support/demos';
import { overBudget } from '../support/layout-budgets';
import { readPaths } from '../support/read-paths';

const drawn = (design: Design) => circuitDrawing(netlistOf(design), new Map(), new Map());
/** A box takes a while to be planned: once for each design. */
const plans = new Map<Design, BoxPlan>();
const planOf = (design: Design): BoxPlan => {
  const plan = plans.get(design) ?? planBox(design);
  plans.set(design, plan);
  return plan;
};
const named = demoDesigns().map((d) => [d.name, d] as const);
const same = (a: number, b: number) => Math.abs(a - b) < 0.01;
const key = ({ x, y }: Point) => `${x.toFixed(1)} ${y.toFixed(1)}`;

describe.each(named)('the circuit of %s', (_name, design) => {
  const { wires, symbols, dots, hops } = drawn(design);
  const covers = ({ from, to }: Wire, x: number, y: number) =>
    x > Math.min(from.x, to.x) - 0.01 &&
    x < Math.max(from.x, to.x) + 0.01 &&
    y > Math.min(from.y, to.y) - 0.01 &&
    y < Math.max(from.y, to.y) + 0.01;

  test('has a hop where two nets cross, and nowhere else', () => {
    const crossings = wires.flatMap((a) =>
      wires.flatMap((b) => {
        if (a.net === b.net || !same(a.from.x, a.to.x) || same(a.from.y, a.to.y) || !same(b.from.y, b.to.y)) return [];
        return covers(a, a.from.x, b.from.y) && covers(b, a.from.x, b.from.y)
          ? [key({ x: a.from.x, y: b.from.y })]
          : [];
      }),
    );
    expect(new Set(hops.map(key))).toEqual(new Set(crossings));
  });

  test('has a dot where three ways of a net meet, and nowhere else', () => {
    const meeting = new Set<string>();
    const ends = wires.flatMap((w) => [w.from, w.to].map((at) => ({ at, net: w.net })));
    for (const { at, net } of ends) {
      // A step to each side: is there wire of this net? A pin is a way of its own.
      const ways = (
        [
          [0.5, 0],
          [-0.5, 0],
          [0, 0.5],
          [0, -0.5],
        ] as const
      ).filter(([dx, dy]) =>
        wires.some((w) => w.net === net && covers(w, at.x, at.y) && covers(w, at.x + dx, at.y + dy)),
      ).length;
      const pin = symbols.some((s) => s.pins.some((p) => p.net === net && same(p.x, at.x) && same(p.y, at.y)));
      if (ways + (pin ? 1 : 0) >= 3) meeting.add(key(at));
    }
    expect(new Set(dots.map(key))).toEqual(meeting);
  });

  test('has a core as long as the windings on it, in the middle between them', () => {
    const cores = symbols.filter((s) => s.kind === 'core');
    expect(cores).toHaveLength(design.source.kind === 'mains' ? 1 : 0);
    for (const core of cores) {
      const coils = symbols.filter((s) => (s.kind === 'coil' || s.kind === 'primary') && s.refs[0] === core.refs[0]);
      const ends = coils.flatMap((c) => c.pins.map((p) => p.y));
      expect(core.y - core.length / 2).toBeCloseTo(Math.min(...ends), 6);
      expect(core.y + core.length / 2).toBeCloseTo(Math.max(...ends), 6);
      const xs = [...new Set(coils.map((c) => c.x))].sort((a, b) => a - b);
      expect(core.x).toBeCloseTo((xs[0]! + xs[1]!) / 2, 6);
    }
  });
});

describe('volts of a wire to ground', () => {
  const voltsOf = (design: Design) => {
    const study = studyDesign(design);
    const rows = wiring(study, netlistOf(design), mainsSide(study), () => null);
    return { study, of: (net: string) => [...new Set(rows.filter((r) => r.net === net).map((r) => r.volts.value))] };
  };

  test('an output stands at its own volts, whatever rail it hangs on', () => {
    const { of } = voltsOf(logger);
    expect(of('5 V')).toEqual([5]);
    const radio = logger.outputs.find((o) => o.name === 'Radio')!;
    expect(of('Radio')).toEqual([radio.demand.outputV]);
    expect(voltsOf(drum).of('+18 V')).toEqual([18]);
    expect(voltsOf(drum).of('−18 V')).toEqual([18]);
  });

  test('the mains at their highest, a winding at its open crest, what is raw at what it idles at', () => {
    const { study, of } = voltsOf(clock);
    // 230 V and a tenth.
    const { voltageRms, highPct } = clock.mains;
    expect(of('L')[0]).toBeCloseTo(voltageRms + (voltageRms * highPct) / 100, 9);
    const winding = netlistOf(clock).nets.find((n) => n.role === 'winding')!;
    const open = study.idle.network.sections[0]!.winding.voltageRms;
    expect(of(winding.name)[0]).toBeCloseTo(open * 1.41421356, 5);
    const ground = netlistOf(clock).nets.find((n) => n.role === 'ground')!;
    expect(of(ground.name)).toEqual([0]);
  });
});

describe('strokes of a template', () => {
  const template: Template = {
    face: 'front',
    seenFrom: 'outside',
    wMm: 160,
    hMm: 80,
    items: [
      { kind: 'hole', xMm: 30, yMm: 20, diameterMm: 8, of: 'a' },
      { kind: 'slot', xMm: 50, yMm: 10, wMm: 28, hMm: 48, of: 'b' },
      { kind: 'ring', xMm: 100, yMm: 40, diameterMm: 60, of: 'c' },
      { kind: 'outline', xMm: 120, yMm: 5, wMm: 20, hMm: 30, of: 'd' },
    ],
    notes: ['first', 'second'],
    title: 'A front',
  };
  const strokes = templateStrokes(template);
  const lines = strokes.flatMap((s) => (s.kind === 'line' ? [[s.layer, s.x1, s.y1, s.x2, s.y2] as const] : []));
  const has = (...line: (typeof lines)[number]) => lines.filter((l) => l.join() === line.join()).length;

  test('the check line is 100 mm long, 10 mm below the face, with a tick of 4 mm across each end', () => {
    expect(has('mark', 0, -10, 100, -10)).toBe(1);
    expect(has('mark', 0, -12, 0, -8)).toBe(1);
    expect(has('mark', 100, -12, 100, -8)).toBe(1);
    const texts = strokes.flatMap((s) => (s.kind === 'text' ? [[s.text, s.x, s.y]] : []));
    expect(texts).toEqual([
      ['100 mm', 0, -15],
      ['A front', 0, -20],
      ['first', 0, -25],
      ['second', 0, -30],
    ]);
    // All of it on the paper: the last line, and 10 mm of margin.
    const paper = templatePaper(template);
    expect(paper).toEqual({ left: 10, below: 40, w: 180, h: 130 });
    expect(templatePaper({ ...template, wMm: 60 }).w).toBe(150);
  });

  test('a hole is cut round its cross, a slot along its edges, what is only looked at is marked', () => {
    const circles = strokes.flatMap((s) => (s.kind === 'circle' ? [[s.layer, s.x, s.y, s.r]] : []));
    expect(circles).toEqual([
      ['cut', 30, 20, 4],
      ['mark', 100, 40, 30],
    ]);
    expect(has('mark', 28, 20, 32, 20) + has('mark', 30, 18, 30, 22)).toBe(2);
    const cut = lines.filter((l) => l[0] === 'cut');
    expect(cut.map((l) => l.slice(1))).toEqual([
      [50, 10, 78, 10],
      [78, 10, 78, 58],
      [78, 58, 50, 58],
      [50, 58, 50, 10],
    ]);
    expect(has('mark', 62, 34, 66, 34) + has('mark', 64, 32, 64, 36)).toBe(2);
    expect(has('mark', 120, 5, 140, 5) + has('mark', 140, 35, 120, 35)).toBe(2);
    expect(has('mark', 0, 0, 160, 0) + has('mark', 160, 80, 0, 80)).toBe(2);
  });
});

test.each(named)('%s: each part on the floor is held by its screws, set in alike from its edges', (_name, design) => {
  const { placed, inside } = planOf(design);
  const { items } = drillTemplate(placed, inside, 'floor', 'inside', 'x');
  for (const { block, spot } of placed.filter((p) => p.spot.face === 'floor')) {
    const own = items.flatMap((i) => (i.kind === 'hole' && i.of === block.label ? [[i.xMm, i.yMm] as const] : []));
    const { count, insetMm } = block.screws;
    expect(new Set(own.map(String)).size).toBe(own.length);
    expect(own).toHaveLength(count);
    const [w, d] = spot.turned ? [block.size.dMm, block.size.wMm] : [block.size.wMm, block.size.dMm];
    for (const [x, y] of own) {
      const [fromX, fromY] = [w / 2 - Math.abs(x - spot.xMm), d / 2 - Math.abs(y - spot.yMm)];
      // One in the middle, two along the longer side, four in the corners.
      const along = w >= d ? fromX : fromY;
      const across = w >= d ? fromY : fromX;
      const half = [w / 2, d / 2].sort((a, b) => a - b);
      expect([along, across].map((mm) => Number(mm.toFixed(9)))).toEqual(
        count === 1 ? [half[1], half[0]] : count === 2 ? [insetMm, half[0]] : [insetMm, insetMm],
      );
    }
    // Opposite each other about the middle.
    const sum = own.reduce(([sx, sy], [x, y]) => [sx! + x - spot.xMm, sy! + y - spot.yMm], [0, 0]);
    expect(Math.hypot(sum[0]!, sum[1]!)).toBeLessThan(1e-9);
  }
});

test.each(named)('%s: what is said not to fit a smaller box does not', (_name, design) => {
  const { smallest, inside } = planOf(design);
  expect(
    overBudget(design, ({ box }) => ({
      width: [inside.wMm, box[0]],
      depth: [inside.dMm, box[1]],
      height: [inside.hMm, box[2]],
    })),
  ).toEqual([]);
  const said = smallest.smaller?.why ?? '';
  const alone = /alone is larger than its wall: ([\d.]+) × ([\d.]+) mm/.exec(said);
  const high = /wants ([\d.]+) mm of height .* there are ([\d.]+) mm/.exec(said);
  const short = /, ([\d.]+) mm, is short by (\d+) mm/.exec(said);
  const { wMm, dMm, hMm } = smallest.smaller?.inside ?? { wMm: 0, dMm: 0, hMm: 0 };
  const [a, b] = [Number(alone?.[1] ?? Infinity), Number(alone?.[2] ?? Infinity)];
  expect(a > wMm || b > Math.min(dMm, hMm)).toBe(true);
  expect(Number(high?.[1] ?? Infinity)).toBeGreaterThan(Number(high?.[2] ?? 0));
  expect(Number(short?.[2] ?? Infinity)).toBeGreaterThan(0);
  expect(said === '' || [alone, high, short].filter(Boolean).length === 1 || /finds no place\.$/.test(said)).toBe(true);
});

test('a part too large for its wall is said to be: by its own size, and only then', () => {
  const own = (wMm: number, hMm: number) => [
    { id: 'own 1', name: 'meter', face: 'front' as const, wMm, dMm: 30, hMm, carries: 'low' as const },
  ];
  const inside = { wMm: 200, dMm: 150, hMm: 70 };
  const why = (wMm: number, hMm: number) =>
    planBox(
      applyPatch(clock, { build: { ...clock.build, box: { ...clock.build.box, inside, own: own(wMm, hMm) } } }),
    ).left.find((l) => l.block.id === 'own 1')?.why;
  expect(why(210, 40)).toMatch(/alone is larger than its wall: 210 × 40 mm/);
  expect(why(60, 80)).toMatch(/alone is larger than its wall: 60 × 80 mm/);
  // It would go in, but not with what it has to keep off.
  expect(why(196, 40)).toMatch(/finds no place/);
});

test('drills come by size, the smallest first, each hole under its own', () => {
  const volts = distanceMm(60);
  for (const design of [clock, tide]) {
    const netlist = netlistOf(design);
    const widths = wantedWidths(netlist, new Map(), 35);
    const board = etch(netlist, { sides: 1, copperUm: 35, apartMm: volts, widths, places: [] });
    for (const { suffix, text } of gerberFiles(board, new Map()).filter((f) => f.suffix.endsWith('.drl'))) {
      const sizes = [...text.matchAll(/^T(\d+)C([\d.]+)$/gm)].map((m) => [Number(m[1]), Number(m[2])] as const);
      expect([suffix, sizes.length > 0]).toEqual([suffix, true]);
      expect(sizes.map(([n]) => n)).toEqual(sizes.map((_, n) => n + 1));
      const mm = sizes.map(([, d]) => d);
      expect(mm).toEqual([...mm].sort((a, b) => a - b));
      expect(new Set(mm).size).toBe(mm.length);
    }
  }
});

test('on paper a template is at its own size: every circle and line where it is, 10 mm in from the left', async () => {
  const { placed, inside } = planOf(clock);
  const template = drillTemplate(placed, inside, 'rear', 'outside', 'Clock');
  const [page] = await readPaths(await templatePdf([template], 'Clock'));
  const { below } = templatePaper(template);
  const strokes = templateStrokes(template).filter((s) => s.kind !== 'text');
  expect(page).toHaveLength(strokes.length);
  for (const s of strokes) {
    const [x0, y0, x1, y1] =
      s.kind === 'circle'
        ? [s.x - s.r, s.y - s.r, s.x + s.r, s.y + s.r]
        : [Math.min(s.x1, s.x2), Math.min(s.y1, s.y2), Math.max(s.x1, s.x2), Math.max(s.y1, s.y2)];
    const there = page!.filter(
      (p) =>
        same(p.x0, 10 + x0) &&
        same(p.x1, 10 + x1) &&
        same(p.y0, below + y0) &&
        same(p.y1, below + y1) &&
        p.curved === (s.kind === 'circle') &&
        !p.filled,
    );
    expect([JSON.stringify(s), there.length > 0]).toEqual([JSON.stringify(s), true]);
  }
});

test('a panel part that is turned has its slot, its screws and its row of holes turned with it', () => {
  const screws = { at: 'sides' as const, apartMm: 40, diameterMm: 3.5 };
  const slot = plainBlock({
    id: 'X1',
    label: 'X1',
    what: 'x',
    size: { wMm: 50, dMm: 20, hMm: 30 },
    face: 'rear',
    hole: { shape: 'slot', wMm: 28, hMm: 20, screws },
  });
  const posts = plainBlock({
    id: 'X2',
    label: 'X2',
    what: 'x',
    size: { wMm: 60, dMm: 20, hMm: 20 },
    face: 'rear',
    hole: { shape: 'round', diameterMm: 8, screws: null },
    holes: { count: 3, apartMm: 19 },
  });
  const items = (block: typeof slot, turned: boolean) =>
    drillTemplate(
      [{ block, spot: { face: 'rear', xMm: 100, yMm: 60, turned }, byHand: true }],
      { wMm: 200, dMm: 100, hMm: 120 },
      'rear',
      'inside',
      'x',
    ).items;
  const holes = (block: typeof slot, turned: boolean) =>
    items(block, turned).flatMap((i) => (i.kind === 'hole' ? [[i.xMm, i.yMm, i.diameterMm]] : []));
  expect(holes(slot, false)).toEqual([
    [80, 60, 3.5],
    [120, 60, 3.5],
  ]);
  expect(holes(slot, true)).toEqual([
    [100, 40, 3.5],
    [100, 80, 3.5],
  ]);
  expect(items(slot, false)[0]).toMatchObject({ kind: 'slot', xMm: 86, yMm: 50, wMm: 28, hMm: 20 });
  expect(items(slot, true)[0]).toMatchObject({ kind: 'slot', xMm: 90, yMm: 46, wMm: 20, hMm: 28 });
  expect(holes(posts, false).map((h) => h.slice(0, 2))).toEqual([
    [81, 60],
    [100, 60],
    [119, 60],
  ]);
  expect(holes(posts, true).map((h) => h.slice(0, 2))).toEqual([
    [100, 41],
    [100, 60],
    [100, 79],
  ]);
});

test('gauges are what the rule of wires says: 36 is 5 mils, and every 39 steps make it 92 times as thick', () => {
  const areaMm2 = (awg: number) => (Math.PI / 4) * (0.005 * 25.4 * 92 ** ((36 - awg) / 39)) ** 2;
  let last = Infinity;
  for (let rmsA = 0.5; rmsA < 200; rmsA *= 1.07) {
    const { awg, mm2 } = sectionFor('rail', rmsA, 1000, 0.01).size;
    const needed = Math.max(0.25, rmsA / 4);
    expect(awg).toBeLessThanOrEqual(last);
    expect(areaMm2(awg)).toBeGreaterThan(0.995 * Math.min(needed, areaMm2(0)));
    // Even gauges are sold: two thinner would not do.
    expect(areaMm2(awg + (awg === 1 || awg === 0 ? 1 : 2))).toBeLessThan(1.005 * needed);
    expect(mm2).toBeGreaterThanOrEqual(Math.min(needed, 120));
    last = awg;
  }
  expect(last).toBe(0);
});

test('the free faces of a box: lid and four sides, with 2 mm of wall all round', () => {
  // 20.4 by 15.4 cm, 10.4 high: 314.16 and twice 10.4 × 35.8.
  const figure = outsideFigure({ wMm: 200, dMm: 150, hMm: 100 });
  expect(figure.value).toBe(1059);
  expect(figure.inputs.map((i) => [i.label, i.value])).toEqual([
    ['width', 204],
    ['depth', 154],
    ['height', 104],
  ]);
});

test('what stands in a box: iron, valves, cans, chokes and lamps each as what they are and on the face they belong to', () => {
  const glowing = applyPatch(tide, { rectifier: { diode: 'valve-stiff' } });
  const kinds = new Map(netlistOf(glowing).parts.map((p) => [p.ref, p.kind]));
  const blocks = blocksOf(glowing, netlistOf(glowing)).map((b) => ({ ...b, kind: kinds.get(b.id) }));
  const of = (kind: string) => blocks.filter((b) => b.kind === kind);
  const choke = of('choke')[0]!;
  expect([choke.face, choke.screws.count, choke.what]).toEqual(['floor', 4, expect.stringMatching(/choke.* H/)]);
  const [valve] = of('valve');
  expect([valve!.size, valve!.round, valve!.hot]).toEqual([{ wMm: 32, dMm: 32, hMm: 95 }, true, true]);
  for (const [kind, face] of [
    ['inlet', 'rear'],
    ['fuse', 'rear'],
    ['switch', 'rear'],
    ['terminal', 'front'],
    ['transformer', 'floor'],
  ] as const)
    expect(of(kind).map((b) => [kind, b.face])).toEqual(of(kind).map(() => [kind, face]));
  expect(of('transformer')).toHaveLength(1);
});

test('in the winding’s own wires flow its pulses, in the primary’s what the mains gives', () => {
  for (const design of [clock, drum]) {
    const study = studyDesign(design);
    const netlist = netlistOf(design);
    const flows = flowsOf(study, netlist, mainsSide(study));
    const hardest = Math.max(
      ...[study.low, study.nominal, study.high].flatMap((p) => p.solution.windings.map((w) => w.rmsA)),
    );
    for (const net of netlist.nets.filter((n) => n.role === 'winding' || n.role === 'charging')) {
      const flow = flows.get(net.name)!;
      expect([net.name, flow.pulses]).toEqual([net.name, true]);
      expect(flow.rmsA).toBeLessThanOrEqual(hardest * 1.000001);
      expect(flow.rmsA).toBeGreaterThan(0.9 * hardest);
      expect(flow.peakA!).toBeGreaterThan(1.5 * flow.rmsA);
    }
    for (const net of netlist.nets.filter((n) => n.role === 'mains'))
      expect(flows.get(net.name)!.rmsA).toBeLessThan(hardest);
  }
});

test('a stray field: what its working says is picked up, and the distance at which the cube of it has fallen to what is allowed', () => {
  // 10 µT at 100 mm from 100 VA; 50 Hz through 10 cm² is 3.14 µV, and 1 µV may be left.
  const figure = fieldDistance(100, false, 50);
  const input = Object.fromEntries(figure.inputs.map((i) => [i.label, i.value]));
  expect(input['picked up at 100 mm']).toBeCloseTo(3.14159e-6, 10);
  expect(input['allowed']).toBe(1e-6);
  expect(input['loop of the input']).toBeCloseTo(10, 9);
  expect((figure.value / 100) ** 3).toBeCloseTo(3.14159, 4);
  expect(fieldDistance(200, false, 50).value / figure.value).toBeCloseTo(1.259921, 5);
  expect(fieldDistance(100, false, 60).value / figure.value).toBeCloseTo(1.2 ** (1 / 3), 6);
});

test('every part of a circuit belongs to a place of the terrace: each mark of a place leads to parts of it', () => {
  const at = (design: Design, kind: string, more = (_: { line: string }) => true) => [
    ...new Set(
      netlistOf(design)
        .parts.filter((p) => p.kind === kind && more(p))
        .map(stationOf),
    ),
  ];
  expect(at(clock, 'inlet')).toEqual(['mains']);
  expect(at(clock, 'transformer')).toEqual(['winding']);
  expect(at(clock, 'electrolytic', (p) => p.line === 'reservoir')).toEqual(['reservoir']);
  expect(at(clock, 'resistor', (p) => p.line === 'bleeder')).toEqual(['reservoir']);
  expect(at(clock, 'terminal')).toEqual(['load']);
  expect(at(clock, 'regulator')).toEqual(['regulator']);
  expect(at(drum, 'regulator')).toEqual(['regulator']);
  const bridge = netlistOf(clock).parts.filter((p) => p.block === 'rectifier' && p.line !== 'secondary-fuse');
  expect(new Set(bridge.map(stationOf))).toEqual(new Set(['rectifier']));
  expect(at(tide, 'choke')).toEqual(['before']);
  for (const [line, place] of [
    ['before-0', 'before'],
    ['after-1', 'after'],
    ['secondary-fuse', 'winding'],
    ['balance', 'reservoir'],
  ] as const)
    expect(stationOf({ block: 'rectifier', line })).toBe(place);
  for (const [block, place] of [
    ['filter', 'reservoir'],
    ['ahead', 'regulator'],
    ['output', 'load'],
  ] as const)
    expect(stationOf({ block, line: 'x' })).toBe(place);
});

test('inlet, fuse and switch want to be near each other, iron near the switch: by the parts there are', () => {
  const netlist = netlistOf(clock);
  const refs = (kind: string) => netlist.parts.filter((p) => p.kind === kind).map((p) => p.ref);
  const near = new Map(blocksOf(clock, netlist).map((b) => [b.id, b.near]));
  for (const ref of [...refs('fuse'), ...refs('switch')]) expect(near.get(ref) ?? refs('inlet')).toEqual(refs('inlet'));
  expect(near.get(refs('transformer')[0]!)).toEqual([...refs('switch'), 'board']);
});

test('labels stand over the holes they name, the first note says how to check the print', () => {
  const { placed, inside } = planOf(clock);
  const { items, notes } = labelTemplate(placed, inside, 'front', 'Clock');
  expect(notes).toEqual([expect.stringContaining('100 mm line')]);
  const holes = drillTemplate(placed, inside, 'front', 'outside', 'x').items.flatMap((i) =>
    i.kind === 'hole' ? [i] : [],
  );
  const named = placed.filter((p) => p.spot.face === 'front' && p.block.hole);
  expect(items.length).toBe(named.reduce((sum, p) => sum + p.block.holes.count, 0));
  for (const item of items) {
    const { block } = named.find((p) => p.block.id === item.of)!;
    const below = holes.filter((h) => same(h.xMm, item.xMm) && same(h.yMm + block.size.hMm / 2 + 2.5, item.yMm));
    expect([item.of, below.length]).toEqual([item.of, 1]);
  }
});
