import { nextStep } from '@/core/bench/next-step';
import { blocksOf } from '@/core/box/blocks';
import { underWay } from '@/core/build/under-way';
import { assemblyOf, tickOf } from '@/core/build/assembly';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { netlistOf } from '@/core/netlist/netlist-of';
import { billOf } from '@/core/study/bill';
import { figureText } from '@/core/study/figure';
import { studyDesign } from '@/core/study/study';
import { stagesOf } from '@/core/bench/stages';
import { clock, physics } from '../support/demos';

const good = { verdicts: [], fails: 0 };
const ready = applyPatch(clock, {
  mainsSide: { primaryFuseA: 0.5, ticked: ['label'] },
  bench: { readings: [] },
  build: { placed: [], kit: [] },
});
const told = (design: Design) => nextStep(design, good, underWay(studyDesign(design))).text;
const lines = billOf(studyDesign(ready));
const keyOf = (n: number) => `${lines[n]!.references} ${lines[n]!.what}`;

describe('what is next once parts have come', () => {
  test('parts that were counted and are missing come first', () => {
    const diodes = lines.findIndex((l) => l.count === 4);
    const kit = [{ line: keyOf(diodes), came: 1 }];
    expect(told(applyPatch(ready, { build: { kit } }))).toBe('3 parts short');
    expect(told(applyPatch(ready, { build: { kit: [{ line: keyOf(0), came: 0 }] } }))).toBe('1 part short');
    expect(told(applyPatch(ready, { build: { kit: [{ line: keyOf(diodes), came: 4 }] } }))).toMatch(/^stage \d/);
  });

  test('then what is begun and not all in its place; a stage that is in is measured before the next', () => {
    const stages = assemblyOf(ready, netlistOf(ready));
    const placed = (n: number) => stages.slice(0, n).flatMap((s) => s.parts.map(tickOf));
    const first = stages[0]!.parts.length;
    expect(told(applyPatch(ready, { build: { placed: placed(1).slice(0, -1) } }))).toBe(
      'mains and transformer, 1 part to put in',
    );
    expect(told(applyPatch(ready, { build: { placed: placed(1).slice(0, 1) } }))).toBe(
      `mains and transformer, ${first - 1} parts to put in`,
    );
    const open = stagesOf(ready).findIndex((s) => s.points.length > 0) + 1;
    expect(told(applyPatch(ready, { build: { placed: placed(1) } }))).toBe(
      `stage ${open}, transformer alone, is not yet read`,
    );
  });

  test('nothing is said of parts where nobody counted or put any in, and nothing is wanted of what is retired', () => {
    expect(underWay(studyDesign(ready))).toBeNull();
    expect(told({ ...ready, stage: 'retired' })).toBe('nothing, it is retired');
    const [built] = demoDesigns();
    expect(told(built!)).toMatch(/^rectifier and reservoir, \d parts to put in$/);
  });
});

test('a fixed regulator ahead of another has a capacitor at its own input, and its twin too', () => {
  const cascade = applyPatch(clock, {
    preRegulator: { kind: 'fixed', size: '78', outputV: 24 },
    regulator: { kind: 'fixed', size: '78', outputV: 12 },
  });
  const ahead = netlistOf(cascade).parts.filter((p) => p.block === 'ahead');
  expect(ahead.map((p) => p.kind).sort()).toEqual(['capacitor', 'regulator']);
  const [cap, reg] = ['capacitor', 'regulator'].map((kind) => ahead.find((p) => p.kind === kind)!);
  const net = (part: typeof cap, pin: string) => part!.pins.find((p) => p.name === pin)!.net;
  expect(net(cap, 'plus')).toBe(net(reg, 'in'));
  expect(cap!.value).toMatch(/0\.33 µF|330 nF/);
  expect(billOf(studyDesign(cascade)).find((l) => l.what.startsWith('Ahead of it'))!.references).toContain(cap!.ref);
});

test('a can and a sink that came out of the drawer stand in the box as high as they are', () => {
  const values = { reservoir: { capacitanceF: clock.reservoir.capacitanceF } };
  const sink = { heat: { sinkKPerW: clock.heat.sinkKPerW } };
  const pick = (heightMm: number | null): Design['picked'] => [
    { role: 'reservoir', partId: 'a', name: 'Can', priceEur: 1, heightMm, values },
    { role: 'sink', partId: 'b', name: 'Sink', priceEur: 1, heightMm: heightMm && 2 * heightMm, values: sink },
  ];
  const block = (design: Design, id: string) => blocksOf(design, netlistOf(design)).find((b) => b.id === id)!;
  const [tall, typical] = [applyPatch(clock, { picked: pick(61) }), applyPatch(clock, { picked: pick(null) })];
  expect([block(tall, 'H1').size.hMm, block(tall, 'H1').origin]).toEqual([122, 'drawer']);
  expect(block(typical, 'H1').origin).toBe('rule of thumb');
  // What it can get rid of needs so much room whatever its shape.
  const room = ({ wMm, dMm, hMm }: { wMm: number; dMm: number; hMm: number }) => wMm * dMm * hMm;
  expect(room(block(tall, 'H1').size) / room(block(typical, 'H1').size)).toBeCloseTo(1, 1);
  const can = (design: Design) => block(design, 'C1') ?? block(design, 'board');
  expect(can(tall).size.hMm).toBeGreaterThanOrEqual(61);
  expect(can(typical).size.hMm).not.toBe(can(tall).size.hMm);
});

test('every figure a part has to bear opens its working, and says what the line of the bill says', () => {
  for (const design of [
    ...demoDesigns(),
    applyPatch(physics, { indicator: { currentA: 0.01, forwardV: 2, at: 'rail' } }),
  ]) {
    for (const line of billOf(studyDesign(design))) {
      if (line.bears.length === 0) continue;
      expect(line.needed).toBe(line.bears.map(figureText).join(', '));
      for (const f of line.bears) {
        expect([f.label, Number.isFinite(f.value), f.expression.length > 8, f.source.length > 5]).toEqual([
          f.label,
          true,
          true,
          true,
        ]);
      }
    }
  }
});

test('a resistor is to be bought for twice what its current makes of it: worked out again from what is printed', () => {
  const resistor = { kind: 'resistor', resistanceOhm: 1 } as Design['filter']['after'][number];
  const figures = [
    applyPatch(clock, { indicator: { currentA: 0.01, forwardV: 2, at: 'rail' } }),
    applyPatch(clock, { filter: { after: [resistor] } }),
  ]
    .flatMap((design) => billOf(studyDesign(design)))
    .flatMap((line) => line.bears)
    .filter((f) => f.expression.includes('I² R'));
  expect(figures).toHaveLength(2);
  for (const f of figures) {
    const [, i, r] = f.inputs.map((x) => x.value) as [number, number, number];
    expect(f.value).toBeCloseTo(2 * i * i * r, 6);
  }
});
