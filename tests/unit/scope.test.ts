import { applyPatch } from '@/core/design/design';
import { IDEAL_INSTRUMENT, noiseLine, throughInstrument } from '@/core/study/instrument';
import { harmonics, layOver, type Trace } from '@/core/study/scope-shapes';
import { scopeTraces } from '@/core/study/traces';
import { solveSteady } from '@/core/solve/steady';
import { CONDITIONS } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { demoDesigns } from '@/core/design/demo-designs';
import { niceDivision, shownTraces, stepDivision, valueAt, type Channel } from '@/places/scope/channel';
import { tracesCsv } from '@/places/scope/export';
import { readTrace } from '@/places/scope/read-trace';

const [clock, dome, , drum, tide] = demoDesigns();
const channel = (id: string, more: Partial<Channel> = {}): Channel => ({
  id,
  shown: true,
  perDivision: null,
  ac: false,
  probe: 1,
  ...more,
});

const onScreen = (channels: Channel[], traces: Trace[]) =>
  shownTraces(channels, { traces, stepS: 1e-3, perCycle: 4 }, IDEAL_INSTRUMENT, false);

describe('traces', () => {
  test('steady: two cycles that agree with the figures of the solution', () => {
    const { traces, perCycle, notes } = scopeTraces(dome!, { kind: 'steady' }, 'nominal');
    const reservoir = traces.find((t) => t.id === 'reservoir-v-0')!;
    const truth = solveSteady(networkOf(dome!, CONDITIONS.nominal)).rails[0]!;
    expect(reservoir.values).toHaveLength(2 * perCycle);
    expect(Math.max(...reservoir.values)).toBeCloseTo(truth.maxV, 2);
    expect(Math.min(...reservoir.values)).toBeCloseTo(truth.minV, 2);
    expect(notes.find((n) => n.label === 'ripple p-p')!.value).toBeCloseTo(truth.ripplePeakToPeakV, 4);
    expect(reservoir.values[7]).toBe(reservoir.values[perCycle + 7]);
  });

  test('a split supply has its negative rail below zero', () => {
    const { traces } = scopeTraces(drum!, { kind: 'steady' }, 'nominal');
    const minus = traces.find((t) => t.id === 'output-v-1')!;
    expect(minus.label).toBe('Output (−)');
    expect(Math.max(...minus.values)).toBeLessThan(-17.9);
  });

  test('the output keeps of the ripple what the rejection leaves', () => {
    const { traces } = scopeTraces(clock!, { kind: 'steady' }, 'nominal');
    const span = (id: string) => {
      const { values } = traces.find((t) => t.id === id)!;
      return Math.max(...values) - Math.min(...values);
    };
    expect(span('reservoir-v-0') / span('output-v-0')).toBeCloseTo(10 ** (56 / 20), -2);
  });

  test('a choke input shows its choke, and swings up when the load goes', () => {
    const { traces, notes } = scopeTraces(tide!, { kind: 'removal', remainShare: 0, cycles: 10 }, 'nominal');
    expect(traces.find((t) => t.id === 'choke-a-0')!.values.length).toBe(5000);
    const before = notes.find((n) => n.label === 'mean before')!.value;
    expect(notes.find((n) => n.label === 'highest after')!.value).toBeGreaterThan(1.1 * before);
  });

  test.each([
    { kind: 'start', phaseDeg: 90, cycles: 5 },
    { kind: 'step', fromShare: 0.2, toShare: 1, cycles: 5 },
    { kind: 'dip', missingCycles: 1, cycles: 5 },
  ] as const)('$kind covers its cycles from the first instant', (run) => {
    const { traces, perCycle } = scopeTraces(dome!, run, 'high');
    for (const t of traces) {
      expect(t.values.length % perCycle).toBe(0);
      expect(t.values.length).toBeGreaterThanOrEqual(5 * perCycle);
      expect(t.values.every(Number.isFinite)).toBe(true);
    }
  });

  test('any step, any remaining load and any gap is followed until it has settled', () => {
    for (const run of [
      { kind: 'step', fromShare: 0.05, toShare: 1.3, cycles: 3 },
      { kind: 'removal', remainShare: 0.3, cycles: 3 },
      { kind: 'dip', missingCycles: 2.35, cycles: 3 },
    ] as const) {
      const { traces, perCycle } = scopeTraces(dome!, run, 'nominal');
      const volts = traces.find((t) => t.id === 'reservoir-v-0')!.values;
      const mean = (cycle: number) =>
        volts.slice(volts.length - (cycle + 1) * perCycle, volts.length - cycle * perCycle).reduce((a, b) => a + b, 0) /
        perCycle;
      expect(Math.abs(mean(0) - mean(1))).toBeLessThan(0.006 * (Math.max(...volts) - Math.min(...volts)));
    }
  });

  test('a drifting mains ends where the steady state of that line is', () => {
    const { traces, perCycle, notes } = scopeTraces(clock!, { kind: 'drift', to: 'low', cycles: 40 }, 'nominal');
    const low = solveSteady(networkOf(clock!, { ...CONDITIONS.nominal, mains: 'low' })).rails[0]!.meanV;
    const high = solveSteady(networkOf(clock!, { ...CONDITIONS.nominal, mains: 'high' })).rails[0]!.meanV;
    expect(traces[0]!.values).toHaveLength(40 * perCycle);
    expect(notes.find((n) => n.label === 'mean before')!.value).toBeCloseTo(high, 3);
    expect(notes.find((n) => n.label === 'mean at the end')!.value).toBeCloseTo(low, 1);
  });

  test('a doubler is probed across both capacitors', () => {
    const doubled = applyPatch(dome!, { rectifier: { kind: 'doubler' }, demand: { outputA: 0.5 } });
    const { traces } = scopeTraces(doubled, { kind: 'steady' }, 'nominal');
    expect(Math.max(...traces.find((t) => t.id === 'input-v-0')!.values)).toBeGreaterThan(55);
    expect(traces.some((t) => t.id === 'reservoir-v-0')).toBe(false);
  });
});

