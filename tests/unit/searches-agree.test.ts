import type { Condition } from '@/core/circuit/condition';
import { applyPatch, type Design } from '@/core/design/design';
import { outputModel, outputsOf } from '@/core/design/outputs';
import { demoDesigns } from '@/core/design/demo-designs';
import { exceeds } from '@/core/judge/early';
import { both, deciding, distress, findingsOf, judge, outcomeOf, toldOf, type Outcome } from '@/core/judge/judge';
import { ruleOf, rulesBySink, type RuleId } from '@/core/judge/rules';
import { operatingPoint } from '@/core/study/operating-point';
import { circuitStays, studyDesign, studyWithHeat, type Study } from '@/core/study/study';
import { clock, drum, first, pen, physics } from '../support/demos';

/** What a search takes for shorter than a whole study has to come to the same. */

const starved = (design: Design, share: number) =>
  applyPatch(design, {
    transformer: { ratedV: share * design.transformer.ratedV },
    reservoir: { capacitanceF: share * design.reservoir.capacitanceF },
  });

const inWords = ({ fails, worst }: Outcome) => ({ fails, worst: worst && toldOf(worst) });

describe('another sink under a study', () => {
  test.each([
    ['holds everywhere', clock],
    ['lets go at low line', starved(clock, 0.88)],
    ['lets go everywhere', pen],
    ['two rails', drum],
    ['a bench supply in dropout', starved(physics, 0.88)],
  ])('%s: every circumstance as a study of its own finds it', (_, design) => {
    const study = studyDesign(design);
    const heat = { ...design.heat, sinkKPerW: 0.25 * (design.heat.sinkKPerW ?? 20) };
    const [quick, anew] = [studyWithHeat(study, heat), studyDesign({ ...design, heat })];
    for (const condition of study.conditions) {
      const [a, b] = [quick.at(condition), anew.at(condition)];
      expect(a.outputMinV).toBeCloseTo(b.outputMinV, 4);
      expect(a.rails.map((r) => r.heat?.junctionC ?? 0)).toEqual(
        b.rails.map((r) => expect.closeTo(r.heat?.junctionC ?? 0, 1)),
      );
    }
    expect(quick.missed.minV).toBeCloseTo(anew.missed.minV, 3);
    expect(quick.lost.maxV).toBeCloseTo(anew.lost.maxV, 3);
    expect(quick.surge).toBe(study.surge);
  });

  test('a part that just holds at low line is judged at its own warm junction, wherever the search for that begins', () => {
    for (const design of [physics, first]) {
      const { low } = studyDesign(design);
      // Its rail stays above its dropout: another junction moves the dropout, and nothing in the circuit.
      const warm = operatingPoint(design, 'low', { junctionC: low.junctionC! });
      const cold = operatingPoint(design, 'low', { junctionC: low.junctionC! - 60 });
      expect(low.junctionC!).toBeCloseTo(warm.heat!.junctionC, 0);
      expect(low.rail.minV).toBeCloseTo(warm.rail.minV, 3);
      expect(low.headroomV!).toBeCloseTo(warm.headroomV!, 3);
      expect(cold.rail.minV).toBeCloseTo(warm.rail.minV, 3);
      const dropout = (p: typeof low) =>
        p.network.sections[0]!.rails[0]!.load.flatMap((l) => (l.kind === 'regulator' ? [l.dropoutV] : []))[0]!;
      expect(dropout(low)).toBeCloseTo(dropout(warm), 3);
      expect(dropout(cold)).toBeCloseTo(dropout(warm), 2);
      // Four millivolts a kelvin less than cold.
      const kelvin = low.junctionC! - 25;
      expect(outputModel(outputsOf(design)[0]!)!.dropoutV - dropout(low)).toBeCloseTo(0.004 * kelvin, 2);
    }
  });

  test('a cooler junction of a part that lets go drops more: the output moves with the sink', () => {
    const study = studyDesign(pen);
    const cold = studyWithHeat(study, { ...pen.heat, sinkKPerW: 0.5, fan: 'fixed' });
    expect(cold.low.junctionC!).toBeLessThan(study.low.junctionC! - 5);
    // Two millivolts a kelvin.
    const kelvin = study.low.junctionC! - cold.low.junctionC!;
    expect((study.low.outputMinV - cold.low.outputMinV) / kelvin).toBeGreaterThan(0.0005);
    expect((study.low.outputMinV - cold.low.outputMinV) / kelvin).toBeLessThan(0.003);
  });

  test('where temperatures are found with the circuit, less air moves the winding’s volts too', () => {
    const together = applyPatch(clock, { heat: { ...clock.heat, together: true } });
    const heat = { ...together.heat, ambientC: together.heat.ambientC + 15 };
    const quick = studyWithHeat(studyDesign(together), heat);
    const anew = studyDesign({ ...together, heat });
    expect(quick.low.warmth.copperC).toBeCloseTo(anew.low.warmth.copperC, 0);
    expect(quick.low.warmth.copperC).toBeGreaterThan(studyDesign(together).low.warmth.copperC + 5);
    expect(quick.low.rail.minV).toBeCloseTo(anew.low.rail.minV, 2);
  });
});

