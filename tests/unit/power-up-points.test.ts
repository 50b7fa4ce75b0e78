import { CONDITIONS } from '@/core/circuit/condition';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import { measuredOf } from '@/core/bench/measured';
import { acReading } from '@/core/bench/own-instruments';
import { judgedWhenFed, judgeReading, mainsForReadings, mainsToday } from '@/core/bench/readings';
import { stagesOf } from '@/core/bench/stages';
import { testPoints } from '@/core/bench/test-points';
import type { PointId, TestPoint } from '@/core/bench/test-point';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { solveSteady } from '@/core/solve/steady';
import { clock, dome, drum, tide, physics, first, logger } from '../support/demos';

/** 1.2 % and three hundredths of a volt, at 230 V. */
const METER = { meterPct: 1.2, meterDigitsV: 0.03 };
const off = (v: number) => 0.012 * v + 0.03;
const metered = (d: Design, patch: Patch = {}) => applyPatch(applyPatch(d, { bench: METER }), patch);
const at230 = () => 230;
const all = (d: Design, mainsFor: (p: PointId) => number = at230) => testPoints(d, mainsFor);
function point(d: Design, id: PointId, mainsFor: (p: PointId) => number = at230): TestPoint {
  const found = all(d, mainsFor).find((p) => p.id === id);
  if (!found) throw new Error(`no ${id}`);
  return found;
}
const input = (p: TestPoint, label: string) => p.expected.inputs.find((i) => i.label === label)?.value;

