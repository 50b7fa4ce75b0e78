import { applyPatch } from '@/core/design/design';
import { comparedFigures } from '@/core/picture/comparison';
import { pictureOf } from '@/core/judge/picture';
import { inputText, type Figure } from '@/core/study/figure';
import { passFigure, percentOfBuilds, type ToleranceSummary } from '@/core/picture/build-summary';
import { technologies } from '@/core/study/regulator-schools';
import { scopeTraces } from '@/core/study/traces';
import { demoDesigns } from '@/core/design/demo-designs';

const all = demoDesigns();

describe('what ways are compared by', () => {
  test.each(all.map((d) => [d.name, d] as const))('%s: every figure has a working of its own', (_, design) => {
    const { picture, study } = pictureOf(design);
    const figures = Object.entries(comparedFigures(picture, study));
    expect(figures.length).toBeGreaterThan(9);
    for (const [id, f] of figures) {
      expect([id, Number.isFinite(f!.value), f!.expression.length > 8, f!.source.length > 8]).toEqual([
        id,
        true,
        true,
        true,
      ]);
    }
  });

  test('the rise is that of the means, the ripple that of highest and lowest, as their workings say', () => {
    const { picture, study } = pictureOf(all[0]!);
    const { rises, ripple, fails } = comparedFigures(picture, study);
    const [idle, loaded] = rises!.inputs.map((i) => i.value);
    expect(rises!.value).toBeCloseTo((idle! / loaded! - 1) * 100, 6);
    const [highest, lowest] = ripple!.inputs.map((i) => i.value);
    expect(ripple!.value).toBeCloseTo(highest! - lowest!, 6);
    expect(fails!.value).toBe(picture.verdicts.filter((v) => v.state === 'fails').length);
  });

  test('what fails is named in the working of the count', () => {
    const starved = applyPatch(all[0]!, { demand: { outputA: 5 * all[0]!.demand.outputA } });
    const { picture, study } = pictureOf(starved);
    const { fails } = comparedFigures(picture, study);
    expect(fails!.value).toBeGreaterThan(1);
    for (const v of picture.verdicts.filter((x) => x.state === 'fails')) expect(fails!.expression).toContain(v.title);
  });
});

test('a bought converter of 86 % loses 14 for every 86 it delivers', () => {
  const { lines } = technologies(all[0]!, 40);
  const lost = lines[0]!.switching;
  const delivered = lost.inputs[0]!.value;
  expect(lost.value).toBeCloseTo((delivered * 14) / 86 + 0.3, 6);
  expect(lines.map((l) => l.switching.origin)).toEqual(Array(4).fill('rule of thumb'));
  expect(lines.map((l) => l.linear.unit)).toEqual(['W', 'V', 'kg', 'EUR']);
});

test('the figures of a run stand with their working', () => {
  const { notes } = scopeTraces(all[0]!, { kind: 'steady' }, 'nominal');
  const ripple = notes.find((n) => n.label === 'ripple p-p')!;
  expect(ripple.value).toBeCloseTo(ripple.inputs[0]!.value - ripple.inputs[1]!.value, 9);
  const start = scopeTraces(all[0]!, { kind: 'start', phaseDeg: 90, cycles: 10 }, 'high').notes;
  expect(start.find((n) => n.id === 'nine-tenths-after')!.inputs[0]!.value).toBeGreaterThan(20);
});

test('a share of builds says how sure it is, and is never whole when one failed', () => {
  expect([percentOfBuilds(1), percentOfBuilds(0.9999), percentOfBuilds(0.5)]).toEqual(['100 %', '99.9 %', '50.0 %']);
  const summary: ToleranceSummary = {
    seed: 3,
    builds: 400,
    unsolved: 4,
    pass: 0.9,
    checks: [],
    reading: { circumstances: 2000, solved: 2000 },
  };
  const figure = passFigure(summary, null);
  // 1.96 · √(0.9 · 0.1 / 400) is 2.94 %.
  expect(figure.inputs.map((i) => Number(i.value.toFixed(2)))).toEqual([400, 396, 2.94, 2000, 2000]);
  expect(figure.words).toBe('90.0 %');
});

test('what is counted is printed with every digit, what is measured to three', () => {
  const text = (value: number, unit: Figure['unit']) => inputText({ label: '', value, unit });
  expect([text(3986, ''), text(80_000, ''), text(3.98642, ''), text(3986, 'ohm')]).toEqual([
    '3,986',
    '80,000',
    '3.99',
    '3.99 kΩ',
  ]);
});