describe('a design given up before all of it is solved', () => {
  const designs = demoDesigns().flatMap((d) => [d, starved(d, 0.9), starved(d, 0.75)]);

  test('is given up only for what the whole judgement says, and always when nothing may fail', () => {
    let bad = 0;
    for (const design of designs) {
      const whole = distress(judge(studyDesign(design)));
      for (const most of [0, 0.5 * whole, whole, 1.5 * whole + 0.1]) {
        expect(exceeds(studyDesign(design), most)).toBe(whole > most + 1e-3);
      }
      expect(exceeds(studyDesign(design), Infinity)).toBe(false);
      if (whole > 0) bad++;
    }
    expect(bad).toBeGreaterThan(5);
    expect(bad).toBeLessThan(designs.length);
  });

  test('takes one circumstance where that says enough', () => {
    const study = studyDesign(starved(clock, 0.6));
    const asked = new Set<string>();
    const at = (condition: Condition) => {
      asked.add(condition.id);
      return study.at(condition);
    };
    expect(exceeds(Object.create(study, { at: { value: at } }) as Study, 0)).toBe(true);
    expect([...asked]).toEqual(['low']);
  });
});

test.each(demoDesigns().map((d) => [d.name, d] as const))(
  '%s: what a search counts is what the whole judgement says, its words too',
  (_, design) => {
    for (const asked of [design, starved(design, 0.8), starved(design, 1.5)]) {
      const study = studyDesign(asked);
      const verdicts = judge(study);
      const { fails, worst } = outcomeOf(study);
      expect(fails).toBe(verdicts.filter((v) => v.state === 'fails').length);
      const counting = verdicts.filter((v) => !v.caution);
      expect(worst!.found.left).toBe(Math.min(...counting.map((v) => v.left)));
      expect(counting).toContainEqual(toldOf(worst!));
    }
  },
);

test('asked for some rules alone a search counts those alone', () => {
  const study = studyDesign(starved(clock, 0.8));
  const failing = judge(study).filter((v) => v.state === 'fails');
  expect(failing.length).toBeGreaterThan(1);
  const only = [failing[0]!.id];
  expect(inWords(outcomeOf(study, only))).toEqual({ fails: 1, worst: failing[0] });
  expect(outcomeOf(study, [])).toEqual({ fails: 0, worst: null });
});

describe('rules another sink does not move', () => {
  const { moved, still } = rulesBySink();
  const decided = (study: Study, id: RuleId) => {
    const found = deciding(findingsOf(study, ruleOf(id)));
    return found && { ...found.finding, tell: null, at: found.condition?.id ?? null, output: found.look.output.id };
  };
  const sinks = (design: Design) =>
    [0.7, 4, 18].map((sinkKPerW) => ({ ...design.heat, sinkKPerW, fan: 'none' as const }));
  const shared = (design: Design) => applyPatch(design, { heat: { sharedWithRectifier: true } });

  test.each([
    ...demoDesigns().flatMap((d) => [
      [d.name, d] as const,
      [`${d.name}, all on one sink`, applyPatch(shared(d), { heat: { oneSink: true } })] as const,
      [`${d.name}, nearly letting go`, starved(d, 1.15)] as const,
    ]),
  ])('%s: find the same behind every sink, and both kinds together are the whole judgement', (_, design) => {
    const study = studyDesign(design);
    const asked = circuitStays(study) ? sinks(design) : [];
    for (const heat of asked) {
      const cooled = studyWithHeat(study, heat);
      for (const id of still) expect([id, decided(cooled, id)]).toEqual([id, decided(study, id)]);
      expect(inWords(both(outcomeOf(study, still), outcomeOf(cooled, moved)))).toEqual(inWords(outcomeOf(cooled)));
    }
  });

  test('each that is said to follow the sink does, in some design', () => {
    const ahead = applyPatch(clock, { preRegulator: { kind: 'tracking', aboveV: 4, transistor: 'tip122' } });
    const follows = new Set<RuleId>();
    for (const design of [clock, shared(clock), physics, drum, ahead]) {
      const study = studyDesign(design);
      for (const heat of sinks(design)) {
        const cooled = studyWithHeat(study, heat);
        for (const id of moved)
          if (JSON.stringify(decided(cooled, id)) !== JSON.stringify(decided(study, id))) follows.add(id);
      }
    }
    expect([...follows].sort()).toEqual([...moved].sort());
  });

  test('where a regulator lets go, or temperatures are found with the circuit, a sink moves the circuit', () => {
    expect(circuitStays(studyDesign(clock))).toBe(true);
    expect(circuitStays(studyDesign(pen))).toBe(false);
    expect(circuitStays(studyDesign(applyPatch(clock, { heat: { together: true } })))).toBe(false);
  });
});
