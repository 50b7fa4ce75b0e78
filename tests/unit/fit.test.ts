import { readFileSync } from 'node:fs';
import path from 'node:path';
import { CaseError } from '@/core/circuit/case-file';
import type { Unknown } from '@/core/fit/belief';
import { fit } from '@/core/fit/fit';
import { foretell } from '@/core/fit/foretell';
import { fitFile, readFitFile } from '@/core/fit/fit-file';
import { posterior } from '@/core/fit/posterior';
import { SolveError } from '@/core/solve/solve-error';
import { dice, READ_SUPPLIES, simulatedReadings } from '../support/simulated';
import { unloaded, withNumbers } from '@/core/fit/case-model';
import { readCase } from '@/core/circuit/case-file';

const FILES = path.join(__dirname, '../fixtures/measure');
const load = (name: string) => JSON.parse(readFileSync(path.join(FILES, `${name}.json`), 'utf8'));

interface Answer {
  fitted: { path: string; value: number; relativeSigma: number; decidedBy: string }[];
  readings: { row: number; at: string; read: number; computed: number; sigmas: number }[];
  outliers: { row: number; at: string }[];
  predicted: { at: string; value: number; sigma: number }[];
  entangled: { paths: [string, string] }[];
}
const answered = (json: unknown) => fitFile(readFitFile(json)) as Answer;

describe('readings whose hidden values are known', () => {
  test.each(['fit-bridge-12v', 'fit-wrong-reading'])('%s', (name) => {
    const truth = load(`truth/${name}`) as {
      values: Record<string, number>;
      unseen: Record<string, number>;
      spoiled: number | null;
    };
    const answer = answered(load(name));
    const off = answer.fitted.map((f) => Math.log(f.value / truth.values[f.path]!) / f.relativeSigma);
    process.stdout.write(
      `\n${name}: fitted values off by ${off.map((z) => z.toFixed(2)).join(', ')} of their spreads\n`,
    );
    expect(Math.max(...off.map(Math.abs))).toBeLessThan(4);
    for (const p of answer.predicted) {
      const miss = Math.abs(p.value - truth.unseen[p.at]!);
      expect(miss).toBeLessThan(Math.max(0.004 * truth.unseen[p.at]!, 3.5 * p.sigma));
    }
    expect(answer.outliers.map((o) => o.row)).toEqual(truth.spoiled === null ? [] : [truth.spoiled]);
    expect(answer.fitted.map((f) => f.decidedBy)).toEqual(answer.fitted.map(() => 'readings'));
  });
});

