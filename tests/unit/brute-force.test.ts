import { applyPatch, type Design, type Patch } from '@/core/design/design';
import type { Part, PartKind } from '@/core/drawer/part';
import { usesOf, withPart } from '@/core/drawer/fit';
import { countFails, judge } from '@/core/judge/judge';
import { regulatorChoices } from '@/core/size/regulator-choices';
import { compareSets, patchOfSet, type SizedSet, type SizingProgress } from '@/core/size/sized-set';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';
import { CAPACITOR_VOLTS } from '@/core/quantity/preferred';
import { sizing } from '../support/sizing-alone';

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

describe('what a search over sets leaves out is said, and is not among what it shows', () => {
  const demand = { ...pen.demand, outputV: 12, outputA: 0.6 };
  const asked = applyPatch(pen, { demand });
  const ENOUGH = 40;
  const run = (design: Design, parts: readonly Part[], from: 'drawer' | 'values') => {
    const all: SizingProgress[] = [];
    for (const progress of sizing(design, parts, { from, by: 'cost' })) if (all.push(progress) === ENOUGH) break;
    return { found: all.flatMap((p) => p.found), said: all.at(-1)!.leftOut.join(' ') };
  };
  const weak = [
    part('bridge', 'too weak', 0.1, { outputA: 0.2, reverseV: 200, surgeA: 20 }),
    part('bridge', 'too few volts', 0.1, { outputA: 4, reverseV: 20, surgeA: 100 }),
  ];
  const wrong = [
    part('regulator', '7805', 0.2, { outputV: 5, ratedA: 1, dropoutV: 2, inputMaxV: 35 }),
    part('regulator', '78L12', 0.2, { outputV: 12, ratedA: 0.1, dropoutV: 2, inputMaxV: 35 }),
  ];

  test('nothing where all of it fits', () => {
    const { said, found } = run(asked, DRAWER, 'drawer');
    expect(said).not.toMatch(/rectifiers|regulators of the drawer|valve/);
    expect(found.some((s) => s.fails === 0)).toBe(true);
  });

  test('diodes below half the load or twice the volts, regulators of other volts or too weak: counted', () => {
    const { said, found } = run(asked, [...DRAWER, ...weak, ...wrong], 'drawer');
    expect(said).toContain('2 rectifiers: below half the load or twice the volts.');
    expect(said).toContain('2 regulators of the drawer: not for these volts, or too weak.');
    const names = new Set(found.flatMap((s) => s.parts.map((p) => p.name.replace(/,.*/, ''))));
    expect([...names].filter((n) => /too weak|too few volts, 20|7805|78L12/.test(n))).toEqual([]);
    expect(names.has('bridge')).toBe(true);
  });

  test('valves are no choice of price where standard values are tried', () => {
    const { said, found } = run(asked, [], 'values');
    expect(said).toMatch(/\d valve rectifiers: chosen by hand/);
    expect(found.length).toBeGreaterThan(0);
    // Cans are told by their number and for volts above the open winding's peak.
    const cans = found.flatMap((s) => s.parts.filter((p) => p.role === 'reservoir').map((p) => p.name));
    expect(cans.some((n) => /^2 × [\d.]+ (µF|mF) \d+ V/.test(n))).toBe(true);
    expect(cans.every((n) => !/^1 ×/.test(n))).toBe(true);
    for (const set of found) {
      const sized = applyPatch(asked, patchOfSet(set));
      const near = CAPACITOR_VOLTS.indexOf(sized.reservoir.ratedV);
      const peak = Math.SQRT2 * 1.25 * sized.transformer.ratedV;
      expect(sized.reservoir.ratedV).toBeGreaterThanOrEqual(peak);
      expect(CAPACITOR_VOLTS[near - 1] ?? 0).toBeLessThan(peak);
    }
  });

  test('a transformer that stays is tried whatever its volts', () => {
    const kept = applyPatch(asked, { transformer: { ratedV: 6 }, fixed: ['transformer'] });
    const { found } = run(kept, DRAWER, 'drawer');
    expect(found.length).toBeGreaterThan(0);
    expect(found.every((s) => s.fails > 0 && applyPatch(kept, patchOfSet(s)).transformer.ratedV === 6)).toBe(true);
    // One that may go is not, where it could never do.
    const low = run(asked, [...DRAWER.filter((p) => p.kind !== 'transformer'), transformer('low', 6, 40, 9)], 'drawer');
    expect(low.found).toEqual([]);
  });
});