describe('windows worked out by hand', () => {
  test('mains: what the design allows it, and the meter', () => {
    const p = point(metered(clock, { mains: { lowPct: 8, highPct: 6 } }), 'mains');
    expect(p.low).toBeCloseTo(230 * 0.92 - off(230), 9);
    expect(p.high).toBeCloseTo(230 * 1.06 + off(230), 9);
    expect([input(p, 'low'), input(p, 'high')]).toEqual([8, 6]);
  });

  test('an open winding: 24 V and 9 % at the mains read, ±3 % and the meter', () => {
    const p = point(metered(clock), 'secondary-open', () => 241);
    const open = (24 * 1.09 * 241) / 230;
    expect(p.expected.value).toBeCloseTo(open, 9);
    expect(p.low).toBeCloseTo(0.97 * open - off(open), 9);
    expect(p.high).toBeCloseTo(1.03 * open + off(open), 9);
    expect([input(p, 'rated volts'), input(p, 'regulation'), input(p, 'mains read')]).toEqual([24, 9, 241]);
    expect(p.how).toMatch(/across the winding/);
    expect(point(drum, 'secondary-open').how).toMatch(/each half, tap to end/);
    const typical = point(metered(clock, { transformer: { regulationPct: null } }), 'secondary-open');
    const regulation = typical.expected.inputs.find((i) => i.label === 'regulation')!;
    expect([regulation.value > 5, regulation.origin]).toEqual([true, 'typical']);
  });

  test('a regulated output: its class’s 4 % both ways and the meter, idle and loaded', () => {
    const idle = point(metered(clock), 'output-idle');
    expect(idle.low).toBeCloseTo(24 - 0.96 - off(24), 9);
    expect(idle.high).toBeCloseTo(24 + 0.96 + off(24), 9);
    const loaded = point(metered(clock), 'output-loaded');
    expect(loaded.expected.value).toBeCloseTo(24, 1);
    const [low, high] = [loaded.expected.value - 0.96, loaded.expected.value + 0.96];
    expect(loaded.low).toBeCloseTo(low - off(low), 9);
    expect(loaded.high).toBeCloseTo(high + off(high), 9);
    // An unregulated one is where its reservoir is.
    const [rail, out] = [point(metered(dome), 'reservoir-loaded'), point(metered(dome), 'output-loaded')];
    expect([out.low, out.high]).toEqual([rail.low, rail.high]);
    expect(out.expected.value).toBeCloseTo(rail.expected.value, 3);
  });

  test('reservoir: every part at the ends of its spread, what each does added up, and the meter', () => {
    const of = (d: Design, adjust: Adjust, load: 'full' | 'none' = 'full') => {
      const bare: Design = load === 'full' ? d : { ...d, regulator: { kind: 'none' } };
      const condition = load === 'full' ? CONDITIONS.nominal : { ...CONDITIONS.idle, mains: 'nominal' as const };
      return solveSteady(networkOf(bare, condition, { mainsV: 226, ...adjust })).rails[0]!;
    };
    const ends = (d: Design, figure: (r: ReturnType<typeof of>) => number, load?: 'none') => {
      const here = figure(of(d, {}, load));
      const c = d.reservoir.tolerancePct / 100;
      const moved = [
        { openCircuitFactor: 0.97 },
        { openCircuitFactor: 1.03 },
        { resistanceFactor: 1.2 },
        { resistanceFactor: 0.8 },
        { capacitanceFactor: 1 - c },
        { capacitanceFactor: 1 + c },
        { diodeSaturationFactor: 3 },
        { diodeSaturationFactor: 1 / 3 },
      ].map((adjust) => figure(of(d, adjust, load)) - here);
      const sum = (sign: 1 | -1) => {
        // The two ends of one part count once, by the one that goes further this way.
        let s = 0;
        for (let n = 0; n < moved.length; n += 2) s += Math.max(0, sign * moved[n]!, sign * moved[n + 1]!);
        return s;
      };
      return { here, low: here - sum(-1), high: here + sum(1) };
    };
    const d = metered(clock);
    const mean = ends(d, (r) => r.meanV);
    const loaded = point(d, 'reservoir-loaded', () => 226);
    expect(loaded.expected.value).toBeCloseTo(mean.here, 4);
    expect(loaded.low).toBeCloseTo(mean.low - off(mean.low), 3);
    expect(loaded.high).toBeCloseTo(mean.high + off(mean.high), 3);
    expect([input(loaded, 'mains read'), input(loaded, 'load')]).toEqual([226, 1.2]);
    // A meter of 10 MΩ hangs across it: 5 µA beside the bleeder's 160.
    const withMeter = { ...d, filter: { ...d.filter, bleederOhm: 1 / (1 / d.filter.bleederOhm! + 1e-7) } };
    const idle = ends(withMeter, (r) => r.meanV, 'none');
    const unloaded = point(d, 'reservoir-idle', () => 226);
    expect(unloaded.expected.value).toBeCloseTo(idle.here, 4);
    expect(unloaded.low).toBeCloseTo(idle.low - off(idle.low), 3);
    expect(unloaded.high).toBeCloseTo(idle.high + off(idle.high), 3);
    expect(input(unloaded, 'winding, open')).toBeCloseTo((24 * 1.09 * 226) / 230, 9);
    // A scope is read to a tenth, whatever the meter.
    const ripple = ends(d, (r) => r.ripplePeakToPeakV);
    const scoped = point(d, 'reservoir-ripple', () => 226);
    expect(scoped.low).toBeCloseTo(0.9 * ripple.low, 3);
    // The scope of the drawer shows 10 mV with its tip on its own ground.
    expect(scoped.high).toBeCloseTo(1.1 * ripple.high + 0.01, 3);
    expect(input(scoped, 'reservoir')).toBe(6800e-6);
    // Cans within 5 % leave the ripple less room than cans within 20 %.
    const tight = point(applyPatch(d, { reservoir: { tolerancePct: 5 } }), 'reservoir-ripple', () => 226);
    expect(tight.high).toBeLessThan(scoped.high - 0.1);
    expect(tight.expected.value).toBeCloseTo(scoped.expected.value, 9);
  });

  test('a warm sink: room up to 15 K cooler or 5 K warmer, its rise 30 % off', () => {
    const p = point(first, 'sink-warm');
    const rise = p.expected.value - 25;
    const watts = input(p, 'all watts on the sink')!;
    // 2.2 K/W is quoted at a rise of 60 K; at less it carries less.
    expect(rise).toBeCloseTo(watts * 2.2 * (60 / rise) ** 0.25, 2);
    // The thermometer's own 2 K on top.
    expect(p.low).toBeCloseTo(25 - 15 + 0.7 * rise - 2, 9);
    expect(p.high).toBeCloseTo(25 + 5 + 1.3 * rise + 2, 9);
    // Its fins stand outside of the box.
    expect(input(p, 'air at the sink')).toBe(25);
    expect(input(p, 'air at the sink')! + watts * input(p, 'sink to air, at this rise')!).toBeCloseTo(25 + rise, 9);
    expect([p.label, p.expected.label]).toEqual(['Heatsink', 'Sink temperature, warm']);
    const bare = point(logger, 'sink-warm', () => 12);
    expect([bare.label, bare.expected.label]).toEqual(['Regulator’s case', 'Case temperature, warm']);
    // Touch: above 60 °C it burns, below nobody is warned.
    expect(first.heat.sinkKPerW).toBe(2.2);
    const burning = point(applyPatch(first, { heat: { ambientC: 60 } }), 'sink-warm');
    expect(burning.expected.value).toBeGreaterThan(60);
    expect(burning.caution).toMatch(/^About \d+ °C: burns/);
    expect(p.expected.value).toBeLessThan(60);
    expect(p.caution).toBeUndefined();
  });

  test('the minus rail and further outputs: their own accuracy, or 8 % of the rail they hang on', () => {
    const minus = point(metered(drum), 'output-minus');
    expect(minus.label).toBe('−18 V, full load');
    expect(minus.how).toMatch(/180 mA drawn/);
    expect(minus.expected.value).toBeCloseTo(18, 1);
    const [low, high] = [minus.expected.value - 0.72, minus.expected.value + 0.72];
    expect(minus.low).toBeCloseTo(low - off(low), 9);
    expect(minus.high).toBeCloseTo(high + off(high), 9);
    const battery = metered(logger, { outputs: [{ ...logger.outputs[0]!, regulator: { kind: 'none' } }] });
    const bare = point(battery, 'further-0', () => 12);
    const mean = bare.expected.value;
    expect(bare.low).toBeCloseTo(0.92 * mean - off(0.92 * mean), 6);
    expect(bare.high).toBeCloseTo(1.08 * mean + off(1.08 * mean), 6);
    expect(bare.expected.source).toMatch(/±8 %/);
    expect(point(metered(logger), 'further-0', () => 12).expected.source).toMatch(/accuracy typical of its class/);
    expect(all(drum).map((p) => p.id)).not.toContain('further-0');
    expect(all(clock).map((p) => p.id)).not.toContain('output-minus');
  });
});

