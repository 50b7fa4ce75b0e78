import { applyPatch } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { studyDesign } from '@/core/study/study';
import { twoSides } from '@/core/study/two-sides';
import { clock, physics } from '../support/demos';

const value = (figures: readonly { label: string; value: number }[], label: RegExp) =>
  figures.find((f) => label.test(f.label))!.value;

test('85 or 105 °C: the same core, four times the life', () => {
  const [low, high] = twoSides(clock, 'grade');
  expect(value(low!.figures, /Core/)).toBeCloseTo(value(high!.figures, /Core/), 6);
  // Twenty kelvins are two doublings.
  expect(value(high!.figures, /Lasts/) / value(low!.figures, /Lasts/)).toBeCloseTo(4, 9);
  expect([low!.here, high!.here]).toEqual([true, false]);
  // In air of 35 °C an 85 °C can lasts 2000 h × 2^5 less what its ripple adds.
  expect(value(low!.figures, /Lasts/)).toBeGreaterThan(40_000);
  expect(value(low!.figures, /Lasts/)).toBeLessThan(64_000);
  expect(twoSides(applyPatch(clock, { reservoir: { capacitanceF: 0 } }), 'grade')).toEqual([]);
});

test('one large can or four: the bank has less resistance, bears more and is lower; the valley is simulated', () => {
  const [one, many] = twoSides(clock, 'bank');
  expect(value(many!.figures, /ESR/)).toBeLessThan(value(one!.figures, /ESR/));
  expect(value(many!.figures, /bear/)).toBeGreaterThan(value(one!.figures, /bear/));
  expect(value(many!.figures, /Height/)).toBeLessThan(value(one!.figures, /Height/));
  const valley = studyDesign(applyPatch(clock, one!.patch)).low.rail.minV;
  expect(value(one!.figures, /Valley/)).toBeCloseTo(valley, 3);
  expect([one!.here, many!.here]).toEqual([true, false]);
});

test('one pole leaves the mains on the primary where a plug goes in either way, and only there', () => {
  const left = (polarised: boolean) =>
    twoSides(applyPatch(clock, { mainsSide: { polarised } }), 'switch').map((s) => value(s.figures, /Left/));
  expect(left(false)).toEqual([230, 0]);
  expect(left(true)).toEqual([0, 0]);
  const [one, two] = twoSides(clock, 'switch');
  expect(value(two!.figures, /^Switch/)).toBeGreaterThan(value(one!.figures, /^Switch/));
});

test('precise or common parts: their errors add up, and come to volts and amperes at the top of the knobs', () => {
  const [precise, common] = twoSides(physics, 'precision');
  const regulator = physics.regulator as Extract<typeof physics.regulator, { kind: 'bench' }>;
  // Common: 2 % reference and twice 1 % of resistors, at most; half of a per cent and twice a tenth, precise.
  expect(value(common!.figures, /Voltage/)).toBeGreaterThan(3);
  expect(value(common!.figures, /Voltage/)).toBeLessThan(4.1);
  expect(value(precise!.figures, /Voltage/)).toBeLessThan(0.75);
  expect(value(common!.figures, /Current/)).toBeGreaterThanOrEqual(7);
  expect(value(common!.figures, /which is, at .* V$/)).toBeCloseTo(
    (regulator.maxV * value(common!.figures, /Voltage/)) / 100,
    9,
  );
  expect(value(common!.figures, /which is, at .* A$/)).toBeCloseTo(
    (regulator.limitA * value(common!.figures, /Current/)) / 100,
    9,
  );
  expect(twoSides(clock, 'precision')).toEqual([]);
});

test('taking a side is what the document can hold', () => {
  for (const side of [
    ...twoSides(clock, 'bank'),
    ...twoSides(clock, 'grade'),
    ...twoSides(clock, 'switch'),
    ...twoSides(physics, 'precision'),
  ]) {
    const base = 'regulator' in side.patch ? physics : clock;
    expect(readDesign(applyPatch(base, side.patch))).toMatchObject({ ok: true });
    for (const f of side.figures)
      expect([f.label, f.expression.length > 5, f.source.length > 3, f.assumes]).toEqual([
        ...[f.label, true, true],
        f.assumes.filter((a) => /^[A-Z±].*[a-z].*\.$/.test(a)),
      ]);
  }
});
