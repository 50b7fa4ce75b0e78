import { applyPatch, type Design, type Patch } from '@/core/design/design';
import type { Part, PartKind } from '@/core/drawer/part';
import { usesOf, withPart } from '@/core/drawer/fit';
import { countFails, judge } from '@/core/judge/judge';
import { regulatorChoices } from '@/core/size/regulator-choices';
import { compareSets, patchOfSet, type SizedSet } from '@/core/size/sized-set';
import { sizing } from '@/core/size/sizing';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

/** The search over whole sets against every combination of a small drawer, judged one by one. */
const pen = (demoDesigns() as Design[])[2]!;

let made = 0;
const part = (kind: PartKind, name: string, priceEur: number, ratings: Part['ratings']): Part => ({
  id: `p${++made}`,
  kind,
  name,
  priceEur,
  ratings,
  known: 'typical',
  condition: 'new',
  count: 9,
  place: '',
  note: '',
});
const transformer = (name: string, secondaryV: number, sizeVA: number, priceEur: number) =>
  part('transformer', name, priceEur, { secondaryV, sizeVA, windings: 1 });
const can = (name: string, capacitanceF: number, ratedV: number, priceEur: number) =>
  part('capacitor', name, priceEur, { capacitanceF, ratedV });
const sink = (name: string, kPerW: number, priceEur: number) => part('sink', name, priceEur, { kPerW });

const DRAWER: Part[] = [
  transformer('too low', 9, 30, 7),
  transformer('right', 15, 40, 11),
  transformer('too high', 24, 60, 13),
  can('too small', 470e-6, 35, 0.4),
  can('right', 4700e-6, 35, 1.2),
  can('too few volts', 6800e-6, 16, 0.6),
  part('bridge', 'bridge', 0.9, { outputA: 4, reverseV: 200, surgeA: 100 }),
  part('regulator', '7812', 0.5, { outputV: 12, ratedA: 1, dropoutV: 2, inputMaxV: 35 }),
  sink('small', 12, 0.8),
  sink('large', 2.5, 3),
];
const of = (kinds: PartKind[]) => DRAWER.filter((p) => kinds.includes(p.kind));

/** Every combination of one of each, as a design would take it. */
function everySet(): { names: string[]; worthEur: number; design: Design }[] {
  const found: { names: string[]; worthEur: number; design: Design }[] = [];
  const roles = [
    ['transformer', of(['transformer'])],
    ['rectifier', of(['bridge'])],
    ['reservoir', of(['capacitor'])],
    ['regulator', of(['regulator'])],
    ['sink', of(['sink'])],
  ] as const;
  const walk = (n: number, names: string[], worthEur: number, design: Design) => {
    if (n === roles.length) return void found.push({ names, worthEur, design });
    const [role, parts] = roles[n]!;
    for (const p of parts) {
      const use = usesOf(p, design, role)[0];
      if (!use) continue;
      walk(
        n + 1,
        [...names, p.name],
        worthEur + p.priceEur! * use.pieces,
        applyPatch(design, withPart(design, p, use) as Patch),
      );
    }
  };
  walk(0, [], 0, pen);
  return found;
}

const fails = (design: Design) => countFails(judge(studyDesign(design)));

describe('a small drawer', () => {
  const all = everySet().map((s) => ({ ...s, fails: fails(s.design) }));
  const passing = all.filter((s) => s.fails === 0);
  const found: SizedSet[] = [];
  for (const progress of sizing(pen, DRAWER, { from: 'drawer', by: 'cost' })) found.push(...progress.found);
  const held = found.filter((s) => s.fails === 0).sort(compareSets('cost'));

  test('has sets that hold and sets that do not', () => {
    expect(all.length).toBe(3 * 3 * 2);
    expect(passing.length).toBeGreaterThan(0);
    expect(passing.length).toBeLessThan(all.length / 2);
  });

  test('every set of one can that holds is found, and no other', () => {
    const names = (s: SizedSet) =>
      s.parts
        .map((p) => p.name.replace(/,.*/, ''))
        .sort()
        .join();
    const single = held.filter((s) => !/parallel|series/.test(s.parts.map((p) => p.name).join()));
    expect([...new Set(single.map(names))].sort()).toEqual(
      [...new Set(passing.map((s) => [...s.names].sort().join()))].sort(),
    );
  });

  test('what comes first is worth no more than the best of all combinations', () => {
    const best = Math.min(...passing.map((s) => s.worthEur));
    expect(Math.min(...held.map((s) => s.worthEur))).toBeLessThanOrEqual(best + 0.01);
    expect(fails(applyPatch(pen, patchOfSet(held[0]!)))).toBe(0);
    // All of it lies in the drawer: nothing is to pay, and of what costs alike the better margin stands first.
    expect(held[0]!.toPayEur).toBe(0);
    expect(held[0]!.worstLeft).toBe(Math.max(...held.filter((s) => s.toPayEur === 0).map((s) => s.worstLeft)));
  });
});

test('a lopsided window is what a regulator has to stay in, not its tolerance', () => {
  const volts = (window: { lowV: number; highV: number } | null) =>
    regulatorChoices({ ...pen.demand, outputV: 12, outputA: 0.5, tolerancePct: 5, window }, pen.mains).choices.flatMap(
      (r) => (r.kind === 'fixed' ? [r.outputV] : []),
    );
  expect(new Set(volts(null))).toEqual(new Set([12]));
  // 12 V less 4 % are 11.5: too low for a window from 11.9 V; 15 V less 4 % are 14.4, more 4 % 15.6.
  expect(new Set(volts({ lowV: 11.9, highV: 16 }))).toEqual(new Set([15]));
  expect(new Set(volts({ lowV: 11.4, highV: 16 }))).toEqual(new Set([12, 15]));
});
