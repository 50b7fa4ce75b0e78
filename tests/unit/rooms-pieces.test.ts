import { MAINS_PRESETS } from '@/core/design/defaults';
import { applyPatch } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { pictureOf } from '@/core/judge/picture';
import { consumersFor } from '@/core/load/offers';
import { consumerFault, railSums } from '@/core/load/sums';
import { heatFigures } from '@/core/picture/heat-figures';
import { designFromSource } from '@/core/size/from-source';
import { heatView } from '@/core/study/heat-report';
import { apart } from '@/core/picture/terrace-geometry';
import { clock, drum } from '../support/demos';

const mains = MAINS_PRESETS[0]!.mains;

describe('a heat figure', () => {
  test('is the room and every rise on the way added up, for every part that gets warm', () => {
    for (const minutes of [null, 10]) {
      const view = heatView(drum, 'high', minutes)!;
      const figures = heatFigures(view);
      expect(figures).toHaveLength(view.rows.length);
      for (const f of figures) {
        const rises = f.inputs.filter((i) => i.unit === 'K').reduce((sum, i) => sum + i.value, 0);
        const room = f.inputs.find((i) => i.label === 'room')!.value;
        expect(f.value).toBeCloseTo(room + rises, 9);
      }
      expect(figures[0]!.assumes[0]).toMatch(minutes === null ? /in the end/i : /After 10 minutes/);
    }
  });
});

describe('what an empty load table offers', () => {
  test('three things of a size that means something: the largest within half of what it is designed for', () => {
    const names = (outputA: number) => consumersFor(outputA).map((c) => c.name);
    expect(names(1.2)).toEqual(['Slave movement', 'Slit lamp', 'Chart drive']);
    expect(names(0.045)).toEqual(['Pilot lamp', 'Thermometer by the door', 'Tide-gauge pen']);
    expect(names(10)).toEqual(['Chart drive', 'Shutter motor', 'Dew heater']);
    for (const outputA of [0.001, 0.2, 1, 40])
      for (const c of consumersFor(outputA)) expect(consumerFault(c)).toBeNull();
  });
});

describe('a supply around a source in hand', () => {
  test('an AC adapter is its transformer, sealed and kept', () => {
    const d = designFromSource('ac-adapter', 12, 1, mains);
    expect(d.transformer).toMatchObject({ ratedV: 12, ratedVA: 12, sealed: true });
    expect(d.fixed).toEqual(['transformer']);
    // Charging pulses count 1.8 times: 1 A of winding bears 0.56 A of direct current.
    expect(d.demand.outputA).toBeCloseTo(1 / 1.8, 2);
    expect(d.name).toBe('12 V 1 A AC adapter');
  });

  test('a battery gives a tenth of its ampere-hours, at what it has half used less what its resistance takes', () => {
    const d = designFromSource('battery', 12, 7, mains);
    expect(d.demand.outputA).toBe(0.7);
    expect(d.source).toMatchObject({ kind: 'battery', capacityAh: 7 });
    expect(d.demand.outputV).toBeGreaterThan(11.5);
    expect(d.demand.outputV).toBeLessThan(12.3);
    expect(d.regulator.kind).toBe('none');
  });

  test('every one of them is a design that can be stored and solved', () => {
    for (const [feed, volts, amount] of [
      ['ac-adapter', 9, 0.5],
      ['dc-adapter', 12, 1],
      ['dc-regulated', 5, 2],
      ['battery', 6, 1.2],
      ['battery', 48, 100],
    ] as const) {
      const d = designFromSource(feed, volts, amount, mains);
      expect([feed, readDesign(JSON.parse(JSON.stringify(d))).ok]).toEqual([feed, true]);
      expect(pictureOf(d).picture.points.nominal.outputMeanV).toBeGreaterThan(0.5 * volts);
      expect(d.reservoir.ratedV).toBeGreaterThan(volts);
    }
  });
});

test('labels of a scope stand apart in their order, and all of them above the edge', () => {
  expect(apart([10, 12, 100], 20)).toEqual([10, 30, 100]);
  expect(apart([12, 10, 11], 20)).toEqual([50, 10, 30]);
  expect(apart([90, 95], 20, 100)).toEqual([80, 100]);
  expect(apart([], 20, 100)).toEqual([]);
});

test('the demo designs are designed for what hangs on them, and the first of them is read to its last stage', () => {
  for (const design of [clock, drum]) {
    const { peakA } = railSums(design.load, 'main');
    expect(peakA).toBeCloseTo(design.demand.outputA, 9);
  }
  expect(applyPatch(clock, {}).bench.readings).toHaveLength(8);
  expect(clock.mainsSide.primaryFuseA).toBe(0.5);
});
