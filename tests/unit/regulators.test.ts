import fc from 'fast-check';
import { loadLaw, regulatorOutput } from '@/core/circuit/load-law';
import type { Load } from '@/core/circuit/network';
import { applyPatch, type Design, type Regulator } from '@/core/design/design';
import { regulatorOfKind, steppedOutput, withOutput } from '@/core/design/regulator-edit';
import { readDesign } from '@/core/design/schema';
import { judge } from '@/core/judge/judge';
import { REGULATOR_KINDS, regulatorModel } from '@/core/parts/regulators';
import { adjustableOutput, settingPair } from '@/core/parts/regulators/adjustable';
import { errorTransistorOutput } from '@/core/parts/regulators/error-transistor';
import { boardKPerW } from '@/core/parts/regulators/low-dropout';
import { dropoutAt } from '@/core/parts/regulators/model';
import { passTransistor, safeCurrent } from '@/core/parts/transistor';
import { SERIES, type SeriesName } from '@/core/quantity/preferred';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, , pen] = demoDesigns() as [Design, Design, Design];
const adjustable: Regulator = {
  kind: 'adjustable',
  part: '317',
  r1Ohm: 240,
  r2Ohm: 2000,
  potOhm: null,
  adjCapacitor: true,
};
const bench = (over: Partial<Extract<Regulator, { kind: 'bench' }>> = {}): Regulator => ({
  kind: 'bench',
  maxV: 20,
  limitA: 1,
  referenceV: 2.5,
  referencePct: 1,
  gain: null,
  opampRail: 'raw',
  shuntOhm: 0.47,
  transistor: 'tip3055',
  passes: 1,
  emitterOhm: 0.1,
  opampMaxV: 44,
  shuntPct: 5,
  resistorPct: 1,
  ...over,
});

describe('setting an output', () => {
  test('1.25·(1 + R2/R1) and the current out of ADJ; at R2 = 0 the reference itself, never zero', () => {
    expect(adjustableOutput(240, 2160)).toBeCloseTo(12.5 + 0.108, 9);
    expect(adjustableOutput(240, 0)).toBe(1.25);
  });

  test('a finer series leaves less error, and what is picked gives what is printed', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.5, max: 37, noNaN: true }), (volts) => {
        const off = (Object.keys(SERIES) as SeriesName[]).map((name) => {
          const pair = settingPair(volts, name);
          expect(adjustableOutput(pair.r1Ohm, pair.r2Ohm)).toBeCloseTo(pair.outputV, 9);
          expect(pair.r1Ohm).toBeGreaterThanOrEqual(119);
          expect(pair.r1Ohm).toBeLessThanOrEqual(241);
          return Math.abs(pair.errorPct);
        });
        expect(off[2]!).toBeLessThan(1.5);
        // E24 holds all of E12; E96 holds neither.
        expect(off[1]!).toBeLessThanOrEqual(off[0]! + 1e-6);
      }),
      { numRuns: 200 },
    );
  });

  test('zener and error transistor: both ends of the pot', () => {
    const r = {
      kind: 'error-transistor' as const,
      zenerV: 5.6,
      upperOhm: 1000,
      potOhm: 1000,
      lowerOhm: 1000,
      transistor: '2n3055',
      driveOhm: 1000,
      limitOhm: 0.5,
      passes: 1,
      emitterOhm: 0,
      gain: null,
    };
    expect(errorTransistorOutput(r, 0)).toBeCloseTo(6.25 * 1.5, 9);
    expect(errorTransistorOutput(r, 1)).toBeCloseTo(6.25 * 3, 9);
    expect(regulatorModel(r).limitA).toBeCloseTo(1.3, 9);
  });

  test('a 5 % shunt is a 5 % current error whatever the amplifier does', () => {
    const model = regulatorModel(bench({ resistorPct: 0 }))!;
    const error = model.settings.find((s) => s.label.startsWith('Current error'))!;
    expect(error.value).toBeGreaterThanOrEqual(5);
    expect(error.value).toBeLessThan(6);
  });
});