describe('a straight line, where the answer can be worked out by hand', () => {
  // volts = open − ohm · amps with both believed to 10 %: in ln they are all but straight for small moves.
  const unknowns: Unknown[] = [
    { id: 'open', centre: 20, spread: 0.001 },
    { id: 'ohm', centre: 2, spread: 0.001 },
  ];
  const amps = [0, 1, 2];
  const predict = ([open, ohm]: readonly number[]) => amps.map((a) => open! - ohm! * a);

  test('the most probable values and their covariance are those of linear least squares with a prior', () => {
    const readings = [20.01, 18.03, 15.98].map((value) => ({ value, sigma: 0.02 }));
    const p = posterior(unknowns, readings, predict);
    // Normal equations in z: (1 + JᵀJ) z = Jᵀ(read − centre), J = ∂/∂z / sigma: 20·0.001 and −2·0.001·amps, over 0.02.
    const j = amps.map((a) => [1, -0.1 * a]);
    const d = [0.5, 1.5, -1];
    const a = 1 + j.reduce((s, r) => s + r[0]! ** 2, 0);
    const b = j.reduce((s, r) => s + r[0]! * r[1]!, 0);
    const c = 1 + j.reduce((s, r) => s + r[1]! ** 2, 0);
    const [u, v] = [0, 1].map((k) => j.reduce((s, r, n) => s + r[k]! * d[n]!, 0)) as [number, number];
    const det = a * c - b * b;
    expect(p.z[0]).toBeCloseTo((c * u - b * v) / det, 2);
    expect(p.z[1]).toBeCloseTo((a * v - b * u) / det, 2);
    expect(p.covariance[0]![0]).toBeCloseTo(c / det, 3);
    expect(p.covariance[0]![1]).toBeCloseTo(-b / det, 3);
    // What the search made least: the readings' squares and the beliefs' together.
    const misses = readings.map((r, n) => (predict(p.values)[n]! - r.value) / r.sigma);
    const believed = p.z[0]! ** 2 + p.z[1]! ** 2;
    expect(believed).toBeGreaterThan(0.05);
    expect(p.squares).toBeCloseTo(misses.reduce((s, m) => s + m * m, 0) + believed, 6);
  });

  test('what moves like what is known already is foretold with a third of the work, and as sure', () => {
    const p = posterior(unknowns, [{ value: 20.01, sigma: 0.02 }], ([open]) => [open!]);
    let asked = 0;
    const unread = ([open, ohm]: readonly number[]) => {
      asked++;
      return [open! - 3 * ohm!, open! - 4 * ohm!];
    };
    const own = foretell(unknowns, p, unread);
    expect(asked).toBe(3);
    // The same places of another supply, half a volt lower: its slopes are theirs.
    const known = { unknowns, computed: own.map((t) => t.value), slopes: own.map((t) => t.slopes) };
    asked = 0;
    const lower = foretell(unknowns, p, (v) => unread(v).map((volts) => volts - 0.5), { known, severities: 0 });
    expect(asked).toBe(1);
    lower.forEach((t, n) => {
      expect(t.value).toBeCloseTo(own[n]!.value - 0.5, 9);
      expect(t.sigma / own[n]!.sigma).toBeCloseTo(t.value / own[n]!.value, 6);
    });
    // What says how bad a fault is, is its own: it is asked for.
    asked = 0;
    const worse = [{ id: 'more', centre: 1, spread: 0.5 }, ...unknowns];
    const wider = posterior(worse, [], () => []);
    const faulty = foretell(worse, wider, ([more, ...rest]) => unread(rest).map((volts) => volts - more!), {
      known,
      severities: 1,
    });
    expect(asked).toBe(2);
    // Half of one more volt, beside next to nothing of the others.
    expect(faulty[0]!.sigma).toBeCloseTo(0.5, 1);
  });

  test('the evidence is the density of the readings with the beliefs integrated over', () => {
    // One reading, one unknown: read is normal around the centre with sigma² + slope².
    const one: Unknown[] = [{ id: 'v', centre: 10, spread: 0.002 }];
    const p = posterior(one, [{ value: 10.03, sigma: 0.015 }], (v) => [v[0]!]);
    const width = Math.hypot(0.015, 0.02);
    expect(p.logEvidence).toBeCloseTo(-0.5 * (0.03 / width) ** 2 - Math.log(width * Math.sqrt(2 * Math.PI)), 2);
  });

  test('a model without an answer where the search strays is walked around', () => {
    const p = posterior([{ id: 'v', centre: 10, spread: 0.5 }], [{ value: 12, sigma: 0.01 }], ([v]) => {
      if (v! > 12.5) throw new SolveError('too much');
      return [v!];
    });
    expect(p.values[0]).toBeCloseTo(12, 1);
  });

  test('with nothing read what was believed stays, and is said to decide', () => {
    const found = fit(unknowns, [], () => []);
    expect(found.fitted.map((f) => [f.value, f.relativeSigma, f.decidedBy])).toEqual([
      [20, 0.001, 'belief'],
      [2, 0.001, 'belief'],
    ]);
  });

  test('what cannot be told apart is named: only their sum is read', () => {
    const wide = unknowns.map((u) => ({ ...u, centre: 1, spread: 0.3 }));
    const found = fit(wide, [{ value: 2, sigma: 0.001 }], ([a, b]) => [a! + b!]);
    expect(found.entangled.map((e) => e.ids)).toEqual([['open', 'ohm']]);
    expect(found.entangled[0]!.correlation).toBeLessThan(-0.95);
    expect(found.fitted.map((f) => f.decidedBy)).toEqual(['belief', 'belief']);
  });

  test('a reading is called wrong four spreads from all others, not three, and never where two others remain', () => {
    const free: Unknown[] = [{ id: 'v', centre: 10, spread: 0.5 }];
    const five = (off: number) => [0, 0, 0, 0, off].map((d) => ({ value: 10 + 0.1 * d, sigma: 0.1 }));
    const same = ([v]: readonly number[]) => [v!, v!, v!, v!, v!];
    // Against the mean of four others a reading off by d spreads lets the sum of squares fall by d² · 4/5.
    expect(fit(free, five(4.4), same).outliers).toEqual([]);
    expect(fit(free, five(4.6), same).outliers).toEqual([4]);
    const two = [0, 30].map((d) => ({ value: 10 + 0.1 * d, sigma: 0.1 }));
    expect(fit(free, two, ([v]) => [v!, v!]).outliers).toEqual([]);
  });
});

test('spreads are honest: of 500 simulated fits 60 to 76 % lie within one of them', () => {
  const [circuit, most] = READ_SUPPLIES.bridge;
  const nominal = unloaded(readCase(circuit).network);
  const paths = ['source.voltageRms', 'source.resistanceOhm'];
  const beliefs = [0.03, 0.3];
  const roll = dice(11);
  let within = 0;
  for (let n = 0; n < 250; n++) {
    const hidden = [13.2, 0.7].map((v, k) => v * Math.exp(beliefs[k]! * roll.normal()));
    const file = simulatedReadings(circuit, withNumbers(nominal, paths, hidden), [most / 4, most], roll);
    const { fitted } = answered({
      ...file,
      fit: paths.map((p, k) => ({ path: p, relativeSigma: beliefs[k] })),
    });
    fitted.forEach((f, k) => (within += Math.abs(Math.log(f.value / hidden[k]!)) < f.relativeSigma ? 1 : 0));
  }
  expect(within / 500).toBeGreaterThan(0.6);
  expect(within / 500).toBeLessThan(0.76);
});

