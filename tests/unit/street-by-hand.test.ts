import { CONDITIONS } from '@/core/circuit/condition';
import { currentOf, loadLaw } from '@/core/circuit/load-law';
import { networkOf } from '@/core/circuit/network-of';
import { applyPatch } from '@/core/design/design';
import { netlistOf } from '@/core/netlist/netlist-of';
import { apart } from '@/core/picture/terrace-geometry';
import { DIODE_CLASSES } from '@/core/parts/diode';
import { stationFigures } from '@/core/picture/station-figures';
import { pictureOf } from '@/core/judge/picture';
import { clock, logger } from '../support/demos';

describe('a source of direct current as a circuit', () => {
  const battery = {
    kind: 'battery',
    freshV: 13,
    emptyV: 11,
    resistanceOhm: 0.4,
    capacityAh: 7,
    reverseDiode: true,
  } as const;
  const ohms = (patch: object, adjust = {}) =>
    networkOf(applyPatch(logger, { source: { ...battery, ...patch } as never }), CONDITIONS.nominal, adjust)
      .sections[0]!.winding.resistanceOhm;

  test('its resistance as it is or as drawn, never less than its leads', () => {
    expect(ohms({})).toBeCloseTo(0.4, 9);
    expect(ohms({}, { resistanceFactor: 1.3 })).toBeCloseTo(0.52, 9);
    expect(ohms({ resistanceOhm: 0.002 })).toBeCloseTo(0.01, 9);
  });

  test('the wire in a missing diode’s place is part of the leads', () => {
    expect(ohms({ reverseDiode: false })).toBeCloseTo(0.395, 9);
  });

  test('its volts are those of its state, drawn with their spread', () => {
    const volts = (id: 'low' | 'high', adjust = {}) =>
      networkOf(applyPatch(logger, { source: battery as never }), CONDITIONS[id], adjust).sections[0]!.winding
        .voltageRms * Math.SQRT2;
    expect(volts('low')).toBeCloseTo(11, 9);
    expect(volts('high')).toBeCloseTo(13, 9);
    expect(volts('high', { openCircuitFactor: 0.9 })).toBeCloseTo(11.7, 9);
  });

  test('an adapter’s ripple grows with what is drawn of its plate', () => {
    const adapter = { kind: 'adapter', ratedV: 12, ratedA: 2, idlePct: 30, spreadPct: 10, limitA: null, rippleVpp: 1 };
    const design = applyPatch(logger, { source: { ...adapter, reverseDiode: true } as never });
    const { mains, sections } = networkOf(design, CONDITIONS.nominal);
    const openV = sections[0]!.winding.voltageRms * Math.SQRT2;
    expect(openV).toBeCloseTo(12 * 1.3, 6);
    const double = applyPatch(design, { demand: { outputA: 2 * design.demand.outputA } });
    const more = networkOf(double, CONDITIONS.nominal).mains.ripple! - mains.ripple!;
    // What one more load of the main output adds: its share of two amperes of a volt.
    expect(more).toBeCloseTo(design.demand.outputA / 2 / openV, 6);
  });
});

describe('what a load draws', () => {
  test('constant watts: a hyperbola, below its least volts a straight line through nothing, and nothing below that', () => {
    const load = { kind: 'power', powerW: 12, minV: 6 } as never;
    expect([12, 6, 3, 0, -5].map((v) => currentOf(load, v))).toEqual([1, 2, 1, 0, 0]);
  });

  test('a bleeder from a level up, a resistor everywhere', () => {
    expect([4, 5, 7].map((v) => currentOf({ kind: 'drain', fromV: 5, ohm: 10 } as never, v))).toEqual([0, 0, 0.2]);
    expect(currentOf({ kind: 'resistance', resistanceOhm: 47 } as never, 23.5)).toBe(0.5);
  });

  test('several together draw what each draws', () => {
    const loads = [
      { kind: 'resistance', resistanceOhm: 100 },
      { kind: 'drain', fromV: 5, ohm: 50 },
      { kind: 'power', powerW: 3, minV: 4 },
    ] as never[];
    const law = loadLaw(loads);
    for (const v of [2, 5, 9, 30])
      expect(law.current(v, 0)).toBeCloseTo(
        loads.reduce((sum, l) => sum + currentOf(l, v), 0),
        6,
      );
  });
});

test('a bridge that is one block is one part with four pins; of single diodes each is one', () => {
  const of = (housing: 'block' | 'single') => {
    const { id } = DIODE_CLASSES.find(
      (d) => (d.housing === 'block') === (housing === 'block') && d.technology !== 'valve',
    )!;
    return netlistOf(applyPatch(clock, { rectifier: { diode: id, rated: null } as never })).parts.filter((p) =>
      ['bridge', 'diode'].includes(p.kind),
    );
  };
  const block = of('block').filter((p) => p.line === 'rectifier');
  expect(block.map((p) => [p.kind, p.pins.length])).toEqual([['bridge', 4]]);
  const single = of('single').filter((p) => p.line === 'rectifier');
  expect(single.map((p) => p.kind)).toEqual(['diode', 'diode', 'diode', 'diode']);
  // Both join the same nets: the two ends of the winding, plus and minus.
  const nets = (parts: typeof block) => new Set(parts.flatMap((p) => p.pins.map((pin) => pin.net)));
  expect(nets(block)).toEqual(nets(single));
  expect(nets(block).size).toBe(4);
});

test('labels that would lie on each other are moved apart, each as little as it takes, all up where the bottom ends', () => {
  expect(apart([10, 50, 90], 20)).toEqual([10, 50, 90]);
  expect(apart([10, 15, 90], 20)).toEqual([10, 30, 90]);
  // In the order they stand in, whatever order they are told in.
  expect(apart([15, 10], 20)).toEqual([30, 10]);
  expect(apart([10, 15, 20], 20, 45)).toEqual([5, 25, 45]);
});

test('a battery’s volts name the two they lie between, an adapter’s its plate and both spreads', () => {
  const { picture } = pictureOf(logger);
  const inputs = (level: 'low' | 'nominal') =>
    stationFigures(picture, 'mains', level)
      .find((f) => f.id === `mains-${level}`)!
      .inputs.map((i) => [i.label, i.value]);
  const source = logger.source as { freshV: number; emptyV: number };
  expect(inputs('nominal')).toEqual([
    ['fresh', source.freshV],
    ['given up at', source.emptyV],
  ]);
});
