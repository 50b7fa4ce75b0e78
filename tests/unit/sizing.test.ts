import { applyPatch, type Design } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import type { Part } from '@/core/drawer/part';
import { countFails, judge, tightest } from '@/core/judge/judge';
import { rankCandidates, triesOf, type Candidate } from '@/core/size/candidate';
import { tryPart } from '@/core/size/picking';
import { compareSets, patchOfSet, type SizedSet, type SizingAsk } from '@/core/size/sized-set';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { partsIn } from '@/core/drawer/fit';
import { studyDesign, studyWithHeat } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';
import { demoDrawer } from '@/server/demo-drawer';
import { sizing } from '../support/sizing-alone';

const [clock, dome, pen] = demoDesigns() as [Design, Design, Design];
const drawer: Part[] = demoDrawer().map((p, n) => ({ ...p, id: `d${n}` }));

function search(design: Design, ask: SizingAsk, studies = 120): SizedSet[] {
  const found: SizedSet[] = [];
  for (const progress of sizing(design, drawer, ask)) {
    found.push(...progress.found);
    if (progress.studies >= studies) break;
  }
  return found.sort(compareSets(ask.by));
}

describe('sizing whole sets', () => {
  const sets = search(pen, { from: 'values', by: 'cost' });

  test('every set said to hold holds when its values are put into the design and judged anew', () => {
    const passing = sets.filter((s) => s.fails === 0);
    expect(passing.length).toBeGreaterThan(5);
    for (const set of passing.filter((_, n) => n % 20 === 0)) {
      const verdicts = judge(studyDesign(applyPatch(pen, patchOfSet(set))));
      expect([set.parts.map((p) => p.name).join(), countFails(verdicts)]).toEqual([
        set.parts.map((p) => p.name).join(),
        0,
      ]);
      expect(tightest(verdicts)!.left).toBeCloseTo(set.worstLeft, 2);
    }
  });

  test('the cheapest comes first, and says what is tightest in it', () => {
    const passing = sets.filter((s) => s.fails === 0);
    for (let n = 1; n < passing.length; n++)
      expect(passing[n]!.toPayEur).toBeGreaterThanOrEqual(passing[n - 1]!.toPayEur);
    expect(passing[0]!.worst).toMatch(/: /);
  });

  test('a set that fails says at what', () => {
    const failing = search(clock, { from: 'values', by: 'cost' }, 300).filter((s) => s.fails > 0);
    expect(failing.length).toBeGreaterThan(0);
    for (const set of failing.slice(0, 20)) {
      expect(set.worstLeft).toBeLessThan(0);
      expect(set.worst.length).toBeGreaterThan(15);
    }
  });

  test('the drawer makes a cheaper set, and its parts are picked when it is taken', () => {
    const both = search(pen, { from: 'both', by: 'cost' }).filter((s) => s.fails === 0);
    const bought = sets.filter((s) => s.fails === 0);
    expect(both[0]!.toPayEur).toBeLessThan(bought[0]!.toPayEur);
    const taken = applyPatch(pen, patchOfSet(both[0]!));
    expect(partsIn(taken).length).toBeGreaterThan(0);
    expect(partsIn(taken)).toHaveLength(both[0]!.parts.filter((p) => p.partId !== null).length);
  });

  test('by heat, height or margin the order is that', () => {
    const passing = sets.filter((s) => s.fails === 0);
    const first = (by: SizingAsk['by']) => [...passing].sort(compareSets(by))[0]!;
    expect(first('heat').lostW).toBe(Math.min(...passing.map((s) => s.lostW)));
    expect(first('height').heightMm).toBe(Math.min(...passing.map((s) => s.heightMm)));
    expect(Math.min(first('margin').worstLeft, 3)).toBe(Math.min(3, Math.max(...passing.map((s) => s.worstLeft))));
  });

  test('a wide window may live without a regulator', () => {
    const sets = search(dome, { from: 'values', by: 'cost' }, 60);
    expect(sets.some((s) => s.fails === 0 && s.parts.some((p) => p.name === 'no regulator'))).toBe(true);
  });
});

test('another heatsink changes the junction and nothing of the circuit', () => {
  const study = studyDesign(clock);
  const cooler = studyWithHeat(study, { ...clock.heat, sinkKPerW: 0.5 });
  const anew = studyDesign(applyPatch(clock, { heat: { sinkKPerW: 0.5 } }));
  expect(cooler.high.heat!.junctionC).toBeCloseTo(anew.high.heat!.junctionC, 6);
  expect(cooler.high.heat!.junctionC).toBeLessThan(study.high.heat!.junctionC - 5);
  expect(cooler.low.rail).toEqual(study.low.rail);
});

