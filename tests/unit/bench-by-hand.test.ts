import { Warming } from '@/core/bench/row-warmth';
import { bandSvg } from '@/core/bench/band-svg';
import { nextStep } from '@/core/bench/next-step';
import { mainsForReadings } from '@/core/bench/readings';
import { stagesOf } from '@/core/bench/stages';
import { computedLine } from '@/core/bench/load-line';
import { fitDesign } from '@/core/bench/fit-design';
import { nextReadings } from '@/core/bench/next-readings';
import type { Suspicion } from '@/core/bench/suspicions';
import { measuredOf } from '@/core/bench/measured';
import { setPuzzle, takeReading } from '@/core/bench/practice';
import { soakOf } from '@/core/bench/soak';
import { judgeReading } from '@/core/bench/readings';
import type { PointId } from '@/core/bench/test-point';
import { testPoints } from '@/core/bench/test-points';
import { applyPatch, type Design } from '@/core/design/design';
import { withWindingVolts } from '@/core/design/winding-edit';
import { mainModel } from '@/core/design/outputs';
import type { Weighed } from '@/core/fit/diagnose';
import { SolveError } from '@/core/solve/solve-error';
import { operatingPoint } from '@/core/study/operating-point';
import { clock, dome, drum, logger, physics } from '../support/demos';

/** A meter of one per cent and ten millivolts, which makes the sums short. */
const metered = (d: Design, patch: Partial<Design['bench']> = {}) =>
  applyPatch(d, { bench: { meterPct: 1, meterDigitsV: 0.01, burdenV: 0.2, ...patch } });
const pointsOf = (d: Design, mainsV = 230) => {
  const all = testPoints(d, () => mainsV);
  return (id: PointId) => all.find((p) => p.id === id)!;
};

