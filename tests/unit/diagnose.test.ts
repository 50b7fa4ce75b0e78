import { readFileSync } from 'node:fs';
import path from 'node:path';
import { diagnoseFile } from '@/core/fit/diagnose-file';
import { readReadingsFile } from '@/core/fit/fit-file';
import { expectedGain } from '@/core/fit/gain';
import type { CaseFault } from '@/core/fit/case-faults';
import { dice, READ_SUPPLIES, simulatedBuild, simulatedReadings } from '../support/simulated';

const FILES = path.join(__dirname, '../fixtures/measure');
const load = (name: string) => JSON.parse(readFileSync(path.join(FILES, `${name}.json`), 'utf8'));

interface Answer {
  faults: {
    fault: string;
    part: string;
    probability: number;
    explains: { row: number; at: string }[];
    fails: { row: number; at: string }[];
  }[];
  next: { at: string; loads: unknown[]; gain: number }[];
}
const answered = (json: unknown) => diagnoseFile(readReadingsFile(json)) as Answer;

test.each(['fault-00', 'fault-04', 'fault-06', 'fault-09'])('%s: what is truly wrong comes first', (name) => {
  const { faults } = answered(load(name));
  expect(faults[0]!.fault).toBe((load(`truth/${name}`) as { fault: string }).fault);
  expect(faults.reduce((sum, f) => sum + f.probability, 0)).toBeCloseTo(1, 6);
  expect(faults.map((f) => f.fault)).toEqual(
    expect.arrayContaining(['none', 'diode-open', 'diode-short', 'reservoir-dry', 'reservoir-open', 'source-weak']),
  );
  expect(faults.map((f) => f.fault)).toEqual(
    expect.arrayContaining(['source-low', 'source-high', 'extra-load', 'other']),
  );
});

test('the dried reservoir of the minus rail is told from that of the plus rail', () => {
  expect(answered(load('fault-09')).faults[0]!.part).toBe('rails.1.filter.0');
});

const BUILDS: readonly [keyof typeof READ_SUPPLIES, CaseFault['fault']][] = [
  ['bridge', 'none'],
  ['bridge', 'diode-open'],
  ['bridge', 'diode-short'],
  ['bridge', 'reservoir-dry'],
  ['bridge', 'source-high'],
  ['bridge', 'extra-load'],
  ['centre tap', 'diode-short'],
  ['centre tap', 'source-low'],
  ['split bridge', 'diode-open'],
  ['split bridge', 'reservoir-dry'],
];

test('of simulated builds the true fault is first in nine of ten, and always among the first two', () => {
  const ranks: [string, number][] = [];
  BUILDS.forEach(([name, fault], n) => {
    const [circuit, most] = READ_SUPPLIES[name];
    const roll = dice(n);
    const { real } = simulatedBuild(circuit, fault, most, roll);
    const { faults } = answered(simulatedReadings(circuit, real, [most / 100, most], roll));
    ranks.push([`${name}, ${fault}`, faults.findIndex((x) => x.fault === fault)]);
  });
  expect(ranks.filter(([, rank]) => rank > 1)).toEqual([]);
  expect(ranks.filter(([, rank]) => rank === 0).length).toBeGreaterThanOrEqual(0.9 * ranks.length);
});

test('readings that nothing explains are said to be so', () => {
  const file = load('fault-04');
  file.readings[1].read[0].value = 30;
  file.readings[0].read[1].value = 3;
  const [first] = answered(file).faults;
  expect(first!.fault).toBe('other');
});

test('what a fault does not explain is listed with it', () => {
  const { faults } = answered(load('fault-06'));
  const none = faults.find((f) => f.fault === 'none')!;
  const low = faults[0]!;
  expect(low.fails).toEqual([]);
  expect(low.explains).toHaveLength(4);
  expect(none.probability).toBeLessThan(1e-3);
});

test('the next reading is one that was not taken, and teaches most', () => {
  const file = load('fault-04');
  file.readings = file.readings.slice(0, 1);
  const { next } = answered(file);
  expect(next.length).toBeGreaterThan(0);
  expect(next.map((n) => n.gain)).toEqual(next.map((n) => n.gain).sort((a, b) => b - a));
  expect(next.map((n) => n.at)).not.toContain('source.rms');
});

describe('what a reading teaches', () => {
  test('two certain alternatives far apart are one bit, alike they are none', () => {
    const two = (apart: number) => [
      { probability: 0.5, mean: 0, sigma: 1 },
      { probability: 0.5, mean: apart, sigma: 1 },
    ];
    expect(expectedGain(two(40))).toBeCloseTo(1, 6);
    expect(expectedGain(two(0))).toBeCloseTo(0, 9);
    // Numerically integrated elsewhere: two normals two sigmas apart share 0.4859 bit.
    expect(expectedGain(two(2))).toBeCloseTo(0.486, 1);
  });
});