test('each point is simulated at the mains noted for it', () => {
  const of = (mainsFor: (p: PointId) => number) => new Map(all(logger, mainsFor).map((p) => [p.id, p.expected.value]));
  const usual = of(() => 12);
  for (const id of ['reservoir-idle', 'reservoir-loaded', 'sink-warm'] as const) {
    const moved = of((p) => (p === id ? 12.9 : 12));
    const changed = [...moved].filter(([other, value]) => value !== usual.get(other));
    expect(changed.map(([other]) => other)).toEqual([id]);
    expect(moved.get(id)!).toBeGreaterThan(usual.get(id)!);
  }
});

describe('fed by direct current', () => {
  test('a battery is read between given up and fresh, and has no winding and no ripple', () => {
    const d = metered(logger);
    const ids = all(d, () => 12).map((p) => p.id);
    expect(ids).not.toContain('secondary-open');
    expect(ids).not.toContain('reservoir-ripple');
    const p = point(d, 'mains', () => 12);
    expect([p.label, p.expected.value]).toEqual(['Battery, open', (12.9 + 11) / 2]);
    expect(p.low).toBeCloseTo(11 - off(11), 9);
    expect(p.high).toBeCloseTo(12.9 + off(12.9), 9);
    expect([input(p, 'fresh'), input(p, 'given up at')]).toEqual([12.9, 11]);
    expect(p.caution).toMatch(/no ring, no spanner, fuse in the lead/);
    expect(p.ifLow).toMatch(/dead cell/);
    expect(p.ifHigh).toMatch(/charger/);
    const idle = point(d, 'reservoir-idle', () => 12);
    expect(idle.ifLow).toMatch(/^The diode the wrong way round/);
    expect(idle.expected.inputs.map((i) => i.label)).toEqual(['open volts read']);
    expect(point(d, 'reservoir-loaded', () => 12).ifHigh).toMatch(/battery/);
  });

  test('an adapter stands above its plate when idle, within its spread, and has ripple to read', () => {
    const source = {
      kind: 'adapter',
      ratedV: 12,
      ratedA: 1,
      idlePct: 30,
      spreadPct: 10,
      rippleVpp: 0.8,
      limitA: null,
      reverseDiode: true,
    } as const;
    const d = metered(logger, { source });
    const p = point(d, 'mains', () => 15.6);
    expect(p.label).toBe('Adapter, open');
    expect(p.expected.value).toBeCloseTo(12 * 1.3, 9);
    expect(p.low).toBeCloseTo(12 * 1.3 * 0.9 - off(12 * 1.3 * 0.9), 9);
    expect(p.high).toBeCloseTo(12 * 1.3 * 1.1 + off(12 * 1.3 * 1.1), 9);
    expect(['plate', 'above it when idle', 'spread'].map((label) => input(p, label))).toEqual([12, 30, 10]);
    expect(p.caution).toBeUndefined();
    expect(p.ifLow).toMatch(/smaller adapter/);
    expect(p.ifHigh).toMatch(/far above its plate/);
    // A quarter of its current leaves about a quarter of its 0.8 V, and the reservoir takes its share.
    const ripple = point(d, 'reservoir-ripple', () => 15.6).expected.value;
    expect(ripple).toBeGreaterThan(0.05);
    expect(ripple).toBeLessThan(0.2);
    // 60 V DC and more hurts: 50 V × 1.3 × 1.1 is 71.5.
    expect(point(metered(logger, { source: { ...source, ratedV: 50 } }), 'mains', () => 65).caution).toMatch(
      /71\.5 V DC: nothing bare/,
    );
  });
});