describe('what a test point should read, worked out by hand', () => {
  test('mains: the limits of the design, and what the meter adds to them', () => {
    const point = pointsOf(metered(applyPatch(clock, { mains: { lowPct: 10, highPct: 6 } })))('mains');
    expect(point.expected.value).toBe(230);
    expect(point.low).toBeCloseTo(230 * 0.9 - 2.31, 6);
    expect(point.high).toBeCloseTo(230 * 1.06 + 2.31, 6);
  });

  test('the open winding: rated volts and regulation, three per cent and the meter either way', () => {
    const known = applyPatch(clock, {
      transformer: { ratedV: 20, regulationPct: 10, source: { kind: 'plate' } },
    });
    const point = pointsOf(metered(known), 207)('secondary-open');
    // 20 V · 1.1 · 207/230.
    expect(point.expected.value).toBeCloseTo(19.8, 6);
    expect(point.high - point.expected.value).toBeCloseTo(19.8 * 0.03 + 0.208, 6);
    expect(point.expected.value - point.low).toBeCloseTo(19.8 * 0.03 + 0.208, 6);
    expect(point.expected.inputs.map((i) => i.value)).toEqual([20, expect.closeTo(10, 6), 207, 230]);
  });

  test('a source of direct current is one point, with no winding behind it', () => {
    const all = testPoints(metered(logger), () => 12);
    expect(all.map((p) => p.id)).not.toContain('secondary-open');
    const battery = applyPatch(logger, {
      source: {
        kind: 'battery',
        freshV: 13,
        emptyV: 11,
        resistanceOhm: 0.1,
        capacityAh: 7,
        reverseDiode: true,
      } as never,
    });
    const source = pointsOf(metered(battery), 12)('mains');
    expect([source.low, source.expected.value, source.high]).toEqual([
      expect.closeTo(11 - 0.12, 6),
      12,
      expect.closeTo(13 + 0.14, 6),
    ]);
    expect(source.caution).toMatch(/no limit of its own/);
    const adapter = applyPatch(logger, {
      source: {
        kind: 'adapter',
        ratedV: 9,
        ratedA: 1,
        idlePct: 30,
        spreadPct: 10,
        limitA: null,
        rippleVpp: 1,
        reverseDiode: true,
      } as never,
    });
    const plug = pointsOf(metered(adapter), 12)('mains');
    // 9 V · 1.3, a tenth either way, then the meter.
    expect(plug.low).toBeCloseTo(11.7 * 0.9 - 0.1153, 3);
    expect(plug.high).toBeCloseTo(11.7 * 1.1 + 0.1387, 3);
    expect(plug.caution).toBeUndefined();
    const high = applyPatch(battery, { source: { ...(battery.source as object), freshV: 130, emptyV: 110 } as never });
    expect(pointsOf(metered(high), 120)('mains').caution).toMatch(/130 V DC: nothing bare/);
  });

  test('an output: what the family says of its spread, and the meter', () => {
    const points = pointsOf(metered(clock));
    const model = mainModel(clock)!;
    const spread = model.outputV * model.spread;
    for (const id of ['output-idle', 'output-light', 'output-loaded'] as const) {
      const { low, high, expected } = points(id);
      expect(expected.value).toBeCloseTo(24, 1);
      expect(high - expected.value).toBeCloseTo(spread + 0.01 * expected.value + 0.01, 1);
      expect(expected.value - low).toBeCloseTo(spread + 0.01 * expected.value + 0.01, 1);
    }
    // The light load is a tenth.
    expect(points('output-light').how).toContain('120 mA');
  });

  test('amperes: what the burden leaves a resistor, five per cent of load and a meter twice as coarse', () => {
    const resistor = metered(applyPatch(dome, { demand: { kind: 'resistance' } }));
    const { outputMeanV } = operatingPoint(resistor, 'nominal', { mainsV: 230 });
    const point = pointsOf(resistor)('load-current');
    const amps = (dome.demand.outputA * (outputMeanV - 0.2)) / outputMeanV;
    expect(point.expected.value).toBeCloseTo(amps, 6);
    // 2 · 1 % and a thousandth.
    expect(point.high).toBeCloseTo(1.05 * amps + 0.021 * amps, 6);
    expect(point.low).toBeCloseTo(0.95 * amps - 0.021 * amps, 6);
    const set = pointsOf(metered(applyPatch(dome, { demand: { kind: 'current' } })))('load-current');
    expect(set.expected.value).toBe(dome.demand.outputA);
  });

  test('an idle reservoir that can hurt says so at its own volts, one that cannot asks for its polarity', () => {
    expect(pointsOf(clock)('reservoir-idle').caution).toMatch(/polarity/);
    const tall = applyPatch(dome, withWindingVolts(dome, 60));
    expect(pointsOf(tall)('reservoir-idle').caution).toMatch(/DC can stand here, and stays after switching off/);
  });

  test('a reading on the edge of its window is inside it', () => {
    const point = pointsOf(clock)('reservoir-loaded');
    expect([point.low, point.high].map((v) => judgeReading(point, v).state)).toEqual(['as expected', 'as expected']);
    expect([point.low - 0.01, point.high + 0.01].map((v) => judgeReading(point, v).state)).toEqual([
      'too low',
      'too high',
    ]);
  });
});