test('harmonics of a made-up cycle come back one by one', () => {
  const cycle = Array.from({ length: 500 }, (_, k) => {
    const x = (2 * Math.PI * k) / 500;
    return 7 + 2 * Math.sin(2 * x) + 0.5 * Math.cos(4 * x + 1) + 0.01 * Math.sin(20 * x);
  });
  const lines = harmonics(cycle);
  expect(lines).toHaveLength(21);
  expect(lines[0]).toBeCloseTo(7, 9);
  expect(lines[2]).toBeCloseTo(2, 9);
  expect(lines[4]).toBeCloseTo(0.5, 9);
  expect(lines[20]).toBeCloseTo(0.01, 9);
  expect(lines[3]).toBeCloseTo(0, 9);
});

describe('a measured trace', () => {
  const stepS = 4e-5;
  const computed = Array.from({ length: 500 }, (_, k) => 20 + Math.abs(Math.sin((2 * Math.PI * k) / 500)));

  test('is found in time and level, while a wrong probe factor stays visible', () => {
    const t = Array.from({ length: 300 }, (_, k) => k * 1e-4);
    const values = t.map((x) => Math.abs(Math.sin(2 * Math.PI * 50 * (x + 3.1e-3))) - 2);
    const fit = layOver({ t, values }, computed, stepS, 500, 1);
    expect((fit.shiftS * 1e3) % 10).toBeCloseTo(3.1, 1);
    expect(fit.offset).toBeCloseTo(22, 2);
    expect(fit.rmsLeft).toBeLessThan(0.01);
    expect(layOver({ t, values: values.map((v) => v / 10) }, computed, stepS, 500, 1).rmsLeft).toBeGreaterThan(0.2);
  });

  test.each([
    [
      'commas and points',
      'time,volts\n0.001,1.5\n0.002,1.6\n0.003,1.7\n0.004,1.6\n0.005,1.5\n0.006,1\n0.007,1\n0.008,2\n',
    ],
    [
      'semicolons and decimal commas',
      '\uFEFFZeit;V\r\n0,001;1,5\r\n0,002;1,6\r\n0,003;1,7\r\n0,004;1,6\r\n0,005;1,5\r\n0,006;1\r\n0,007;1\r\n0,008;2\r\n',
    ],
    ['no heads, tabs', '0.001\t1.5\n0.002\t1.6\n0.003\t1.7\n0.004\t1.6\n0.005\t1.5\n0.006\t1\n0.007\t1\n0.008\t2'],
  ])('%s', (_, text) => {
    const read = readTrace(text);
    if (!read.ok) throw new Error(read.error);
    expect(read.trace.values.slice(0, 3)).toEqual([1.5, 1.6, 1.7]);
    expect(read.trace.t[0]).toBe(0);
    expect(read.trace.t[1]).toBeCloseTo(0.001, 12);
  });

  test.each([
    ['nothing', '', /two columns of numbers/],
    ['words only', 'a,b\nc,d\n', /two columns of numbers/],
    ['a hole', 'x,y\n0,1\n1,2\n2,\n3,4\n', /Row 4 has no time and value/],
    ['time that goes back', '0,1\n1,2\n0.5,3\n', /Row 3: the time does not go up/],
  ])('%s is refused with its row', (_, text, sentence) => {
    const read = readTrace(text);
    expect(read.ok ? '' : read.error).toMatch(sentence);
  });
});

