import fc from 'fast-check';
import { fuzz, fuzzCase } from '@/cli/fuzz';
import { SolveError } from '@/core/solve/solve-error';
import { solveSteady } from '@/core/solve/steady';
import { solveDip } from '@/core/solve/dip';
import { solveChange, solveDrift, solveStart } from '@/core/solve/transient';
import { amps, circuit, farad, henry, ohms } from './circuits';

const supply = (a: number, c = 2200e-6) => circuit('bridge', { rails: [{ filter: [farad(c)], load: amps(a) }] });

describe('a load that changes', () => {
  test('steps from one steady state into the other', () => {
    const s = solveChange(supply(0.1), supply(1), 30);
    expect(s.step!.beforeMeanV).toBeCloseTo(solveSteady(supply(0.1)).rails[0]!.meanV, 4);
    expect(s.rails[0]!.meanV / solveSteady(supply(1)).rails[0]!.meanV).toBeCloseTo(1, 3);
    expect(s.step!.minV).toBeLessThan(s.step!.beforeMinV);
  });

  test('taken away, a choke input swings above where it settles', () => {
    const choke = (load: number) =>
      circuit('bridge', { volts: 100, rails: [{ filter: [henry(2, 5), farad(47e-6)], load: ohms(load) }] });
    const s = solveChange(choke(300), choke(1e5), 12);
    expect(s.step!.maxV).toBeGreaterThan(1.3 * s.step!.beforeMeanV);
  });

  test('a network with other parts is no change of load', () => {
    const other = circuit('bridge', { rails: [{ filter: [farad(1e-3), henry(0.1), farad(1e-3)], load: amps(0.1) }] });
    expect(() => solveChange(supply(0.1), other, 2)).toThrow(SolveError);
  });
});

describe('mains that drifts', () => {
  const scaled = (factor: number) =>
    circuit('bridge', { volts: 15 * factor, rails: [{ filter: [farad(2200e-6)], load: amps(0.5) }] });

  test.each([0.85, 1.12])('to %d times its height: ends in the steady state of that height', (toFactor) => {
    const s = solveDrift(supply(0.5), { toFactor, cycles: 30 });
    expect(s.step!.beforeMeanV).toBeCloseTo(solveSteady(supply(0.5)).rails[0]!.meanV, 3);
    expect(s.rails[0]!.meanV / solveSteady(scaled(toFactor)).rails[0]!.meanV).toBeCloseTo(1, 3);
  });

  test('on the way it passes nothing higher or lower than its ends', () => {
    const s = solveDrift(supply(0.5), { toFactor: 0.85, cycles: 30 });
    expect(s.step!.maxV).toBeLessThan(solveSteady(supply(0.5)).rails[0]!.maxV + 0.01);
    expect(s.step!.minV).toBeGreaterThan(solveSteady(scaled(0.85)).rails[0]!.minV - 0.01);
  });
});

describe('circuits solved one after another', () => {
  test('leave nothing of themselves behind in the next', () => {
    const one = supply(0.5);
    const other = supply(1.4, 470e-6);
    const alone = JSON.stringify(solveSteady(one).rails);
    solveSteady(other);
    solveStart(other, 3, 90);
    expect(JSON.stringify(solveSteady(one).rails)).toBe(alone);
  });

  test('nor when one of them had no solution', () => {
    const alone = solveSteady(supply(0.5)).rails[0]!.meanV;
    const impossible = circuit('bridge', {
      rails: [{ filter: [], load: [{ kind: 'power', powerW: 4e5, minV: 0.01 }] }],
    });
    expect(() => solveSteady(impossible)).toThrow(SolveError);
    expect(solveSteady(supply(0.5)).rails[0]!.meanV).toBe(alone);
  });
});