describe('readings against the computed load line', () => {
  const { at, line, mainsV, droop } = computedLine(drum);
  const rows = measuredOf(drum).filter((m) => m.id.startsWith('row-'));

  test('each is told by how much it is off, in the kelvins or volts of its own instrument', () => {
    expect(rows.length).toBeGreaterThan(10);
    for (const row of rows) {
      const { figure, value, outside } = at[row.id]!;
      expect(figure.unit).toBe(row.unit === '°C' ? 'K' : 'V');
      expect(figure.value).toBeCloseTo(row.value - value, 9);
      const [read, said, parts, instrument] = figure.inputs.map((i) => i.value);
      expect([read, said]).toEqual([row.value, value]);
      expect(instrument).toBe(row.sigma);
      expect(outside).toBe(Math.abs(row.value - value) > 2 * Math.hypot(parts!, instrument!));
    }
    expect(new Set(rows.map((r) => at[r.id]!.figure.unit))).toEqual(new Set(['V', 'K']));
  });

  test('the line falls with load, and reaches a tenth beyond the most that was drawn', () => {
    const volts = line.map((l) => l.value);
    expect(volts).toEqual([...volts].sort((a, b) => b - a));
    const most = Math.max(drum.demand.outputA, ...drum.bench.loadLine.map((r) => r.loadA));
    expect(line.at(-1)!.loadA).toBeCloseTo(1.1 * most, 9);
    expect(mainsV).toBeGreaterThan(225);
  });

  test('warming copper pulls a reservoir down by what its resistance gains', () => {
    const [cold, warm, endC] = droop!.inputs.map((i) => i.value) as [number, number, number];
    expect(droop!.value).toBeCloseTo(cold - warm, 9);
    expect(droop!.value).toBeGreaterThan(0.05);
    expect(endC).toBeGreaterThan(30);
    expect(computedLine(logger).droop).toBeNull();
  });
});

test('a fitted design’s forecasts say at what mains, what stood there before, and how sure they are', () => {
  const fitted = fitDesign(dome, ['open', 'copper', 'capacitance']);
  if (typeof fitted === 'string') throw new Error(fitted);
  expect(fitted.forecasts.length).toBeGreaterThan(0);
  for (const f of fitted.forecasts) {
    const inputs = Object.fromEntries(f.figure.inputs.map((i) => [i.label, i.value]));
    expect(inputs['mains']).toBeGreaterThan(180);
    expect([inputs['before the fit'], inputs['sure to']]).toEqual([f.before, f.sigma]);
    expect(f.figure.value).toBe(f.value);
  }
});

test('a capacitance meter shows what was built in, not what is printed on it', () => {
  const sound = setPuzzle('nothing')!;
  const big = { ...sound, hidden: { ...sound.hidden, factors: { ...sound.hidden.factors, capacitance: 1.2 } } };
  const farads = 1.2 * sound.design.reservoir.capacitanceF;
  const shown = /^([\d.]+) (µF|mF), its ESR as usual/.exec(takeReading(big, 'reservoir', 1).said)!;
  expect(Number(shown[1]) * (shown[2] === 'mF' ? 1e-3 : 1e-6)).toBeCloseTo(Number(farads.toPrecision(3)), 9);
  const plain = { ...sound, hidden: { ...sound.hidden, factors: {} } };
  const printed = /^([\d.]+) (µF|mF)/.exec(takeReading(plain, 'reservoir', 1).said)!;
  expect(Number(printed[1]) * (printed[2] === 'mF' ? 1e-3 : 1e-6)).toBeCloseTo(sound.design.reservoir.capacitanceF, 9);
});

test('a soak in a closed box names both of its terms, and its end is their sum over the room', () => {
  const temps = (patch: Partial<Design['heat']>) => {
    const soak = soakOf(applyPatch(clock, { heat: { ...clock.heat, ...patch } }));
    if (typeof soak === 'string') throw new Error(soak);
    return soak;
  };
  const value = (s: ReturnType<typeof temps>) => (label: string) =>
    s.final.inputs.find((i) => i.label === label)?.value ?? null;
  const open = temps({ box: 'open' });
  expect(value(open)('room')! + value(open)('rise')!).toBeCloseTo(open.final.value, 6);
  expect(value(open)('box adds')).toBeNull();
  const closed = temps({ box: 'closed', sinkOutside: false });
  const of = value(closed);
  expect(of('room')! + of('rise')! + of('box adds')!).toBeCloseTo(closed.final.value, 6);
  expect(of('its time constant')!).toBeGreaterThan(of('time constant')!);
});

test('the lowest output of a variable supply is read at its own setting', () => {
  const all = testPoints(physics, () => 230).map((p) => p.id);
  expect(new Set(all).size).toBe(all.length);
  expect(all.indexOf('reservoir-idle')).toBeLessThan(all.indexOf('reservoir-loaded'));
});

