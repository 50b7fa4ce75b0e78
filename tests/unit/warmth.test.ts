import { CONDITIONS } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { applyPatch, type Design } from '@/core/design/design';
import { outputDemand } from '@/core/design/defaults';
import { judge } from '@/core/judge/judge';
import { lawAt } from '@/core/parts/diode';
import { regulatorModel } from '@/core/parts/regulators';
import { copperRatio } from '@/core/parts/transformer';
import { copperHeat } from '@/core/study/copper-heat';
import { insulationAdvice, sinkRise, tabsOnSink } from '@/core/study/heat';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign } from '@/core/study/study';
import { diodeHeat, stationHeat } from '@/core/study/warmth';
import { demoDesigns } from '@/core/design/demo-designs';
import { junctionOf } from './circuits';

const [clock, dome, , drum] = demoDesigns() as Design[];
const together = (design: Design) => applyPatch(design, { heat: { together: true } });

/** Forward volts of a law at a current, V. */
function dropOf(id: string, amps: number, junctionC: number): number {
  const law = lawAt(junctionOf(id), junctionC);
  const vt = (1.380649e-23 * (law.temperatureC + 273.15)) / 1.602176634e-19;
  return law.emissionCoefficient * vt * Math.log1p(amps / law.saturationCurrentA) + amps * law.seriesResistanceOhm;
}

describe('a diode at another temperature', () => {
  test('drops one to two and a half millivolts less for every kelvin, silicon and Schottky alike', () => {
    for (const [id, amps] of [
      ['si-1a', 0.5],
      ['si-3a', 2],
      ['si-25a', 10],
      ['sk-1a', 0.5],
      ['sk-10a-200', 5],
    ] as const) {
      const perK = (dropOf(id, amps, 25) - dropOf(id, amps, 75)) / 50;
      expect(perK).toBeGreaterThan(0.0007);
      expect(perK).toBeLessThan(0.0025);
    }
  });

  test('is its data at the data’s temperature', () => {
    const si = junctionOf('si-3a');
    expect(lawAt(si)).toBe(si.law);
    expect(lawAt(si, 25)).toBe(si.law);
    expect(lawAt(si, 75).seriesResistanceOhm).toBe(si.law.seriesResistanceOhm);
  });
});

describe('copper and diodes solved together with the circuit', () => {
  test('come to rest where their own heat holds them', () => {
    for (const design of [clock!, dome!].map(together)) {
      const point = operatingPoint(design, 'high');
      expect(point.settled).toBe(true);
      const { copperC, diodeC } = point.warmth;
      expect(Math.abs(copperHeat(design, point, copperC).copperC - copperC)).toBeLessThan(0.6);
      expect(Math.abs(diodeHeat(design, point).junctionC - diodeC)).toBeLessThan(0.6);
      const { winding } = point.network.sections[0]!;
      const cold = networkOf(design, CONDITIONS.idle).sections[0]!.winding.resistanceOhm;
      expect(winding.resistanceOhm / cold).toBeCloseTo(copperRatio(copperC), 2);
      expect(point.network.sections[0]!.rectifier.diode).toMatchObject({ temperatureC: diodeC });
    }
  });

  test('a warmer room lowers the valley by its copper and raises it by its diodes: the copper wins in a soft transformer', () => {
    const soft = together(applyPatch(clock!, { transformer: { regulationPct: 20, hotC: 75 } }));
    const valley = (ambientC: number) => operatingPoint(applyPatch(soft, { heat: { ambientC } }), 'low').rail.minV;
    expect(valley(60)).toBeLessThan(valley(10) - 0.2);
  });

  test('leave a cold start and the idle corner as they were', () => {
    expect(operatingPoint(together(clock!), 'idle').rail.maxV).toBe(operatingPoint(clock!, 'idle').rail.maxV);
    expect(studyDesign(together(clock!)).surge.peakA).toBe(studyDesign(clock!).surge.peakA);
  });

  test('at the temperatures they were chosen at nothing changes', () => {
    const found = operatingPoint(together(clock!), 'high');
    const chosen = operatingPoint(clock!, 'high', found.warmth);
    expect(chosen.rail.minV).toBeCloseTo(found.rail.minV, 4);
  });

  test('a transformer far too small runs away: a finding with its corner, not an error', () => {
    const small = together(applyPatch(clock!, { transformer: { ratedV: 36, ratedVA: 30, regulationPct: 10 } }));
    const point = operatingPoint(small, 'high');
    expect(point.settled).toBe(false);
    expect(Number.isFinite(point.rail.meanV)).toBe(true);
    const verdict = judge(studyDesign(small), ['winding-heat'])[0]!;
    expect(verdict.sentence).toMatch(/does not come to rest/);
    expect(verdict.figure.condition).toMatch(/line, lasting load$/);
  });
});