describe('cautions at their limit', () => {
  // 60 V DC on a reservoir is where touching it hurts: peak of the open winding at high mains.
  const peakOf = (volts: number) => {
    const d = applyPatch(dome, {
      transformer: { ratedV: volts, regulationPct: 5, source: { kind: 'plate' } },
      mains: { highPct: 10, flatTopPct: 5 },
    });
    return point(d, 'reservoir-idle').caution!;
  };
  const perVolt = Math.SQRT2 * 0.95 * 1.05 * 1.1;
  test('charge that hurts is named with its volts', () => {
    expect(peakOf((1.01 * 60) / perVolt)).toMatch(/^60\.6 V DC can stand here, and stays after switching off/);
    expect(peakOf((0.99 * 60) / perVolt)).toMatch(/^Check the polarity/);
  });
});

describe('a reading against its window', () => {
  const p = { low: 10, high: 12, ifLow: 'look below', ifHigh: 'look above' } as TestPoint;
  test('its ends belong to it', () => {
    expect(judgeReading(p, 10).state).toBe('as expected');
    expect(judgeReading(p, 12).state).toBe('as expected');
    expect(judgeReading(p, 9.5)).toEqual({ state: 'too low', offBy: -0.5, hint: 'look below' });
    expect(judgeReading(p, 12.25)).toEqual({ state: 'too high', offBy: 0.25, hint: 'look above' });
  });

  test('volts read at the mains are not taken for a battery’s, nor the other way round', () => {
    const read = (d: Design, value: number) =>
      mainsToday(
        applyPatch(d, {
          bench: { readings: [{ point: 'mains', value, mainsV: value, fedFrom: 'mains', at: '2026-03-01T20:00:00Z' }] },
        }),
      );
    expect(read(clock, 221)).toBe(221);
    expect(read(clock, 12.4)).toBe(230);
    expect(read(clock, 93)).toBe(93);
    expect(read(clock, 92)).toBe(230);
    expect(read(clock, 459)).toBe(459);
    expect(read(clock, 460)).toBe(230);
    expect(read(logger, 12.4)).toBe(12.4);
    expect(read(logger, 230)).toBeCloseTo(11.95, 9);
    // A reading noted with the mains of then is judged at today's source.
    const then = applyPatch(logger, {
      bench: {
        readings: [{ point: 'output-idle', value: 5, mainsV: 230, fedFrom: 'mains', at: '2026-03-01T20:00:00Z' }],
      },
    });
    expect(mainsForReadings(then)('output-idle')).toBeCloseTo(11.95, 9);
  });

  test('of two readings of the same moment the later line counts', () => {
    const at = '2026-03-01T20:00:00Z';
    const d = applyPatch(clock, {
      bench: {
        readings: [
          { point: 'mains', value: 228, mainsV: 228, fedFrom: 'mains', at },
          { point: 'mains', value: 231, mainsV: 231, fedFrom: 'mains', at },
          { point: 'mains', value: 225, mainsV: 225, fedFrom: 'mains', at: '2026-02-28T20:00:00Z' },
        ],
      },
    });
    expect(mainsToday(d)).toBe(231);
  });
});

