import { withWindingVolts } from '@/core/design/winding-edit';
import { judgeReading, latestReadings, mainsForReadings, mainsToday } from '@/core/bench/readings';
import { testPoints } from '@/core/bench/test-points';
import { applyPatch } from '@/core/design/design';
import { pictureOf } from '@/core/judge/picture';
import { report } from '@/core/sheet/report';
import { networkOf } from '@/core/circuit/network-of';
import { CONDITIONS } from '@/core/circuit/condition';
import { solveSteady } from '@/core/solve/steady';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, dome] = demoDesigns() as [ReturnType<typeof demoDesigns>[number], ReturnType<typeof demoDesigns>[number]];
const points = testPoints(clock, () => 230);
const point = (id: string, list = points) => list.find((p) => p.id === id)!;

test('points come in the order of a staged power-up', () => {
  expect(points.map((p) => p.id)).toEqual([
    'mains',
    'secondary-open',
    'reservoir-idle',
    'output-idle',
    'reservoir-light',
    'output-light',
    'reservoir-loaded',
    'reservoir-ripple',
    'ripple-meter',
    'output-loaded',
    'load-current',
    'sink-warm',
  ]);
  expect(testPoints(dome, () => 230).map((p) => p.id)).not.toContain('output-idle');
});

test('the expected value lies inside its window, and a build off in every part by its spread still does', () => {
  for (const p of points) {
    expect(p.low).toBeLessThan(p.expected.value);
    expect(p.high).toBeGreaterThan(p.expected.value);
  }
  const off = solveSteady(
    networkOf(clock, CONDITIONS.nominal, {
      mainsV: 230,
      openCircuitFactor: 0.975,
      resistanceFactor: 1.15,
      capacitanceFactor: 0.85,
      diodeSaturationFactor: 0.5,
    }),
  );
  expect(judgeReading(point('reservoir-loaded'), off.rails[0]!.meanV).state).toBe('as expected');
  expect(judgeReading(point('reservoir-ripple'), off.rails[0]!.ripplePeakToPeakV).state).toBe('as expected');
});

test('windows follow the mains volts read that day', () => {
  const low = testPoints(clock, () => 207);
  expect(point('secondary-open', low).expected.value / point('secondary-open').expected.value).toBeCloseTo(0.9, 6);
  expect(point('reservoir-idle', low).expected.value).toBeLessThan(point('reservoir-idle').expected.value * 0.92);
});

test('a worse meter widens them', () => {
  const worse = testPoints(applyPatch(clock, { bench: { meterPct: 3 } }), () => 230);
  for (const id of ['secondary-open', 'reservoir-idle', 'output-idle'])
    expect(point(id, worse).high).toBeGreaterThan(point(id).high);
});

test('a reading outside is judged at once, with what to look for; half the volts is not all right', () => {
  const p = point('reservoir-idle');
  expect(judgeReading(p, p.expected.value)).toEqual({ state: 'as expected', offBy: 0, hint: '' });
  const low = judgeReading(p, p.low - 1);
  expect(low.state).toBe('too low');
  expect(low.offBy).toBeCloseTo(-1, 9);
  expect(low.hint).toMatch(/diode/);
  expect(judgeReading(p, p.high + 2).state).toBe('too high');
});

test('mains steps, charged reservoirs and hot metal carry their caution', () => {
  expect(point('mains').caution).toMatch(/one hand, never alone/);
  expect(point('secondary-open').caution).toMatch(/Fuse/);
  const high = testPoints(applyPatch(dome, withWindingVolts(dome, 60)), () => 230);
  expect(high.find((p) => p.id === 'reservoir-idle')!.caution).toMatch(/Discharge through a resistor/);
});

test('the newest reading counts, and remembers the mains of its hour', () => {
  const reading = (pointId: string, value: number, at: string, mainsV = 230) => ({
    point: pointId,
    value,
    mainsV,
    fedFrom: 'mains' as const,
    at,
  });
  const d = applyPatch(clock, {
    bench: {
      readings: [
        reading('mains', 221, '2026-03-01T20:00:00Z', 221),
        reading('reservoir-idle', 35, '2026-03-01T20:05:00Z', 221),
        reading('mains', 236, '2026-03-02T20:00:00Z', 236),
      ],
    },
  });
  expect(latestReadings(d.bench.readings).get('mains')!.value).toBe(236);
  expect(mainsToday(d)).toBe(236);
  expect(mainsForReadings(d)('reservoir-idle')).toBe(221);
  expect(mainsForReadings(d)('output-loaded')).toBe(236);
});

test('the sheet carries plate, parts, every margin, readings and cautions', () => {
  const d = applyPatch(clock, {
    bench: {
      readings: [
        { point: 'output-idle', value: 24.05, mainsV: 230, fedFrom: 'mains' as const, at: '2026-03-01T20:00:00Z' },
      ],
    },
  });
  const { picture } = pictureOf(d);
  const sheet = report(picture, testPoints(d, mainsForReadings(d)));
  expect(sheet.plate[0]).toEqual(['Input', '230 V 50 Hz, 207 V to 253 V']);
  expect(sheet.parts.slice(0, 4).map((p) => p.station)).toEqual(['Transformer', 'Rectifier', 'Reservoir', 'Regulator']);
  expect(sheet.parts.slice(4).every((p) => p.station === 'Small parts')).toBe(true);
  expect(sheet.parts.map((p) => p.detail).join()).toMatch(/330 nF|0\.33 µF/);
  expect(sheet.margins.length).toBe(picture.verdicts.length);
  expect(sheet.readings.find((r) => r.label === 'Output, no load')).toMatchObject({ judged: 'as expected' });
  expect(sheet.cautions.join(' ')).toMatch(/licensed electrician/);
  expect(sheet.cautions[0]).toMatch(/Hazardous voltage/);
});