describe('what to read next, where no computed reading tells anything', () => {
  /** A suspicion no circuit answers: only checks without power speak of it. */
  const believed = (fault: string, probability: number) =>
    ({
      hypothesis: {
        fault,
        unknowns: [],
        severities: [],
        over: () => {
          throw new SolveError('no cycle closes');
        },
      },
      probability,
      posterior: {},
    }) as unknown as Weighed<Suspicion>;
  const gains = (...list: [string, number][]) =>
    Object.fromEntries(
      nextReadings(
        clock,
        list.map(([f, p]) => believed(f, p)),
        [],
      ).map((n) => [n.id, n.gain]),
    );
  const bits = (p: number) => -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
  const wrong = bits(0.96);

  test('a check that is right 96 times of 100 halves what is half believed, less its own error', () => {
    // One bit, less what its error leaves open.
    const even = gains(['diode-open', 0.5], ['reservoir-dry', 0.5]);
    expect(even['diodes']).toBeCloseTo(1 - wrong, 9);
    expect(even['reservoir']).toBeCloseTo(1 - wrong, 9);
    // What it would show of each adds up; what is shared out of less than all is taken of all there is.
    const three = gains(['diode-open', 0.1], ['diode-short', 0.1], ['reservoir-dry', 0.2], ['source-weak', 0.4]);
    const share = (p: number) => p * 0.96 + (1 - p) * 0.04;
    expect(three['diodes']).toBeCloseTo(bits(share(0.2 / 0.8)) - wrong, 9);
    expect(three['path']).toBeCloseTo(bits(share(0.4 / 0.8)) - wrong, 9);
    // What nobody believes, or everybody, no check teaches.
    expect(three['through']).toBeUndefined();
    expect(gains(['diode-open', 1])).toEqual({});
  });

  test('the quicker of two that tell alike comes first', () => {
    const order = nextReadings(clock, [believed('diode-open', 0.5), believed('reservoir-dry', 0.5)], []).map(
      (n) => n.id,
    );
    // Four minutes against six.
    expect(order).toEqual(['diodes', 'reservoir']);
  });
});

describe('as the load changes hands', () => {
  test('copper warms towards the square of the load and cools again, a source of direct current has none', () => {
    const warming = new Warming(clock);
    const cold = warming.state.copperC!;
    warming.pass(1e6, clock.demand.outputA, 230);
    const full = warming.state.copperC! - cold;
    expect(full).toBeGreaterThan(10);
    warming.pass(1e6, 0.5 * clock.demand.outputA, 230);
    expect(warming.state.copperC! - cold).toBeCloseTo(0.25 * full, 6);
    warming.rest();
    expect(warming.state.copperC).toBe(cold);
    const battery = new Warming(logger);
    battery.pass(1e6, logger.demand.outputA, 12);
    expect(battery.state.copperC).toBeUndefined();
  });
});

const read = (point: string, value: number, mainsV = 230, at = '2026-11-01T10:00:00.000Z') =>
  ({ point, value, mainsV, at, fedFrom: 'mains', note: '' }) as unknown as Design['bench']['readings'][number];

