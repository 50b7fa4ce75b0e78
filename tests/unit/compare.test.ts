import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readCase } from '@/core/circuit/case-file';
import { resultFile, solveRun } from '@/core/solve/solve-run';
import { compareResults } from '@/core/solve/compare';

type Json = Record<string, unknown>;
const FIXTURES = path.join(__dirname, '../fixtures/cases');
const load = (file: string) => JSON.parse(readFileSync(path.join(FIXTURES, file), 'utf8')) as Json;
const reference = load('results/01-bridge-12v-500ma.json');
const copy = () =>
  JSON.parse(JSON.stringify(reference)) as Json & {
    rails: Record<string, number>[];
    windings: Record<string, number>[];
    diodes: Record<string, number>[];
  };

describe('comparing with a trusted result', () => {
  test('a result agrees with itself', () => {
    const rows = compareResults(reference, copy());
    expect(rows.length).toBeGreaterThan(30);
    expect(rows[0]!.relative).toBe(0);
  });

  test('the worst field comes first, with its place', () => {
    const changed = copy();
    changed.rails[0]!['meanV']! *= 1.01;
    changed.diodes[2]!['rmsA']! *= 1.05;
    const [first, second] = compareResults(reference, changed);
    expect(first!.path).toBe('diodes.2.rmsA');
    expect(first!.relative).toBeCloseTo(0.05, 9);
    expect(second!.path).toBe('rails.0.meanV');
  });

  test('a missing figure, or one that is no number, is infinitely off', () => {
    const changed = copy();
    delete changed.windings[0]!['rmsA'];
    expect(compareResults(reference, changed)[0]).toMatchObject({
      path: 'windings.0.rmsA',
      candidate: null,
      relative: Infinity,
    });
    changed.windings[0]!['rmsA'] = NaN;
    expect(compareResults(reference, changed)[0]!.relative).toBe(Infinity);
  });

  test('means that vanish by symmetry are not compared', () => {
    const changed = copy();
    changed.windings[0]!['meanA'] = 1;
    expect(compareResults(reference, changed)[0]!.relative).toBe(0);
  });

  test('figures declared soft are not compared', () => {
    const soft = load('results/50-open-diode-bridge.json') as ReturnType<typeof copy>;
    const changed = JSON.parse(JSON.stringify(soft)) as ReturnType<typeof copy>;
    changed.diodes[0]!['peakReverseV']! *= 2;
    expect(compareResults(soft, changed)[0]!.relative).toBe(0);
  });
});

describe('a result file', () => {
  const { network, run } = readCase(load('06-centretap-25v-2a.json'));
  const result = resultFile(solveRun(network, run)) as Json & { rails: unknown[]; elements: unknown[][]; meta: Json };

  test('has every field the trusted one has', () => {
    const trusted = load('results/06-centretap-25v-2a.json');
    const keys = (value: unknown): string[] =>
      Object.entries(value as Json).flatMap(([key, v]) =>
        typeof v === 'object' && v !== null ? keys(v).map((k) => `${key}.${k}`) : [key],
      );
    const mine = new Set(keys(result));
    const wanted = keys(trusted).filter((k) => !k.startsWith('meta'));
    expect(wanted.filter((k) => !mine.has(k))).toEqual([]);
  });

  test('keeps its diagnostics under meta, the energy balance among them', () => {
    expect(Object.keys(result)).not.toContain('effort');
    expect(Object.keys(result)).not.toContain('initialV');
    expect(result.meta).toMatchObject({
      energyBalance: { relativeError: expect.any(Number) },
      passes: expect.any(Number),
    });
    expect(result.rails).toHaveLength(1);
    expect(result.elements).toHaveLength(1);
  });

  test('a start run tells of the surge besides', () => {
    const start = resultFile(solveRun(network, { kind: 'start', cycles: 3, switchOnPhaseDeg: 90 })) as {
      start: { peakDiodeA: number; i2tDiode: number; timeTo90PercentS: number };
    };
    expect(start.start.peakDiodeA).toBeGreaterThan(20);
    expect(start.start.i2tDiode).toBeGreaterThan(0);
    expect(start.start.timeTo90PercentS).toBeGreaterThan(0);
    expect(start.start.timeTo90PercentS).toBeLessThan(3 / 60);
  });
});