describe('regulators on one sink', () => {
  const apart = applyPatch(drum!, { demand: { negativeA: 0.18 } });
  const shared = applyPatch(apart, { heat: { oneSink: true } });

  test('warm each other: the sink carries the watts of both rails', () => {
    const point = operatingPoint(shared, 'high');
    const [plus, minus] = point.rails;
    const watts = plus!.regulatorW + minus!.regulatorW;
    const { airC, sinkC } = plus!.heat!;
    expect(sinkC - airC).toBeCloseTo(sinkRise(drum!.heat.sinkKPerW!, watts, false).riseK, 6);
    expect(minus!.heat!.sinkC).toBeCloseTo(sinkC, 6);
    expect(plus!.heat!.junctionC).toBeGreaterThan(operatingPoint(apart, 'high').heat!.junctionC + 5);
  });

  test('a further output on it adds its watts, and stands on the same metal', () => {
    const outputs: Design['outputs'] = [
      {
        name: 'Logic',
        rail: 'plus',
        demand: outputDemand({ outputV: 5, outputA: 0.1, tolerancePct: 5, rippleVpp: 0.05, kind: 'current' }),
        regulator: { kind: 'fixed', size: '78', outputV: 5 },
        regulatorSheet: null,
        sinkKPerW: 20,
      },
    ];
    const both = applyPatch(clock!, { outputs, heat: { oneSink: true } });
    const point = operatingPoint(both, 'high');
    const [o] = point.outputs;
    expect(o!.heat!.sinkC).toBeCloseTo(point.heat!.sinkC, 6);
    const { jcKPerW } = regulatorModel(outputs[0]!.regulator)!.pass;
    expect(o!.heat!.junctionC).toBeCloseTo(point.heat!.sinkC + o!.regulatorW * (jcKPerW + 0.8), 6);
    expect(point.heat!.sinkC - point.heat!.airC).toBeCloseTo(
      sinkRise(clock!.heat.sinkKPerW!, point.regulatorW + o!.regulatorW, false).riseK,
      6,
    );
  });

  test('their tabs lie at different potentials, which is said with what to do', () => {
    expect(tabsOnSink(shared).map((t) => [t.name, t.grounded])).toEqual([
      ['Regulator', true],
      ['Negative regulator', false],
    ]);
    expect(insulationAdvice(apart)).toBeNull();
    expect(insulationAdvice(shared)).toMatch(/Negative regulator: its metal is at its input.*Insulated by the washers/);
    const bare = applyPatch(shared, { heat: { interface: 'paste' } });
    expect(insulationAdvice(bare)).toMatch(/they short each other/);
  });

  test('insulating costs kelvins', () => {
    const junction = (contact: Design['heat']['interface']) =>
      operatingPoint(applyPatch(shared, { heat: { interface: contact } }), 'high').heat!.junctionC;
    expect(junction('mica')).toBeGreaterThan(junction('paste') + 0.5);
  });
});

describe('what the embers are ringed by', () => {
  test('every part that is there, as warm as the heat says', () => {
    const point = operatingPoint(clock!, 'high');
    const heat = stationHeat(clock!, point);
    expect(heat.regulator!.tempC).toBe(point.heat!.junctionC);
    expect(heat.winding!.tempC).toBeCloseTo(copperHeat(clock!, point).copperC, 6);
    expect(heat.rectifier!.tempC).toBeCloseTo(diodeHeat(clock!, point).junctionC, 6);
    expect([heat.winding!.limitC, heat.rectifier!.limitC, heat.regulator!.limitC]).toEqual([105, 150, 125]);
  });

  test('nothing that is not: no regulator, no winding behind a battery, no diode where none stands', () => {
    expect(stationHeat(dome!, operatingPoint(dome!, 'high')).regulator).toBeUndefined();
    const logger = (demoDesigns() as Design[])[7]!;
    const fed = stationHeat(logger, operatingPoint(logger, 'high'));
    expect(Object.keys(fed)).toEqual(['rectifier', 'regulator']);
    const bare = applyPatch(logger, { source: { ...logger.source, reverseDiode: false } as Design['source'] });
    expect(Object.keys(stationHeat(bare, operatingPoint(bare, 'high')))).toEqual(['regulator']);
  });
});