test('every point of every design says where to probe, what it rests on and what a wrong reading means', () => {
  for (const d of [clock, dome, drum, tide, physics, logger])
    for (const p of all(d, () => (d === logger ? 12 : 230))) {
      const words = [p.stage, p.label, p.how, p.ifLow, p.ifHigh, p.expected.expression, p.expected.source];
      for (const w of words) expect(w.length).toBeGreaterThan(3);
      for (const a of p.expected.assumes) expect(a).toMatch(/\w.*\.$/);
      for (const i of p.expected.inputs) {
        expect(i.label).toBeTruthy();
        expect(Number.isFinite(i.value)).toBe(true);
        // Turns are counted.
        expect([i.label, i.unit === '']).toEqual([i.label, /turns$/.test(i.label)]);
      }
      const spread = p.expected.assumes.some((a) => /each simulated, the excursions added/.test(a));
      expect([p.id, spread]).toEqual([p.id, /^reservoir|^ripple/.test(p.id)]);
      expect(p.low).toBeLessThan(p.expected.value);
      expect(p.high).toBeGreaterThan(p.expected.value);
    }
});

test('with heat solved together the loaded points are those of warm parts', () => {
  const [cool, warm] = [false, true].map((together) =>
    point(applyPatch(physics, { heat: { together, ambientC: 60 } }), 'reservoir-loaded'),
  ) as [TestPoint, TestPoint];
  expect(warm.expected.value).not.toBeCloseTo(cool.expected.value, 3);
  // Without load nothing is warm.
  const [idle, idleTogether] = [false, true].map((together) =>
    point(applyPatch(physics, { heat: { together, ambientC: 60 } }), 'reservoir-idle'),
  ) as [TestPoint, TestPoint];
  expect(idleTogether.expected.value).toBe(idle.expected.value);
});