describe('every family', () => {
  test.each(REGULATOR_KINDS)(
    '%s: changing to it keeps the output, makes a design that can be read, and is judged',
    (kind) => {
      const design = applyPatch(pen, { regulator: regulatorOfKind(pen, kind) });
      const model = regulatorModel(design.regulator)!;
      expect(Math.abs(model.outputV / 12 - 1)).toBeLessThan(0.08);
      expect(model.ratedA).toBeGreaterThanOrEqual(0.55);
      expect(readDesign(JSON.parse(JSON.stringify(design)))).toMatchObject({ ok: true });
      const ids = judge(studyDesign(design)).map((v) => v.id);
      expect(ids).toEqual(
        expect.arrayContaining(['headroom', 'regulator-input', 'regulator-current', 'junction', 'short-circuit']),
      );
      expect(ids.includes('safe-area')).toBe(model.pass.safeA !== null);
    },
  );

  test.each(REGULATOR_KINDS)(
    '%s: dropout grows with current; a step of the output moves it and stays readable',
    (kind) => {
      const regulator = regulatorOfKind(pen, kind) as Exclude<Regulator, { kind: 'none' }>;
      const model = regulatorModel(regulator);
      expect(dropoutAt(model, 0.8)).toBeGreaterThan(dropoutAt(model, 0));
      const up = steppedOutput(regulator, 1) as typeof regulator;
      expect(regulatorModel(up).outputV).toBeGreaterThan(model.outputV);
      expect(Math.abs(regulatorModel(withOutput(regulator, 9) as typeof regulator).outputV - 9)).toBeLessThan(0.8);
    },
  );

  test('rejection falls above the corner of the loop', () => {
    for (const kind of REGULATOR_KINDS) {
      const { rejectionDb } = regulatorModel(regulatorOfKind(pen, kind))!;
      expect(rejectionDb(100)).toBeGreaterThan(rejectionDb(100_000));
      expect(rejectionDb(1e7)).toBeGreaterThanOrEqual(0);
    }
  });
});

test('a divider that draws what the part needs holds; one of thousands of ohms lets the output climb', () => {
  const least = (r1Ohm: number, r2Ohm: number) =>
    judge(studyDesign(applyPatch(pen, { regulator: { ...adjustable, r1Ohm, r2Ohm } as Regulator })), [
      'minimum-load',
    ])[0]!;
  // 5.2 mA: enough for a typical part, which needs 3.5, not for the worst, which needs 10.
  expect(least(240, 2000).state).toBe('tight');
  expect(least(120, 1000).state).toBe('holds');
  expect(least(2400, 20_000).state).toBe('fails');
  expect(least(2400, 20_000).sentence).toMatch(/output climbs/);
  // Of one whose output is made in, its own current leaves by the ground lead: nothing has to be drawn.
  const made = applyPatch(pen, { regulator: { kind: 'low-dropout', part: 'ldo-800', outputV: 12, boardCm2: 6 } });
  expect(judge(studyDesign(made), ['minimum-load'])).toEqual([]);
  expect(judge(studyDesign(clock), ['minimum-load'])).toEqual([]);
});