test('of simulated supplies the one row that was typed wrongly is named, and no other', () => {
  const [circuit, most] = READ_SUPPLIES['split bridge'];
  const nominal = unloaded(readCase(circuit).network);
  const roll = dice(5);
  for (let n = 0; n < 12; n++) {
    const hidden = [20 * Math.exp(0.03 * roll.normal()), 1.2 * Math.exp(0.3 * roll.normal())];
    const real = withNumbers(nominal, ['source.voltageRms', 'source.resistanceOhm'], hidden);
    const file = simulatedReadings(
      circuit,
      real,
      [0.05, 0.3, 0.6, 1].map((s) => s * most),
      roll,
    );
    const row = n % 4;
    if (n < 8) file.readings[row]!.read.find((r) => r.at === 'rails.0.meanV')!.value *= n % 2 ? 1.25 : 0.8;
    const { outliers } = answered({
      ...file,
      fit: [
        { path: 'source.voltageRms', relativeSigma: 0.03 },
        { path: 'source.resistanceOhm', relativeSigma: 0.3 },
        { path: 'rails[0].filter[0].capacitanceF', relativeSigma: 0.1 },
        { path: 'rails[1].filter[0].capacitanceF', relativeSigma: 0.1 },
      ],
    });
    expect([n, outliers.map((o) => o.row)]).toEqual([n, n < 8 ? [row] : []]);
  }
});

describe('a file that cannot be read says where and why', () => {
  const good = () => load('fit-bridge-12v');
  /** The file with one value put where a path leads. */
  const spoilt = (at: string, value: unknown): Record<string, unknown> => {
    const file = good();
    const words = at.split('.');
    const key = words.pop()!;
    words.reduce((holder, w) => holder[w], file)[key] = value;
    return file;
  };
  const amps = { kind: 'current', currentA: 0.1 };
  test.each<[string, string, unknown, RegExp]>([
    ['a spread of nothing', 'fit.0.relativeSigma', 0, /^fit\[0\]\.relativeSigma: .*more than 0/],
    ['an unknown path', 'fit.1.path', 'source.colour', /^fit\[1\]\.path: the circuit has no number at source\.colour/],
    ['a path twice', 'fit.1.path', 'source.voltageRms', /^fit\[1\]\.path: source\.voltageRms is listed twice/],
    ['a value of nothing', 'fit.1.path', 'source.flatTop', /^fit\[1\]\.path: .*above 0/],
    ['a load', 'fit.1.path', 'rails.0.load.0.currentA', /^fit\[1\]\.path: the circuit has no number/],
    [
      'a place no result has',
      'readings.2.read.1.at',
      'rails.1.meanV',
      /^readings\[2\]\.read\[1\]\.at: a result has no/,
    ],
    ['a place asked for', 'predict.0.at.1', 'rails.0', /^predict\[0\]\.at\[1\]: a result has no number/],
    ['a sigma of nothing', 'readings.0.read.0.sigma', 0, /^readings\[0\]\.read\[0\]\.sigma: .*more than 0/],
    ['a value of text', 'readings.0.read.0.value', '17 V', /^readings\[0\]\.read\[0\]\.value: .*plain number/],
    ['two loads', 'readings.1.loads', [amps, amps], /^readings\[1\]\.loads: it holds 2, the circuit has one rail/],
    ['a load that is none', 'readings.1.loads.0', { kind: 'lamp' }, /^readings\[1\]\.loads\[0\]\.kind: .*not a load/],
    ['an empty rail', 'readings.1.loads.0', [], /^readings\[1\]\.loads\[0\]: it is empty/],
    ['a bad circuit', 'circuit.rectifier.kind', 'ring', /^circuit\.rectifier\.kind: it is ring/],
    ['a run', 'circuit.run', { kind: 'start', cycles: 3 }, /^circuit\.run: readings are of a steady state/],
    ['mains of nothing', 'readings.3.mainsV', 0, /^readings\[3\]\.mainsV: .*more than 0/],
    ['a misspelt key', 'refrenceMainsV', 230, /^refrenceMainsV: no case has such a key/],
  ])('%s', (_, at, value, sentence) => {
    const read = () => readFitFile(spoilt(at, value));
    expect(read).toThrow(CaseError);
    expect(read).toThrow(sentence);
  });
  test.each([null, [], 'text'])('%j is no file', (json) => expect(() => readFitFile(json)).toThrow(/JSON object/));
  test('a rail may carry several loads at once, as a list', () => {
    const file = good();
    file.readings[1].loads[0] = [
      { kind: 'current', currentA: 0.06 },
      { kind: 'current', currentA: 0.04 },
    ];
    expect(answered(file).fitted[0]!.value).toBeCloseTo(answered(good()).fitted[0]!.value, 6);
  });
});