describe('mains missing', () => {
  test('falls by the charge the load takes, and comes back with a pulse', () => {
    const s = solveDip(supply(0.5), { missingCycles: 1, cycles: 8, atCycle: 1 });
    const expected = s.dip!.beforeMinV - (0.5 * 0.02) / 2200e-6;
    expect(s.dip!.minV).toBeGreaterThan(expected - 0.5);
    expect(s.dip!.minV).toBeLessThan(s.dip!.beforeMinV - 3.5);
    expect(s.dip!.peakDiodeA).toBeGreaterThan(solveSteady(supply(0.5)).diodes[0]!.peakA * 1.5);
    expect(s.dip!.timeToMinS).toBeGreaterThan(0.02);
    expect(s.dip!.recoveredWithinS).toBeLessThan(0.1);
  });

  test.each([
    ['halves that mirror', supply(0.5)],
    [
      'a choke',
      circuit('bridge', { volts: 30, rails: [{ filter: [henry(0.2, 1), farad(2200e-6)], load: amps(0.5) }] }),
    ],
  ])('from a steady state that is known it goes as from one that is looked for: %s', (_, network) => {
    const dip = { missingCycles: 0.5, cycles: 2, atCycle: 0 };
    const [known, found] = [solveDip(network, dip, { standing: solveSteady(network) }), solveDip(network, dip)];
    for (const key of ['beforeMinV', 'minV', 'maxV', 'peakDiodeA'] as const)
      expect(known.dip![key] / found.dip![key]).toBeCloseTo(1, 3);
  });

  test('a load taken away from a steady state that is known likewise', () => {
    const standing = solveSteady(supply(0.5));
    const known = solveChange(supply(0.5), supply(0.1), 3, { standing });
    expect(known.step!.beforeMeanV).toBe(standing.rails[0]!.meanV);
    expect(known.step!.maxV / solveChange(supply(0.5), supply(0.1), 3).step!.maxV).toBeCloseTo(1, 4);
  });

  test('a longer dip never ends higher', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 1.5, noNaN: true }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        (missing, more) => {
          const low = (missingCycles: number) =>
            solveDip(supply(0.3), { missingCycles, cycles: 4, atCycle: 0 }).dip!.minV;
          expect(low(missing + more)).toBeLessThanOrEqual(low(missing) + 1e-3);
        },
      ),
      { numRuns: 12 },
    );
  });

  test('a dip too long to recover from within the run says so', () => {
    expect(solveDip(supply(0.5), { missingCycles: 2, cycles: 3, atCycle: 0 }).dip!.recoveredWithinS).toBeNull();
  });
});

describe('switch-on', () => {
  test('a cold lamp draws its surge only at first', () => {
    const lamp = (factor: number) =>
      circuit('bridge', {
        rails: [
          {
            filter: [farad(1000e-6)],
            load: [{ kind: 'resistance', resistanceOhm: 30, ...(factor > 1 ? { surge: { factor, tauS: 0.05 } } : {}) }],
          },
        ],
      });
    const cold = solveStart(lamp(8), 30, 0, { samples: 100 });
    const warm = solveStart(lamp(1), 30, 0, { samples: 100 });
    const early = (s: typeof cold) => Math.min(...s.waveforms!.railV[0]!.slice(100, 200));
    expect(early(cold)).toBeLessThan(0.7 * early(warm));
    expect(cold.rails[0]!.meanV / warm.rails[0]!.meanV).toBeCloseTo(1, 2);
  });

  test('waveforms run from the first instant to the last, the same number in every cycle', () => {
    const { waveforms } = solveStart(supply(0.2), 3, 90, { samples: 200 });
    expect(waveforms!.t).toHaveLength(600);
    expect(waveforms!.t[599]).toBeCloseTo(0.06 - 0.0001, 9);
    expect(waveforms!.railV[0]![0]).toBeLessThan(waveforms!.railV[0]![599]!);
  });

  test('the source is its sine at every sample, and nothing while the mains is away', () => {
    const { waveforms } = solveDip(supply(0.5), { missingCycles: 0.75, cycles: 3, atCycle: 1 }, { samples: 40 });
    const peak = Math.max(...waveforms!.sourceV);
    const expected = (n: number) => (n >= 40 && n < 70 ? 0 : peak * Math.sin((2 * Math.PI * n) / 40));
    waveforms!.sourceV.forEach((v, n) => expect(v).toBeCloseTo(expected(n), 9));
  });

  test('can be stopped between two cycles', () => {
    let seen = 0;
    expect(() => solveStart(supply(0.2), 50, 0, { onCycle: () => ++seen === 4 })).toThrow('stopped');
    expect(seen).toBe(4);
  });
});

test('random circuits, plausible and absurd, are solved in balance or refused with a sentence', () => {
  const counts = fuzz(150);
  expect(counts).toMatchObject({ crashed: 0, notFinite: 0, unbalanced: 0 });
  expect(counts.solved).toBeGreaterThan(90);
  expect(fuzzCase(7)).toEqual(fuzzCase(7));
});