describe('dropout is solved', () => {
  const load = (dropoutOhm: number): Load => ({
    kind: 'regulator',
    outputV: 10,
    dropoutV: 1,
    dropoutOhm,
    currentA: 2,
    quiescentA: 0,
  });

  test('below regulation output, current and dropout agree with each other', () => {
    for (const v of [3, 6, 9, 11.9]) {
      const i = loadLaw([load(0.5)]).current(v, Infinity);
      const out = regulatorOutput(load(0.5) as Extract<Load, { kind: 'regulator' }>, v);
      expect(i).toBeCloseTo((2 * out) / 10, 9);
      expect(v - out).toBeCloseTo(1 + 0.5 * i, 9);
    }
    expect(loadLaw([load(0.5)]).current(12.5, Infinity)).toBeCloseTo(2, 12);
  });

  test('a warm low-dropout part needs more, a warm bipolar one less', () => {
    const ldo = regulatorModel({ kind: 'low-dropout', part: 'ldo-1a5', outputV: 12, boardCm2: 6 });
    expect(dropoutAt(ldo, 1, 100)).toBeGreaterThan(dropoutAt(ldo, 1));
    const plain = regulatorModel(adjustable)!;
    expect(dropoutAt(plain, 1, 100)).toBeLessThan(dropoutAt(plain, 1));
  });

  test('where it lets go the junction and the dropout fit each other', () => {
    const weak = applyPatch(pen, { transformer: { ratedV: 11 }, regulator: adjustable, heat: { sinkKPerW: 15 } });
    const point = operatingPoint(weak, 'low');
    expect(point.settled).toBe(true);
    expect(point.outputMinV).toBeLessThan(regulatorModel(adjustable)!.outputV);
    expect(Math.abs(point.junctionC! - point.heat!.junctionC)).toBeLessThan(1);
  });
});

describe('pass transistors', () => {
  test('beyond second breakdown they bear less than their watts', () => {
    const t = passTransistor('2n3055');
    expect(safeCurrent(t, 10)).toBeCloseTo(11.5, 9);
    expect(safeCurrent(t, 55) * 55).toBeLessThan(0.7 * t.powerW);
    expect(safeCurrent(t, 61)).toBe(0);
  });

  test('twice the transistors halve the share of the safe area each uses', () => {
    const used = (passes: number) =>
      judge(studyDesign(applyPatch(clock, { regulator: bench({ passes }) })), ['safe-area'])[0]!.figure.value;
    expect(used(2)).toBeLessThan(0.55 * used(1));
  });

  test('a bench supply is hottest at the bottom of its knob, and op-amps on the raw rail judge its idle volts', () => {
    const study = studyDesign(applyPatch(clock, { regulator: bench({ opampMaxV: 36 }) }));
    expect(study.held('lowest')!.regulatorW).toBeGreaterThan(1.8 * study.high.regulatorW);
    const [junction] = judge(study, ['junction']);
    expect(junction!.figure.condition).toMatch(/lowest output/);
    const [input] = judge(study, ['regulator-input']);
    expect(input!.limitSource).toMatch(/op-amps/);
    expect(input!.state).toBe('fails');
  });
});

test('board copper: more of it cools better, between what bare pads and a large field do', () => {
  const at = [0.1, 1, 6, 9, 12, 25, 100].map(boardKPerW);
  expect(at).toEqual([...at].sort((a, b) => b - a));
  expect(boardKPerW(6)).toBe(58);
  expect(at[0]).toBe(140);
  expect(at[6]).toBe(35);
});

describe('what cannot be', () => {
  const refused = (regulator: unknown) => {
    const read = readDesign({ ...JSON.parse(JSON.stringify(clock)), regulator });
    return read.ok ? '' : `${read.fault.path}: ${read.fault.sentence}`;
  };
  test('R1 of nothing, a reference above the output, an unknown transistor, half a transistor', () => {
    expect(refused({ ...adjustable, r1Ohm: 0 })).toMatch(/R1.*at least/);
    expect(refused(bench({ referenceV: 25 }))).toMatch(/below the top of the volts knob/);
    expect(refused(bench({ transistor: 'bc547' }))).toMatch(/one of/);
    expect(refused(bench({ passes: 1.5 }))).toMatch(/whole number/);
    expect(refused({ kind: 'magic' })).toMatch(/one of none, fixed/);
  });

  test('a sink of nothing and a fan of minus two are refused with their field', () => {
    const heat = (over: object) => {
      const read = readDesign({ ...JSON.parse(JSON.stringify(clock)), heat: { ...clock.heat, ...over } });
      return read.ok ? '' : read.fault.sentence;
    };
    expect(heat({ sinkKPerW: 0 })).toMatch(/at least/);
    expect(heat({ fan: -2 })).toMatch(/./);
    expect(heat({ fanOnC: -2 })).toMatch(/negative|at least/);
  });
});
