import { applyPatch, type Design } from '@/core/design/design';
import { arrangementWords } from '@/core/design/words';
import { readDesign } from '@/core/design/schema';
import { judge } from '@/core/judge/judge';
import { stationFigures } from '@/core/picture/station-figures';
import { pictureOf } from '@/core/judge/picture';
import { aheadDropout, aheadModel, type PreRegulator } from '@/core/parts/regulators/ahead';
import { regulatorModel } from '@/core/parts/regulators';
import { billOf } from '@/core/study/bill';
import { letsGoAt } from '@/core/study/cascade';
import { neededV } from '@/core/study/point';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign } from '@/core/study/study';
import { solveBuilds } from '../support/builds';
import { demoDesigns } from '@/core/design/demo-designs';

const demos = demoDesigns() as Design[];
const clock = demos[0]!;
const bench = demos[5]!;
const fixed: PreRegulator = { kind: 'fixed', size: '78S', outputV: 18 };
const tracking: PreRegulator = { kind: 'tracking', aboveV: 4, transistor: 'tip3055' };
/** 12 V behind 18 V, on the clock's rail of some 32 V. */
const pair = applyPatch(clock, {
  demand: { outputV: 12, outputA: 0.8 },
  regulator: { kind: 'fixed', size: '78', outputV: 12 },
  preRegulator: fixed,
});
const alone = applyPatch(pair, { preRegulator: { kind: 'none' } });

describe('two regulators in cascade', () => {
  test('share the heat as their volts are shared, and burn together what one would alone', () => {
    const two = operatingPoint(pair, 'high');
    const one = operatingPoint(alone, 'high');
    const { watts } = two.ahead!;
    expect((watts + two.regulatorW) / one.regulatorW).toBeCloseTo(1, 1);
    // The second stands 6 V above its output, the first takes the rest of the rail.
    expect(two.regulatorW / (6 * two.outputMeanA)).toBeCloseTo(1, 1);
    expect(watts / ((two.rail.meanV - 18) * two.outputMeanA)).toBeCloseTo(1, 1);
    const { winding, rectifier, reservoir, regulator, load } = two.watts;
    expect((winding + rectifier + reservoir + regulator + load) / two.solution.energyBalance.sourceW).toBeCloseTo(1, 2);
  });

  test('reject together what each rejects alone, while the first holds', () => {
    const two = operatingPoint(pair, 'nominal');
    const one = operatingPoint(alone, 'nominal');
    const first = aheadModel(fixed)!.rejectionDb(100);
    const ratio = one.outputRippleVpp / one.rail.ripplePeakToPeakV / (two.outputRippleVpp / two.rail.ripplePeakToPeakV);
    expect(20 * Math.log10(ratio)).toBeCloseTo(first, 1);
  });

  test('need the room of both, and say which of them sees the raw rail', () => {
    expect(neededV(pair)! - neededV(alone)!).toBeCloseTo(aheadDropout(aheadModel(fixed)!, 0.8), 9);
    const input = (d: Design) => judge(studyDesign(d), ['regulator-input'])[0]!;
    expect(input(pair).figure.value).toBeGreaterThan(30);
    expect(input(pair).limitSource).toMatch(/78S18/);
    const weak = applyPatch(pair, {
      preRegulator: { ...tracking, aboveV: 8 },
      regulator: { kind: 'low-dropout', part: 'ldo-1a5', outputV: 12, boardCm2: 6 },
    });
    // A part that bears 26 V lives behind one that holds 20.
    expect(input(weak).state).not.toBe('fails');
    expect(input(applyPatch(weak, { preRegulator: { kind: 'none' } })).state).toBe('fails');
  });

  test('the first lets go at the load its verdict says, not before', () => {
    const tight = applyPatch(pair, { preRegulator: { kind: 'fixed', size: '78S', outputV: 24 } });
    const amps = letsGoAt(tight)!;
    const headroom = (a: number) =>
      operatingPoint(applyPatch(tight, { demand: { outputA: a } }), 'low').ahead!.headroomV;
    expect(headroom(0.98 * amps)).toBeGreaterThan(0);
    expect(headroom(1.03 * amps)).toBeLessThan(0);
    expect(letsGoAt(alone)).toBeNull();
    const verdict = judge(studyDesign(applyPatch(tight, { demand: { outputA: 1.3 * amps } })), ['pre-regulator'])[0]!;
    expect(verdict.sentence).toMatch(/lets go in the valleys/);
    expect(verdict.state).toBe('caution');
  });

  test('one that tracks takes the heat of a low setting off the regulator', () => {
    const tracked = applyPatch(bench, { preRegulator: tracking, transformer: { ratedV: 28 } });
    const low = studyDesign(tracked).held('lowest')!;
    expect(low.regulatorW / (4 * low.outputMeanA)).toBeCloseTo(1, 0);
    expect(low.ahead!.watts).toBeGreaterThan(5 * low.regulatorW);
    const short = studyDesign(tracked).held('shorted')!;
    expect(short.ahead!.watts + short.regulatorW).toBeCloseTo(short.watts.regulator, 6);
  });

  test('stand in words, bill and file; each has a verdict of its own', () => {
    expect(arrangementWords(pair)).toMatch(/78S18, 7812/);
    const lines = billOf(studyDesign(pair));
    expect(JSON.stringify(lines)).toContain('Ahead of it: 78S18');
    expect(readDesign(JSON.parse(JSON.stringify(pair)))).toMatchObject({ ok: true });
    const ids = judge(studyDesign(pair)).map((v) => v.id);
    expect(ids).toEqual(expect.arrayContaining(['pre-regulator', 'pre-regulator-heat']));
    expect(judge(studyDesign(alone)).map((v) => v.id)).not.toContain('pre-regulator');
    expect(stationFigures(pictureOf(pair).picture, 'regulator', 'nominal').length).toBeGreaterThan(3);
    expect(solveBuilds(pair, 1, 0, 3).every((b) => b.margins!.every(Number.isFinite))).toBe(true);
  });

  test('a version that knew of none reads as none; what is not made is refused', () => {
    const { preRegulator: _gone, ...old } = JSON.parse(JSON.stringify(clock)) as Record<string, unknown>;
    void _gone;
    const read = readDesign({ ...old, version: 3 });
    expect(read.ok && read.design.preRegulator).toEqual({ kind: 'none' });
    const bad = readDesign({ ...JSON.parse(JSON.stringify(clock)), preRegulator: { ...fixed, outputV: 17 } });
    expect(bad.ok ? '' : bad.fault.sentence).toMatch(/no 78S regulator for 17 V/);
    expect(regulatorModel(clock.regulator)!.outputV).toBe(24);
  });
});
