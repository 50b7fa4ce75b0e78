import { outputDemand } from '@/core/design/defaults';
import { outputsOf } from '@/core/design/outputs';
import { applyPatch, type Design, type FurtherOutput } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { cornerGrid } from '@/core/judge/corners';
import { outputFigures } from '@/core/picture/figures/outputs';
import { judge } from '@/core/judge/judge';
import type { RuleId } from '@/core/judge/rules';
import { pictureOf } from '@/core/judge/picture';
import { simulateFixes } from '@/core/judge/fixes';
import { testPoints } from '@/core/bench/test-points';
import { batteryLife } from '@/core/study/battery-life';
import { regulatorModel } from '@/core/parts/regulators';
import { billOf } from '@/core/study/bill';
import { heatView } from '@/core/study/heat-report';
import { neededOf } from '@/core/study/output-point';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign, studyWithHeat } from '@/core/study/study';
import { scopeTraces } from '@/core/study/traces';
import { demoDesigns } from '@/core/design/demo-designs';

const clock = demoDesigns()[0]! as Design;
const asked = (outputV: number, outputA: number) =>
  outputDemand({ outputV, outputA, tolerancePct: 5, rippleVpp: 0.05, kind: 'current' });
const logic: FurtherOutput = {
  name: 'Chime logic',
  rail: 'plus',
  demand: asked(5, 0.1),
  regulator: { kind: 'fixed', size: '78', outputV: 5 },
  regulatorSheet: null,
  sinkKPerW: 20,
};
const withLogic = applyPatch(clock, { outputs: [logic] });
const needs = (design: Design, n: number) =>
  neededOf(
    design,
    outputsOf(design).find((o) => o.place === n)!,
  )!;
const verdict = (design: Design, id: RuleId) => judge(studyDesign(design), [id])[0]!;

