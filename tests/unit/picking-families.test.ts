import { applyPatch, type Design } from '@/core/design/design';
import { partsIn, usesOf, withPart } from '@/core/drawer/fit';
import type { Part, PartDraft } from '@/core/drawer/part';
import { startingDrawer } from '@/core/drawer/starting';
import { regulatorModel } from '@/core/parts/regulators';
import { rankCandidates, triesOf } from '@/core/size/candidate';
import { tryPart } from '@/core/size/picking';
import { demoDrawer } from '@/server/demo-drawer';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, , pen, drum, tide, bench, cooking] = demoDesigns() as Design[];
const stock = demoDrawer().map((p, n): Part => ({ ...p, id: `d${n}` }));
const shop = startingDrawer().map((p, n): Part => ({ ...p, id: `s${n}`, count: 9 }));
const named = (list: readonly Part[], text: string) => list.find((p) => p.name.includes(text))!;
const uses = (part: PartDraft, design: Design, role: Parameters<typeof usesOf>[2]) => usesOf(part, design, role);

describe('regulators of every ready-made family come out of the drawer', () => {
  test('an adjustable one is set to the design’s output', () => {
    const [use] = uses(named(stock, '317, on'), pen!, 'regulator');
    const regulator = use!.patch.regulator!;
    expect(regulator).toMatchObject({ kind: 'adjustable', part: '317' });
    const made = regulatorModel(applyPatch(pen!, use!.patch).regulator)!;
    expect(Math.abs(made.outputV / 12 - 1)).toBeLessThan(0.03);
  });

  test('a low-dropout one is its own part, not a fixed one of its current', () => {
    const [use] = uses(named(shop, '1117), SOT-223, 5 V'), pen!, 'regulator');
    expect(use!.patch.regulator).toMatchObject({ kind: 'low-dropout', part: 'ldo-800', outputV: 5 });
  });

  test('a 78 part stays a 78 part; on a split supply it comes with its twin', () => {
    const part = named(stock, '78M18');
    const [use] = uses(part, drum!, 'regulator');
    expect(use!.patch.regulator).toEqual({ kind: 'fixed', size: '78M', outputV: 18 });
    expect(use!.how).toMatch(/negative twin/);
  });

  test('what no class is like serves nowhere', () => {
    const odd = { ...named(stock, '78M18'), ratings: { outputV: 17, ratedA: 0.33 } };
    expect(uses(odd, drum!, 'regulator')).toEqual([]);
  });
});

describe('pass transistors and chokes', () => {
  test('a transistor promises no more than it bears', () => {
    const weak: PartDraft = { ...named(stock, 'MJ15003'), ratings: { collectorA: 14, ceoV: 55 } };
    const found = uses(weak, bench!, 'transistor').map((u) => u.patch.regulator);
    for (const r of found) expect(['bd139', 'tip122']).not.toContain(r);
    expect(JSON.stringify(found)).not.toMatch(/3055|15003/);
    const [strong] = uses(named(stock, 'MJ15003'), bench!, 'transistor');
    expect(strong!.patch.regulator).toMatchObject({ kind: 'bench', transistor: 'mj15003', passes: 1 });
  });

  test('as many in parallel as lie there, and simulated: four of them cool what one of them cooks', () => {
    const tries = triesOf(cooking!, 'transistor', stock);
    const four = tries.filter((t) => t.part.name.includes('MJ15003'));
    expect(four.map((t) => t.use.pieces)).toEqual([1, 2, 3, 4]);
    const junction = (n: number) => tryPart(cooking!, 'transistor', four[n]!)!;
    expect(junction(0).fails).toBeGreaterThan(junction(3).fails);
    const [best] = rankCandidates(tries.map((t) => tryPart(cooking!, 'transistor', t)!));
    expect(best!.fails).toBeLessThan(3);
  });

  test('none is asked for where nothing is passed by a transistor', () => {
    expect(triesOf(clock!, 'transistor', stock)).toEqual([]);
  });

  test('a choke takes the place of the one in the filter and keeps its side', () => {
    const part = named(stock, '10 H');
    const [use] = uses(part, tide!, 'choke');
    const taken = applyPatch(tide!, withPart(tide!, part, use!));
    expect(taken.filter.before).toEqual([
      { kind: 'choke', inductanceH: 10, resistanceOhm: 260, ratedA: 0.08, swinging: false },
    ]);
    expect(taken.filter.bleederOhm).toBe(tide!.filter.bleederOhm);
    expect(partsIn(taken).map((p) => p.role)).toEqual(['choke']);
    expect(uses(part, clock!, 'choke')).toEqual([]);
    expect(tryPart(tide!, 'choke', { part, use: use! })!.tightest).not.toBeNull();
  });
});