describe('power-up, stage by stage', () => {
  const points = (d: Design) => stagesOf(d).map((s) => [s.name, s.points, s.more]);

  test('from the mains with a regulator; without one; from a battery', () => {
    expect(points(clock)).toEqual([
      ['Before anything', [], ['mains']],
      ['Transformer alone', ['secondary-open'], []],
      ['Rectifier and reservoir', ['reservoir-idle'], []],
      ['Regulator', ['output-idle'], []],
      ['Light load', [], ['reservoir-light', 'output-light']],
      ['Full load', ['reservoir-loaded', 'reservoir-ripple', 'output-loaded'], ['load-current', 'ripple-meter']],
      ['After half an hour', ['sink-warm'], []],
    ]);
    const names = (d: Design) => stagesOf(d).map((s) => s.name);
    expect(names(dome)).not.toContain('Regulator');
    expect(names(dome)).not.toContain('After half an hour');
    expect(points(dome)[3]).toEqual(['Light load', [], ['reservoir-light']]);
    expect(points(logger)[0]).toEqual(['Before anything', ['mains'], []]);
    expect(names(logger)).not.toContain('Transformer alone');
    expect(stagesOf(logger).flatMap((s) => [...s.points, ...s.more])).not.toContain('reservoir-ripple');
  });

  test('the next is the first whose points are not all read, and at the end the sheet', () => {
    const ready = applyPatch(clock, {
      mainsSide: { primaryFuseA: 0.5, ticked: ['label'] },
      bench: { readings: [] },
      build: { placed: [], kit: [] },
    });
    const told = (list: string[]) =>
      nextStep(applyPatch(ready, { bench: { readings: list.map((p) => read(p, 1)) } }), { verdicts: [], fails: 0 })
        .text;
    expect(told([])).toBe('stage 2, transformer alone, is not yet read');
    expect(told(['secondary-open'])).toBe('stage 3, rectifier and reservoir, is not yet read');
    expect(told(['secondary-open', 'reservoir-idle', 'output-idle'])).toBe('stage 6, full load, is not yet read');
    expect(told(stagesOf(ready).flatMap((s) => s.points))).toBe('print the sheet that stays with the box');
  });

  test('a reading is judged at the mains it was taken at, one without its own at today’s', () => {
    const at = (list: Design['bench']['readings']) =>
      mainsForReadings(applyPatch(clock, { bench: { readings: list } }));
    const none = at([]);
    expect([none('mains'), none('reservoir-idle')]).toEqual([230, 230]);
    const some = at([read('mains', 241), read('reservoir-idle', 30, 226), read('output-idle', 15, 24)]);
    expect(some('mains')).toBe(241);
    expect(some('reservoir-idle')).toBe(226);
    expect(some('reservoir-loaded')).toBe(241);
    // Volts of another source say nothing of this one.
    expect(some('output-idle')).toBe(241);
  });
});

test('a course on paper: linear along both axes, inside its frame, its band twice the spread to either side', () => {
  const svg = bandSvg({
    title: 't',
    heading: 'h',
    note: 'n',
    line: [0, 5, 10].map((a) => ({ x: a, y: 2 * a, sigma: 1 })),
    read: [
      { x: 0, y: 0 },
      { x: 5, y: 10 },
      { x: 10, y: 20 },
    ],
    xWords: String,
    yWords: String,
  });
  const dots = [...svg.matchAll(/<circle cx="([\d.]+)" cy="([\d.]+)"/g)].map(
    (m) => [Number(m[1]), Number(m[2])] as const,
  );
  const [a, b, c] = dots as [readonly [number, number], readonly [number, number], readonly [number, number]];
  expect(b[0] - a[0]).toBeCloseTo(c[0] - b[0], 1);
  expect(a[1] - b[1]).toBeCloseTo(b[1] - c[1], 1);
  // 62 mm from the left edge to 18 from the right; the course from −2 to 22 and a twentieth of that beyond.
  expect([a[0], c[0]]).toEqual([62, 742]);
  const perVolt = (430 - 40 - 46) / (24 * 1.1);
  expect(a[1] - c[1]).toBeCloseTo(20 * perVolt, 1);
  expect(430 - 46 - a[1]).toBeCloseTo((2 + 1.2) * perVolt, 1);
  const [, band] = /<path d="(M[^"]+)Z" fill/.exec(svg)!;
  const ends = [...band!.matchAll(/[ML]([\d.]+) ([\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])] as const);
  expect(ends).toHaveLength(6);
  // There along the upper edge, back along the lower.
  expect(ends[5]![1] - ends[0]![1]).toBeCloseTo(4 * perVolt, 1);
  expect([ends[0]![0], ends[2]![0], ends[3]![0], ends[5]![0]]).toEqual([62, 742, 742, 62]);
});