describe('another regulator on the same reservoir', () => {
  test('draws its own current from the rail: the valley falls as for a main load larger by as much', () => {
    const both = operatingPoint(withLogic, 'low');
    const alone = operatingPoint(clock, 'low');
    const more = operatingPoint(
      applyPatch(clock, { demand: { outputA: clock.demand.outputA + logic.demand.outputA + 0.006 } }),
      'low',
    );
    expect(both.rail.minV).toBeLessThan(alone.rail.minV - 0.1);
    expect(both.rail.minV).toBeCloseTo(more.rail.minV, 1);
  });

  test('burns what stands between the rail and its output, and the watts of all of it balance', () => {
    const point = operatingPoint(withLogic, 'nominal');
    const [o] = point.outputs;
    expect(o!.outputMeanV).toBeCloseTo(5, 9);
    expect(o!.regulatorW).toBeCloseTo((point.rail.meanV - 5) * 0.1 + point.rail.meanV * 0.006, 1);
    expect(o!.loadW).toBeCloseTo(0.5, 6);
    const { winding, rectifier, reservoir, regulator, outputs, small, load } = point.watts;
    const sum = winding + rectifier + reservoir + regulator + outputs + small + load;
    expect(sum / point.solution.energyBalance.sourceW).toBeCloseTo(1, 2);
    // What the main one does is its own.
    expect(point.outputMeanA).toBeCloseTo(clock.demand.outputA, 6);
    expect(point.regulatorW / ((point.rail.meanV - 24) * 1.2)).toBeCloseTo(1, 1);
  });

  test('beside a load that is fed directly, the load keeps its own watts and amperes', () => {
    const bare = applyPatch(withLogic, { regulator: { kind: 'none' }, demand: { tolerancePct: 60 } });
    const point = operatingPoint(bare, 'nominal');
    expect(point.outputMeanA).toBeCloseTo(1.2, 2);
    expect(point.outputMeanV).toBeCloseTo(point.rail.meanV, 9);
    expect(point.outputs[0]!.outputMeanV).toBeCloseTo(5, 9);
    expect(point.heat).toBeNull();
    expect(point.outputs[0]!.heat!.junctionC).toBeGreaterThan(60);
  });

  test('warms its own sink only', () => {
    const cool = operatingPoint(applyPatch(clock, { outputs: [{ ...logic, sinkKPerW: 5 }] }), 'high');
    const warm = operatingPoint(applyPatch(clock, { outputs: [{ ...logic, sinkKPerW: 20 }] }), 'high');
    expect(cool.outputs[0]!.heat!.junctionC).toBeLessThan(warm.outputs[0]!.heat!.junctionC - 15);
    expect(cool.heat!.junctionC).toBeCloseTo(warm.heat!.junctionC, 6);
  });

  test('has a headroom of its own: the one with less speaks, by its name', () => {
    const near = applyPatch(clock, {
      regulator: { kind: 'fixed', size: '78S', outputV: 12 },
      demand: { outputV: 12 },
      outputs: [
        { ...logic, name: 'Hall lamps', demand: asked(24, 0.1), regulator: { kind: 'fixed', size: '78', outputV: 24 } },
      ],
    });
    const found = verdict(near, 'headroom');
    expect(found.sentence).toMatch(/^Hall lamps: /);
    const low = operatingPoint(near, 'low');
    expect(found.figure.value).toBeCloseTo(low.rail.minV - needs(near, 0), 6);
    expect(low.outputs[0]!.headroomV).toBeCloseTo(found.figure.value, 6);
    // With room enough the main one speaks for itself.
    expect(verdict(withLogic, 'headroom').sentence).not.toMatch(/Chime/);
  });

  test('a junction beyond its limit fails by name, and its own larger sink is among what cures it', () => {
    const hot = applyPatch(clock, { outputs: [{ ...logic, demand: asked(5, 0.25), sinkKPerW: null }] });
    const study = studyDesign(hot);
    const verdicts = judge(study);
    const junction = verdicts.find((v) => v.id === 'junction')!;
    expect(junction.state).toBe('fails');
    expect(junction.sentence).toMatch(/^Chime logic: /);
    const fixes = [...simulateFixes(study, verdicts)].find((f) => f.verdict === 'junction')!.fixes;
    expect(fixes.some((f) => /Heatsink .* Chime logic/.test(f.edit.label))).toBe(true);
  });

  test('a short across it burns the rail at its own short-circuit current, and the rest goes on', () => {
    const study = studyDesign(withLogic);
    const shorted = study.held('shorted', 'out-1')!;
    const shortA = regulatorModel(logic.regulator)!.shortA(shorted.rail.meanV);
    expect(study.held('lowest', 'out-1')).toBeNull();
    expect(shorted.outputs[0]!.regulatorW / (shorted.rail.meanV * shortA)).toBeCloseTo(1, 1);
    expect(shorted.outputMeanV).toBeCloseTo(24, 1);
    const short = verdict(withLogic, 'short-circuit');
    expect(short.sentence).toMatch(/^Chime logic: /);
    expect(short.figure.value).toBeCloseTo(shorted.outputs[0]!.heat!.junctionC, 6);
  });

  test('one that can be turned down is judged at its lowest', () => {
    const turned = applyPatch(clock, {
      outputs: [
        {
          ...logic,
          regulator: { kind: 'adjustable', part: '317', r1Ohm: 240, r2Ohm: 0, potOhm: 4700, adjCapacitor: true },
        },
      ],
    });
    const lowest = studyDesign(turned).held('lowest', 'out-1');
    expect(lowest!.outputs[0]!.outputMeanV).toBeCloseTo(1.25, 2);
    const high = operatingPoint(turned, 'high').outputs[0]!;
    expect(lowest!.outputs[0]!.regulatorW).toBeGreaterThan(high.regulatorW + 0.3);
    expect(verdict(turned, 'junction').sentence).toMatch(/^Chime logic: /);
  });

  test('its input maximum counts as the main one’s does', () => {
    const small = applyPatch(clock, {
      outputs: [{ ...logic, regulator: { kind: 'low-dropout', part: 'ldo-250', outputV: 5, boardCm2: 6 } }],
    });
    const found = verdict(small, 'regulator-input');
    expect(found.state).toBe('fails');
    expect(found.limit).toBe(12);
    expect(found.sentence).toMatch(/^Chime logic/);
  });

  test('stands on the bench, in the bill, in the heat and on the scope', () => {
    const point = testPoints(withLogic, () => 230).find((p) => p.id === 'further-0')!;
    expect(point.low).toBeLessThan(5);
    expect(point.high).toBeGreaterThan(5);
    expect(point.label).toBe('Chime logic, full load');
    expect(
      billOf(studyDesign(withLogic))
        .filter((l) => /Chime logic/.test(l.what))
        .map((l) => l.references),
    ).toEqual(['C4, D6, U2, C5', 'H2', 'J3']);
    const row = heatView(withLogic, 'high', null)!.rows.find((r) => r.id === 'out-1')!;
    expect(row.name).toBe('Regulator, Chime logic');
    expect(row.steps.at(-1)!.tempC).toBeCloseTo(operatingPoint(withLogic, 'high').outputs[0]!.heat!.junctionC, 6);
    const traces = scopeTraces(withLogic, { kind: 'steady' }, 'nominal').traces;
    expect(traces.find((t) => t.label === 'Chime logic')!.values[0]).toBeCloseTo(5, 1);
  });

  test('a file keeps it, without a regulator too; five of them, or a rail of no name, are refused', () => {
    const read = readDesign(JSON.parse(JSON.stringify(withLogic)));
    expect(read.ok && read.design.outputs).toEqual([logic]);
    const none = readDesign({ ...withLogic, outputs: [{ ...logic, regulator: { kind: 'none' } }] });
    expect(none.ok).toBe(true);
    const nowhere = readDesign({ ...withLogic, outputs: [{ ...logic, rail: 'side' }] });
    expect(!nowhere.ok && nowhere.fault.path).toBe('outputs[0].rail');
    const many = readDesign({ ...withLogic, outputs: [logic, logic, logic, logic, logic] });
    expect(!many.ok && many.fault.path).toBe('outputs');
  });
});