describe('what the person’s own instruments show', () => {
  const bare = applyPatch(dome, { bench: { readings: [], loadLine: [] } });
  const own = (bench: Partial<Design['bench']>, id: PointId, of = bare) =>
    all(applyPatch(of, { bench }), () => 230).find((p) => p.id === id)!;

  test('a scope’s floor lies on top of a ripple, ten times of it through a ×10 probe, and never below', () => {
    const clean = own({ scopeFloorV: 0 }, 'reservoir-ripple');
    const noisy = own({ scopeFloorV: 0.03 }, 'reservoir-ripple');
    const probed = own({ scopeFloorV: 0.03, probe: 10 }, 'reservoir-ripple');
    expect(noisy.high - clean.high).toBeCloseTo(0.03, 9);
    expect(probed.high - clean.high).toBeCloseTo(0.3, 9);
    expect([noisy.low, probed.low]).toEqual([clean.low, clean.low]);
    expect(probed.how).toContain('×10 probe');
  });

  test('a ripple on the AC range: near p-p by 2√3, and 4 % less on a meter that takes the mean', () => {
    const swing = own({}, 'reservoir-ripple').expected.value;
    const rms = own({ acTrueRms: true }, 'ripple-meter').expected.value;
    const mean = own({ acTrueRms: false }, 'ripple-meter').expected.value;
    // A sawtooth has p-p / (2·√3) of RMS, and 1.11 × a quarter of it on an averaging meter; the charging makes it rounder.
    expect(rms / swing).toBeGreaterThan(0.27);
    expect(rms / swing).toBeLessThan(0.32);
    expect(mean / rms).toBeGreaterThan(0.95);
    expect(mean / rms).toBeLessThan(0.995);
    expect(
      acReading(
        [0, 1, 2, 3].map((n) => 5 + n),
        { acTrueRms: true },
      ),
    ).toBeCloseTo(Math.sqrt(1.25), 12);
    expect(acReading([5, 6, 7, 8], { acTrueRms: false })).toBeCloseTo(1.1107207, 6);
    const sine = Array.from({ length: 360 }, (_, n) => 30 + Math.sqrt(2) * Math.sin((Math.PI * n) / 180));
    expect(acReading(sine, { acTrueRms: true })).toBeCloseTo(1, 6);
    expect(acReading(sine, { acTrueRms: false })).toBeCloseTo(1, 4);
  });

  test('a burden starves a resistance, and not a load that is set', () => {
    const set = own({ burdenV: 0.5 }, 'load-current').expected.value;
    const ohms = own({ burdenV: 0.5 }, 'load-current', applyPatch(bare, { demand: { kind: 'resistance' } })).expected;
    expect(set).toBe(4);
    const outV = ohms.inputs.find((i) => i.label === 'output')!.value;
    expect(ohms.value).toBeCloseTo((4 * (outV - 0.5)) / outV, 9);
  });

  test('a meter of 100 kΩ pulls an idle reservoir down where little else hangs on it', () => {
    const light = own({ inputOhm: 1e12 }, 'reservoir-idle').expected.value;
    const heavy = own({ inputOhm: 1e3 }, 'reservoir-idle').expected.value;
    expect(light - heavy).toBeGreaterThan(0.05);
    expect(own({ inputOhm: 10e6 }, 'reservoir-idle').expected.value).toBeCloseTo(light, 2);
  });

  test('a thermometer’s error widens the window of the metal by itself', () => {
    const near = own({ thermometerK: 0 }, 'sink-warm', clock);
    const far = own({ thermometerK: 5 }, 'sink-warm', clock);
    expect([near.low - far.low, far.high - near.high]).toEqual([5, 5]);
  });

  test('a light load lies between idle and full, and is a stage nobody has to wait for', () => {
    const at = (id: PointId) => own({}, id, clock).expected.value;
    expect(at('reservoir-light')).toBeLessThan(at('reservoir-idle'));
    expect(at('reservoir-light')).toBeGreaterThan(at('reservoir-loaded'));
    expect(at('output-light')).toBeCloseTo(24, 1);
    expect(stagesOf(clock).find((s) => s.name === 'Light load')).toEqual({
      name: 'Light load',
      points: [],
      more: ['reservoir-light', 'output-light'],
    });
  });

  test('what was read through a lamp, or of a bench supply in place of the mains, is held against nothing', () => {
    expect((['mains', 'variable', 'lamp', 'bench supply'] as const).map((f) => judgedWhenFed(clock, f))).toEqual([
      true,
      true,
      false,
      false,
    ]);
    expect(judgedWhenFed(logger, 'bench supply')).toBe(true);
    const through = (fedFrom: 'mains' | 'lamp') =>
      measuredOf(
        applyPatch(clock, {
          bench: {
            readings: [{ point: 'reservoir-light', value: 34, mainsV: 230, fedFrom, at: '2026-03-01T20:00:00Z' }],
          },
        }),
      );
    expect(through('mains')).toMatchObject([{ quantity: 'reservoir', state: { load: 0.12 } }]);
    expect(through('lamp')).toEqual([]);
  });
});