describe('the instrument', () => {
  const stepS = 1e-5;
  const sine = (hz: number) => Array.from({ length: 20_000 }, (_, n) => Math.sin(2 * Math.PI * hz * n * stepS));
  const rms = (list: number[]) => Math.sqrt(list.reduce((sum, v) => sum + v * v, 0) / list.length);

  test.each([
    [100, 10],
    [1000, 2],
    [1000, 1],
  ])('a pole at %d Hz takes from a sine at %d times that what a pole takes', (bandwidthHz, ratio) => {
    const seen = throughInstrument(sine(ratio * bandwidthHz), stepS, { bandwidthHz, noiseRms: 0 }, 10_000, 1);
    expect(rms(seen) / rms(sine(ratio * bandwidthHz))).toBeCloseTo(1 / Math.hypot(1, ratio), 1);
  });

  test('direct volts pass any bandwidth unchanged', () => {
    const seen = throughInstrument([7, 7, 7, 7], stepS, { bandwidthHz: 100, noiseRms: 0 }, 0, 1);
    for (const v of seen) expect(v).toBeCloseTo(7, 12);
  });

  test('noise has the RMS it is given, no mean, and is the same each time', () => {
    const noise = (seed: number) =>
      throughInstrument(new Array<number>(20_000).fill(0), stepS, { bandwidthHz: null, noiseRms: 0.005 }, 0, seed);
    expect(rms(noise(1))).toBeCloseTo(0.005, 4);
    expect(Math.abs(noise(1).reduce((a, b) => a + b, 0) / 20_000)).toBeLessThan(2e-4);
    expect(noise(1)).toEqual(noise(1));
    expect(noise(2)).not.toEqual(noise(1));
  });

  test('in the spectrum noise stands at its line on the average', () => {
    const cycle = throughInstrument(new Array<number>(500).fill(0), stepS, { bandwidthHz: null, noiseRms: 1 }, 0, 3);
    const lines = harmonics(cycle, 200).slice(1);
    const mean = lines.reduce((a, b) => a + b, 0) / lines.length;
    expect(mean / noiseLine(1, 500)).toBeGreaterThan(0.85);
    expect(mean / noiseLine(1, 500)).toBeLessThan(1.15);
  });
});

describe('the screen', () => {
  const trace = { id: 'a', label: 'A, quoted "so"', unit: 'V' as const, values: [30, 31, 32, 31] };

  test('scales go 1, 2, 5 and back', () => {
    expect([0.03, 1, 1.2, 3, 7].map(niceDivision)).toEqual([0.05, 1, 2, 5, 10]);
    expect(stepDivision(2, 1)).toBe(5);
    expect(stepDivision(5, -1)).toBe(2);
    expect(stepDivision(1, -1)).toBeCloseTo(0.5, 12);
  });

  test('AC takes the mean away, a forgotten ×10 divides, and the middle follows the trace', () => {
    const [plain] = onScreen([channel('a')], [trace]);
    const [ac] = onScreen([channel('a', { ac: true })], [trace]);
    const [tenth] = onScreen([channel('a', { probe: 10 })], [trace]);
    expect(plain!.middle).toBeCloseTo(31, 0);
    expect(ac!.values.reduce((x, y) => x + y, 0)).toBeCloseTo(0, 9);
    expect(ac!.middle).toBe(0);
    expect(tenth!.values[0]).toBeCloseTo(3, 12);
  });

  test('no more than four at once', () => {
    const many = ['a', 'b', 'c', 'd', 'e'];
    const shown = onScreen(
      many.map((id) => channel(id)),
      many.map((id) => ({ ...trace, id })),
    );
    expect(shown.map((s) => s.place)).toEqual([0, 1, 2, 3]);
  });

  test('a cursor reads between samples and stops at the ends', () => {
    expect(valueAt(trace.values, 1, 0.5)).toBe(30.5);
    expect(valueAt(trace.values, 1, -4)).toBe(30);
    expect(valueAt(trace.values, 1, 99)).toBe(31);
  });

  test('CSV has a row a sample and keeps quotes apart', () => {
    const csv = tracesCsv(onScreen([channel('a')], [trace]), 0.001).split('\r\n');
    expect(csv[0]).toBe('time_s,"A, quoted ""so"" (V)"');
    expect(csv).toHaveLength(6);
    expect(csv[3]).toBe('0.002,32');
  });
});

test('a level trace is shown at a scale of its height, a rippling one at that of its ripple', () => {
  const shown = (values: number[]) =>
    shownTraces(
      [{ id: 'x', shown: true, perDivision: null, ac: false, probe: 1 }],
      { traces: [{ id: 'x', label: 'X', unit: 'V', values }], stepS: 1e-4, perCycle: values.length },
      { bandwidthHz: null, noiseRms: 0 },
      false,
    )[0]!;
  const level = shown(Array.from({ length: 50 }, () => 11.6));
  expect(level.perDivision).toBe(1);
  expect(Math.abs(level.middle - 11.6)).toBeLessThanOrEqual(4 * level.perDivision);
  const ripple = shown(Array.from({ length: 50 }, (_, n) => 11.6 + 0.001 * Math.sin(n)));
  expect(ripple.perDivision).toBeLessThan(0.001);
});
