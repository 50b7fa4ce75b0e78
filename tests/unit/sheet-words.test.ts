import { applyPatch, type Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { operatingPoint } from '@/core/study/operating-point';
import { firstFault } from '@/core/design/fault';
import { headlineOf, summaryOf } from '@/core/picture/summary';
import { pictureOf } from '@/core/judge/picture';
import { judge, distress, countFails } from '@/core/judge/judge';
import * as cures from '@/core/judge/cures';
import { regulatorHeat } from '@/core/study/heat';
import { studyDesign } from '@/core/study/study';
import { cautions } from '@/core/sheet/cautions';
import { terraceInWords } from '@/ui/terrace/terrace-in-words';
import { typicalCost } from '@/core/study/cost';
import { demoDesigns } from '@/core/design/demo-designs';
import * as yup from 'yup';

const [clock, dome, pen] = demoDesigns() as [
  ReturnType<typeof demoDesigns>[0],
  ReturnType<typeof demoDesigns>[0],
  ReturnType<typeof demoDesigns>[0],
];

describe('cautions', () => {
  test('every sheet defers to codes and licensed practice, and tells of mains, charge, earth and eyes', () => {
    const text = cautions(pen, null, 50).join(' ');
    for (const word of [
      'licensed electrician',
      'Pull the plug',
      'Discharge',
      'earth',
      'fuse',
      'Eye protection',
      '60 V DC',
    ]) {
      expect(text).toContain(word);
    }
  });

  test('hazardous voltage comes first, hot metal and a missing regulator are named', () => {
    const list = cautions(dome, 'Hazardous voltage: 80 V DC.', 82.4);
    expect(list[0]).toBe('Hazardous voltage: 80 V DC.');
    expect(list.join(' ')).toContain('about 82 °C');
    expect(list.join(' ')).toContain('secondary fuse');
    expect(cautions(clock, null, 55).join(' ')).not.toMatch(/guard or label/);
  });
});

describe('heat', () => {
  const heatOf = (d: Design, load: Parameters<typeof regulatorHeat>[2]) =>
    regulatorHeat(d, { pass: mainModel(d)!.pass, sinkKPerW: d.heat.sinkKPerW, blown: true }, load);
  const only = (regulatorW: number) => ({ regulatorW, othersW: 0, boxW: regulatorW });

  test('a part without a sink goes by its free-air figure', () => {
    const bare = heatOf(applyPatch(clock, { heat: { sinkKPerW: null } }), only(1.5));
    expect(bare.junctionC).toBeCloseTo(35 + 1.5 * 50, 9);
    expect(bare.sinkC).toBeCloseTo(35 + 1.5 * 47, 9);
  });

  test('a TO-92 takes no sink, whatever the field says', () => {
    const small = applyPatch(clock, { regulator: { kind: 'fixed', size: '78L', outputV: 24 } });
    expect(heatOf(small, only(0.3)).junctionC).toBeCloseTo(35 + 0.3 * 180, 9);
  });

  test('paste conducts better than mica, mica better than dry metal', () => {
    const at = (i: 'paste' | 'mica' | 'dry') =>
      heatOf(applyPatch(clock, { heat: { interface: i } }), only(10)).junctionC;
    expect(at('paste')).toBeLessThan(at('mica'));
    expect(at('mica')).toBeLessThan(at('dry'));
  });

  test('no regulator, no heat', () => {
    expect(operatingPoint(dome, 'high').heat).toBeNull();
  });
});

describe('cures', () => {
  test('go along what can be bought and leave typical values to the new part', () => {
    expect(cures.biggerReservoir(clock, [1, 2]).map((e) => e.label)).toEqual([
      'Reservoir 10000 µF',
      'Reservoir 15000 µF',
    ]);
    expect(cures.biggerReservoir(clock, [1])[0]!.patch.reservoir).toEqual({
      capacitanceF: 0.01,
      esrOhm: null,
      rippleA: null,
    });
    expect(cures.windingVolts(clock, [-1, 1]).map((e) => e.label)).toEqual(['Winding 22 V', 'Winding 25 V']);
    expect(cures.transformerSize(clock, [1])[0]!.patch.transformer).toMatchObject({
      ratedVA: 120,
      regulationPct: null,
    });
    expect(cures.sinks(clock, [1]).map((e) => e.label)).toEqual(['Heatsink 1.2 K/W']);
  });

  test('a bare part is offered sinks, a missing reservoir a first one', () => {
    expect(cures.sinks(applyPatch(clock, { heat: { sinkKPerW: null } }), [1]).length).toBeGreaterThan(2);
    const none = applyPatch(dome, { reservoir: { capacitanceF: 0 } });
    expect(cures.biggerReservoir(none, [1])[0]!.patch.reservoir!.capacitanceF).toBeGreaterThan(0);
  });

  test('never offer what is fitted already', () => {
    expect(cures.otherDiodes(clock).map((e) => e.patch.rectifier!.diode)).not.toContain(clock.rectifier.diode);
    expect(cures.fullWave(clock)).toEqual([]);
    expect(cures.fullWave(applyPatch(clock, { rectifier: { kind: 'half-wave' } }))).toHaveLength(1);
  });
});

describe('how bad it is', () => {
  test('distress is nothing when all passes, and grows with what fails', () => {
    const of = (d: typeof clock) => judge(studyDesign(d));
    expect(distress(of(clock))).toBe(0);
    expect(distress(of(pen))).toBeGreaterThan(countFails(of(pen)));
    const worse = applyPatch(pen, { heat: { sinkKPerW: 90 } });
    expect(distress(of(worse))).toBeGreaterThan(distress(of(pen)));
  });

  test('judging a few rules gives the same verdicts as judging all', () => {
    const all = judge(studyDesign(pen));
    const some = judge(studyDesign(pen), ['headroom', 'junction']);
    expect(some.map((v) => v.id).sort()).toEqual(['headroom', 'junction']);
    for (const v of some) expect(all.find((x) => x.id === v.id)!.figure.value).toBeCloseTo(v.figure.value, 5);
  });
});

describe('words', () => {
  test('the drawing is told to those who do not see it', () => {
    const words = terraceInWords(pictureOf(clock).picture);
    expect(words).toMatch(/the winding peaks at 37\.\d V/);
    expect(words).toMatch(/the regulator needs 25\.9 V/);
    expect(words).toMatch(/the output is 24\.0 V\.$/);
    expect(terraceInWords(pictureOf(dome).picture)).not.toMatch(/regulator/);
  });

  test('the shelf says rating, count and the worst', () => {
    const head = headlineOf(pictureOf(pen).picture, 'cure it');
    expect(head).toMatchObject({ rating: '12 V, 800 mA', hazard: false, next: 'cure it' });
    expect(head.fails).toBe(pictureOf(pen).picture.fails);
    expect(head.worst!.state).toBe('fails');
  });

  test('a split supply is summed up by both its rails, the weaker load higher', () => {
    const drum = demoDesigns().find((d) => d.rectifier.kind === 'split-bridge')!;
    const uneven = applyPatch(drum, { demand: { outputA: 0.25, negativeA: 0.05 } });
    const { rails } = summaryOf(pictureOf(uneven).picture);
    expect(rails).toHaveLength(2);
    expect(rails[1]!.levels.nominal.reservoirMinV).toBeGreaterThan(rails[0]!.levels.nominal.reservoirMinV + 0.5);
  });

  test('a summary is small and keeps the order of the levels', () => {
    const summary = summaryOf(pictureOf(clock).picture);
    expect(JSON.stringify(summary).length).toBeLessThan(3000);
    expect(summary.rails[0]!.levels.low.openPeakV).toBeLessThan(summary.rails[0]!.levels.nominal.openPeakV);
    expect(summary.rails[0]!.levels.nominal.openPeakV).toBeLessThan(summary.rails[0]!.levels.high.openPeakV);
    expect(summary.rails[0]!.waves.low).toHaveLength(24);
    expect(summary.windowV[0]).toBeCloseTo(22.8, 9);
  });
});

test('a dearer part makes a dearer design', () => {
  const cost = typicalCost(clock);
  expect(typicalCost(applyPatch(clock, { transformer: { ratedVA: 160 } }))).toBeGreaterThan(cost);
  expect(typicalCost(applyPatch(clock, { reservoir: { capacitanceF: 0.01 } }))).toBeGreaterThan(cost);
  expect(typicalCost(applyPatch(clock, { heat: { sinkKPerW: 5 } }))).toBeLessThan(cost);
  expect(typicalCost(applyPatch(clock, { regulator: { kind: 'none' } }))).toBeLessThan(cost);
});

test('a fault keeps its path beside its sentence, and what is no fault of validation is passed on', () => {
  const schema = yup.object({ a: yup.object({ b: yup.number().required('${path} is missing') }) });
  let caught: unknown;
  try {
    schema.validateSync({ a: {} });
  } catch (error) {
    caught = error;
  }
  expect(firstFault(caught)).toEqual({ path: 'a.b', sentence: 'it is missing' });
  expect(() => firstFault(new TypeError('other'))).toThrow(TypeError);
});
