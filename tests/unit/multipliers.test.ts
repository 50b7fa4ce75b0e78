import { plainWay } from '@/cli/plain-way';
import { applyPatch, type Design } from '@/core/design/design';
import { judge } from '@/core/judge/judge';
import { factsOf } from '@/core/parts/arrangement-facts';
import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { solveSteady } from '@/core/solve/steady';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';
import { amps, circuit, farad } from './circuits';

describe('what follows from the charging loops alone', () => {
  const of = (kind: keyof typeof ARRANGEMENTS) => factsOf(ARRANGEMENTS[kind]);

  test('volts of the rail and of each can, in peaks of the winding', () => {
    expect(of('bridge').railPeaks).toBe(1);
    expect(of('doubler')).toMatchObject({ railPeaks: 2, railPerCan: 2, cans: 2 });
    expect(of('cascade-doubler').railPeaks).toBe(2);
    expect(of('tripler').railPeaks).toBe(3);
  });

  test('how many ready-made bridges of four would carry it', () => {
    expect(['bridge', 'split-bridge', 'two-bridges'].map((k) => of(k as 'bridge').bridges)).toEqual([1, 1, 2]);
    expect(
      ['half-wave', 'centre-tap', 'doubler', 'tripler', 'bridge-of-pairs'].map((k) => of(k as 'bridge').bridges),
    ).toEqual([0, 0, 0, 0, 0]);
  });

  test('half waves, drops in the way, and which windings conduct together', () => {
    expect(of('half-wave').fullWave).toEqual([false]);
    expect(of('bridge').fullWave).toEqual([true]);
    expect(of('bridge').diodesInPath).toBe(2);
    expect(of('bridge-of-pairs').diodesInPath).toBe(4);
    expect(of('centre-tap').together).toBe(false);
    expect(of('two-bridges').together).toBe(true);
    expect(of('split-bridge').together).toBe(true);
    // One half wave leaves its direct current in the core.
    expect(Math.abs(of('half-wave').bias[0]!)).toBeCloseTo(1, 6);
    expect(of('bridge').bias[0]).toBeCloseTo(0, 6);
  });
});

describe('multipliers', () => {
  test.each([
    ['doubler', 2],
    ['cascade-doubler', 2],
    ['tripler', 3],
  ] as const)(
    '%s: with hardly a load it stands at so many peaks, less a drop of a volt at each diode',
    (kind, peaks) => {
      const solved = solveSteady(circuit(kind, { volts: 60, rails: [{ filter: [farad(47e-6)], load: amps(2e-4) }] }));
      expect(solved.rails[0]!.meanV / (peaks * 60 * Math.SQRT2)).toBeGreaterThan(0.97);
    },
  );

  test.each(['cascade-doubler', 'tripler', 'bridge-of-pairs'] as const)(
    '%s: agrees with an independent nodal analysis of fine fixed steps',
    (kind) => {
      const network = circuit(kind, { rails: [{ filter: [farad(2200e-6)], load: amps(0.1) }] });
      const solved = solveSteady(network);
      const plain = plainWay(network, 2000, 300);
      expect(plain.meanV / solved.rails[0]!.meanV).toBeCloseTo(1, 2);
      expect(plain.windingRmsA / solved.windings[0]!.rmsA).toBeCloseTo(1, 1);
    },
  );

  test('a design on a tripler is judged like any other: its cans at their share, its winding by its own current', () => {
    const tide = (demoDesigns() as Design[])[4]!;
    const tripled = applyPatch(tide, {
      rectifier: { kind: 'tripler' },
      transformer: { ratedV: 60, leakageH: 0 },
      filter: { before: [], bleederOhm: null },
    });
    const { idle } = studyDesign(tripled);
    expect(idle.rail.maxV / (3 * Math.SQRT2 * idle.winding.voltageRms)).toBeGreaterThan(0.95);
    expect(idle.can!.maxV).toBeLessThan(0.75 * idle.rail.maxV);
    // Each unit of charge is taken from the winding three times.
    const point = operatingPoint(tripled, 'nominal');
    expect(point.solution.windings[0]!.rmsA).toBeGreaterThan(3 * point.rail.loadMeanA);
    expect(judge(studyDesign(tripled)).length).toBeGreaterThan(8);
  });
});