describe('further outputs behind a DC source', () => {
  const logger = demoDesigns()[7]! as Design;

  test('shorten a battery’s life, and the first to let go decides', () => {
    const alone = batteryLife(applyPatch(logger, { outputs: [] }))!;
    const both = batteryLife(logger)!;
    expect(both.hours).toBeLessThan(0.8 * alone.hours);
    expect(both.letsGoV).toBeNull();
    const ten = applyPatch(logger, {
      outputs: [
        { ...logger.outputs[0]!, demand: asked(10, 0.05), regulator: { kind: 'fixed', size: '78L', outputV: 10 } },
      ],
    });
    const early = batteryLife(ten)!;
    // 10 V and its dropout, the diode and the battery's own resistance on top.
    expect(early.letsGoV!).toBeGreaterThan(needs(ten, 0) + 0.2);
    expect(early.letsGoV!).toBeLessThan(needs(ten, 0) + 0.5);
    expect(early.used).toBeLessThan(1);
  });

  test('count in an adapter’s ripple and current', () => {
    const adapter = (outputs: Design['outputs']) =>
      applyPatch(logger, {
        source: {
          kind: 'adapter',
          ratedV: 12,
          ratedA: 0.5,
          idlePct: 30,
          spreadPct: 5,
          rippleVpp: 1,
          limitA: null,
          reverseDiode: true,
        },
        outputs,
      });
    const more = operatingPoint(adapter([{ ...logger.outputs[0]!, demand: asked(8, 0.09) }]), 'nominal');
    const less = operatingPoint(adapter([]), 'nominal');
    expect(more.network.mains.ripple!).toBeCloseTo((less.network.mains.ripple! * 0.27) / 0.18, 6);
    expect(more.solution.windings[0]!.meanA - less.solution.windings[0]!.meanA).toBeCloseTo(0.094, 3);
  });
});

describe('seen on another sink, in another corner', () => {
  const turned = applyPatch(clock, {
    outputs: [
      {
        ...logic,
        regulator: { kind: 'adjustable', part: '317', r1Ohm: 240, r2Ohm: 0, potOhm: 4700, adjCapacitor: true },
      },
    ],
    heat: { oneSink: true },
  });

  test('a short warms a better sink less', () => {
    const study = studyDesign(turned);
    const cool = studyWithHeat(study, { ...turned.heat, sinkKPerW: 0.5 });
    const hot = (of: typeof study) => of.held('shorted', 'out-1')!.outputs[0]!.heat!.junctionC;
    expect(hot(cool)).toBeLessThan(hot(study) - 3);
  });

  test('corners differ for it as they do for the main one', () => {
    const row = cornerGrid(applyPatch(turned, { heat: { oneSink: false } })).rows.find((r) => r.id === 'junction')!;
    const values = row.values.flatMap((v) => v?.value ?? []);
    expect(Math.max(...values) - Math.min(...values)).toBeGreaterThan(10);
  });

  test('every number of it has a finite value and a working', () => {
    const { picture } = pictureOf(turned);
    const figures = outputFigures(picture, 0);
    expect(figures.map((f) => f.id)).toEqual([
      'further-headroom',
      'further-watts',
      'further-junction',
      'further-ripple',
    ]);
    for (const f of figures) {
      expect(Number.isFinite(f.value)).toBe(true);
      expect(f.inputs.length).toBeGreaterThan(1);
    }
    const of = (id: string, label: string) =>
      figures.find((f) => f.id === id)!.inputs.find((i) => i.label === label)!.value;
    expect(of('further-headroom', 'valley') - of('further-headroom', 'needed')).toBeCloseTo(figures[0]!.value, 9);
  });
});