describe('picking a part', () => {
  const tried = (design: Design, role: PartRole) =>
    rankCandidates(
      triesOf(design, role, drawer)
        .map((one) => tryPart(design, role, one))
        .filter((c): c is Candidate => c !== null),
    );

  test('the ring core that looks right for the clock is not: it idles above what the regulator bears', () => {
    const ring = tried(clock, 'transformer').find((c) => /ring core/.test(c.part.name))!;
    expect(ring.fails).toBeGreaterThan(0);
    expect(ring.tightest!.title).toMatch(/Regulator input/);
  });

  test('taking the best gives what was promised', () => {
    for (const role of ['reservoir', 'rectifier', 'sink'] as const) {
      const best = tried(clock, role)[0]!;
      const verdicts = judge(studyDesign(applyPatch(clock, best.patch)));
      expect([role, countFails(verdicts)]).toEqual([role, best.fails]);
    }
  });

  test('fewer failures come first', () => {
    const list = tried(pen, 'reservoir');
    expect(list.length).toBeGreaterThan(3);
    for (let n = 1; n < list.length; n++) expect(list[n]!.fails).toBeGreaterThanOrEqual(list[n - 1]!.fails);
  });

  test('parts of other kinds are not tried', () => {
    for (const c of tried(clock, 'sink')) expect(c.part.kind).toBe('sink');
  });
});

test('with all else kept, the search is the four smallest sinks that hold, each as the whole judge sees it', () => {
  const kept = applyPatch(demoDesigns()[0]!, { fixed: ['transformer', 'rectifier', 'reservoir', 'regulator'] });
  const holds = STANDARD_SINKS_K_PER_W.filter(
    (sinkKPerW) => !judge(studyDesign(applyPatch(kept, { heat: { sinkKPerW } }))).some((v) => v.state === 'fails'),
  );
  expect(holds.length).toBeGreaterThan(4);
  const found = [...sizing(kept, [], { from: 'values', by: 'cost' })].flatMap((p) => p.found);
  const passing = found.filter((s) => s.fails === 0).map((s) => s.patch.heat!.sinkKPerW!);
  // Smallest is most kelvin a watt.
  const smallest = [...holds].sort((a, b) => b - a).slice(0, 4);
  expect([...passing].sort((a, b) => b - a)).toEqual(smallest);
});

describe('sinks of the drawer, in whatever order they lie there', () => {
  const circuit = applyPatch(clock, { fixed: ['transformer', 'rectifier', 'reservoir', 'regulator'] });
  const sinksOf = (...kPerW: number[]): Part[] =>
    kPerW.map((k) => ({
      ...drawer.find((p) => p.kind === 'sink')!,
      id: `s${k}`,
      name: `${k} K/W`,
      ratings: { kPerW: k },
    }));
  const shown = (...kPerW: number[]) =>
    [...sizing(circuit, sinksOf(...kPerW), { from: 'drawer', by: 'cost' })]
      .flatMap((p) => p.found)
      .map((s) => ({ kPerW: s.patch.heat!.sinkKPerW!, fails: s.fails }));
  const holds = (sinkKPerW: number) =>
    countFails(judge(studyDesign(applyPatch(circuit, { heat: { sinkKPerW } })))) === 0;

  test('all that hold are shown, in the drawer’s order, and none that does not', () => {
    const all = [4, 20, 1, 2.5, 60, 0.5, 9];
    const wanted = all.filter(holds);
    expect(wanted.length).toBeGreaterThan(1);
    expect(wanted.length).toBeLessThan(all.length - 1);
    expect(shown(...all)).toEqual(wanted.slice(0, 4).map((kPerW) => ({ kPerW, fails: 0 })));
  });

  test('without any there is no whole set, and that is said', () => {
    const progress = [...sizing(circuit, [], { from: 'drawer', by: 'cost' })];
    expect(progress.flatMap((p) => p.found)).toEqual([]);
    expect(progress.at(-1)!.leftOut.join()).toMatch(/heatsink: the drawer has none/);
  });

  test('where none holds the one that comes closest is shown', () => {
    const small = [40, 25, 60, 90].filter((k) => !holds(k));
    expect(small).toHaveLength(4);
    expect(shown(...small)).toEqual([{ kPerW: 25, fails: 1 }]);
  });
});
