import { blankDesign } from '@/core/design/defaults';
import { applyPatch, type Design, type RegulatorSheet } from '@/core/design/design';
import { NO_REGULATOR_SHEET } from '@/core/design/defaults';
import { ofDiodeClass } from '@/core/design/diode-edit';
import { mainModel } from '@/core/design/outputs';
import { readDesign } from '@/core/design/schema';
import { judge } from '@/core/judge/judge';
import { diodeOf, forwardV, type ForwardPoints } from '@/core/parts/diode';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

/** Figures of the person's own data sheet in the place of the class's. */
const [clock, , , drum, , bench] = demoDesigns() as [Design, Design, Design, Design, Design, Design];
const sheeted = (design: Design, sheet: Partial<RegulatorSheet>) =>
  applyPatch(design, { regulatorSheet: { ...NO_REGULATOR_SHEET, ...sheet } });
const withPoints = (points: ForwardPoints, diode = clock.rectifier.diode) =>
  applyPatch(clock, { rectifier: { ...ofDiodeClass(diode), sheet: { points, jcKPerW: null, jaKPerW: null } } });

describe('a diode by two points of its forward curve', () => {
  test.each([
    ['an ordinary silicon one', 'si-1a', { lowA: 0.01, lowV: 0.66, highA: 1, highV: 0.95 }],
    [
      'one whose slope asks for more resistance than its class',
      'si-1a',
      { lowA: 0.01, lowV: 0.6, highA: 1, highV: 1.6 },
    ],
    ['a Schottky', 'sk-3a', { lowA: 0.03, lowV: 0.24, highA: 3, highV: 0.47 }],
  ] as const)('%s: the curve goes through both', (_, id, points) => {
    const { law } = diodeOf(withPoints(points, id).rectifier);
    expect(forwardV(law, points.lowA)).toBeCloseTo(points.lowV, 4);
    expect(forwardV(law, points.highA)).toBeCloseTo(points.highV, 3);
  });

  test('a valve takes one perveance between its two points', () => {
    const points = { lowA: 0.05, lowV: 12, highA: 0.2, highV: 30 };
    const { law } = diodeOf(withPoints(points, 'valve-soft').rectifier);
    const [low, high] = [forwardV(law, 0.05) / 12, forwardV(law, 0.2) / 30];
    expect(low * high).toBeCloseTo(1, 6);
    expect(Math.abs(low - 1)).toBeLessThan(0.1);
  });

  test('a diode that drops half a volt more leaves twice that less behind a bridge', () => {
    const usual = { lowA: 0.01, lowV: 0.66, highA: 1, highV: 0.95 };
    const worse = { ...usual, lowV: usual.lowV + 0.5, highV: usual.highV + 0.5 };
    const meanV = (points: ForwardPoints) => operatingPoint(withPoints(points), 'nominal').rail.meanV;
    // Less volts draw less through the copper: a little less than the whole volt.
    expect(meanV(usual) - meanV(worse)).toBeGreaterThan(0.85);
    expect(meanV(usual) - meanV(worse)).toBeLessThan(1.05);
  });

  test('points that cannot be are refused where they are written, and another class forgets them', () => {
    const fault = (points: ForwardPoints) => {
      const read = readDesign(JSON.parse(JSON.stringify(withPoints(points))));
      return read.ok ? null : `${read.fault.path}: ${read.fault.sentence}`;
    };
    expect(fault({ lowA: 0.01, lowV: 0.66, highA: 1, highV: 0.95 })).toBeNull();
    expect(fault({ lowA: 0.5, lowV: 0.66, highA: 1, highV: 0.95 })).toMatch(
      /^rectifier.sheet.points.highA: .*three times/,
    );
    expect(fault({ lowA: 0.01, lowV: 0.99, highA: 1, highV: 0.95 })).toMatch(/^rectifier.sheet.points.highV: .*above/);
    expect(ofDiodeClass('si-3a')).toEqual({ diode: 'si-3a', rated: null, sheet: null });
  });

  test('its own thermal resistance moves its heat in proportion', () => {
    const at = (jaKPerW: number) =>
      judge(
        studyDesign(
          applyPatch(clock, { rectifier: { sheet: { points: null, jcKPerW: null, jaKPerW } }, heat: { box: 'open' } }),
        ),
      ).find((v) => v.id === 'rectifier-heat')!.figure.value;
    const [cool, hot] = [at(40), at(80)];
    expect((hot - clock.heat.ambientC) / (cool - clock.heat.ambientC)).toBeCloseTo(2, 1);
  });
});

describe('a regulator by its data sheet', () => {
  test('another housing takes a sink or not, gives to free air what it does, and is named', () => {
    const small = mainModel(sheeted(drum, { package: 'TO-92' }))!;
    expect(small.pass).toMatchObject({ package: 'TO-92', takesSink: false, jaKPerW: 180 });
    expect(small.theirs).toEqual(['package']);
    // A figure that is typed outweighs the housing's.
    expect(mainModel(sheeted(drum, { package: 'TO-92', jaKPerW: 120 }))!.pass.jaKPerW).toBe(120);
    const junction = (d: Design) => judge(studyDesign(d)).find((v) => v.id === 'junction')!;
    expect(junction(sheeted(drum, { package: 'TO-92' })).state).toBe('fails');
    expect(junction(drum).state).not.toBe('fails');
  });

  test('half the watts bear half the current where power is what limits, and the working says whose figure it is', () => {
    const made = mainModel(bench)!;
    const volts = 20;
    const half = mainModel(sheeted(bench, { powerW: 45 }))!;
    // 90 W of the class at 20 V are 4.5 A.
    expect(made.pass.safeA!(volts)).toBeCloseTo(4.5, 6);
    expect(half.pass.safeA!(volts)).toBeCloseTo(2.25, 6);
    const input = judge(studyDesign(sheeted(bench, { powerW: 45 })))
      .find((v) => v.id === 'safe-area')!
      .figure.inputs.find((i) => i.label === 'it bears there')!;
    expect(input.origin).toBe('data sheet');
  });

  test('second breakdown from fewer volts bears less above them, as the 2.4th power', () => {
    const early = mainModel(sheeted(bench, { breakdownV: 20 }))!;
    expect(early.pass.safeA!(40) / early.pass.safeA!(20)).toBeCloseTo(0.5 ** 2.4, 6);
    expect(mainModel(bench)!.pass.safeA!(25)).toBeCloseTo(90 / 25, 6);
    expect(early.pass.safeA!(25)).toBeLessThan(90 / 25);
  });
});

test('a document of version 6 opens, with a sheet that knew less', () => {
  const old = JSON.parse(JSON.stringify(sheeted(drum, { inputMaxV: 33 }))) as {
    version: number;
    rectifier: Record<string, unknown>;
    regulatorSheet: Record<string, unknown>;
  };
  old.version = 6;
  delete old.rectifier['sheet'];
  for (const key of ['package', 'powerW', 'breakdownV']) delete old.regulatorSheet[key];
  const read = readDesign(old);
  // Nor did it know a building.
  const { build } = blankDesign('', drum.demand, drum.mains);
  expect(read.ok && read.design).toEqual({ ...sheeted(drum, { inputMaxV: 33 }), build });
});
