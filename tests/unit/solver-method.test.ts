import fc from 'fast-check';
import { A, B, C, D, GAMMA, STAGES } from '@/core/solve/esdirk';
import { loadLaw } from '@/core/circuit/load-law';
import { wrightOmega } from '@/core/solve/wright-omega';

describe('the integration method', () => {
  const row = (s: number) =>
    Array.from({ length: STAGES }, (_, j) => (j < s ? A[s]![j]! : j === s && s > 0 ? GAMMA : 0));
  const sum = (f: (s: number) => number) => Array.from({ length: STAGES }, (_, s) => f(s)).reduce((a, b) => a + b, 0);
  const inner = (s: number, v: (j: number) => number) => row(s).reduce((total, a, j) => total + a * v(j), 0);

  test('every stage stands where its row says', () => {
    for (let s = 0; s < STAGES; s++) expect(inner(s, () => 1)).toBeCloseTo(C[s]!, 12);
  });

  test('satisfies the eight conditions of order 4', () => {
    const b = (s: number) => B[s]!;
    const c = (s: number) => C[s]!;
    expect(sum((s) => b(s))).toBeCloseTo(1, 12);
    expect(sum((s) => b(s) * c(s))).toBeCloseTo(1 / 2, 12);
    expect(sum((s) => b(s) * c(s) ** 2)).toBeCloseTo(1 / 3, 12);
    expect(sum((s) => b(s) * inner(s, c))).toBeCloseTo(1 / 6, 12);
    expect(sum((s) => b(s) * c(s) ** 3)).toBeCloseTo(1 / 4, 12);
    expect(sum((s) => b(s) * c(s) * inner(s, c))).toBeCloseTo(1 / 8, 12);
    expect(sum((s) => b(s) * inner(s, (j) => c(j) ** 2))).toBeCloseTo(1 / 12, 12);
    expect(sum((s) => b(s) * inner(s, (j) => inner(j, c)))).toBeCloseTo(1 / 24, 12);
  });

  test('the estimate is of order 3: its weights see nothing up to quadratics', () => {
    for (const power of [0, 1, 2]) expect(sum((s) => D[s]! * C[s]! ** power)).toBeCloseTo(0, 12);
    expect(Math.abs(sum((s) => D[s]! * C[s]! ** 3))).toBeGreaterThan(1e-4);
  });

  test('the last stage is the step (stiffly accurate)', () => {
    expect(row(STAGES - 1)).toEqual([...B]);
  });
});

test('omega plus its logarithm gives the argument back, from deep blocking to hard conduction', () => {
  fc.assert(
    fc.property(fc.double({ min: -30, max: 1e4, noNaN: true }), (z) => {
      const w = wrightOmega(z);
      expect(Math.abs(w + Math.log(w) - z)).toBeLessThan(1e-9 * Math.max(1, Math.abs(z)));
    }),
    { numRuns: 2000 },
  );
  expect(wrightOmega(-800)).toBe(0);
  expect(wrightOmega(1)).toBeCloseTo(1, 12);
});

describe('load law', () => {
  test('a regulator draws its current in regulation, less in dropout, its own last of all', () => {
    const law = loadLaw([{ kind: 'regulator', outputV: 12, dropoutV: 2, currentA: 1, quiescentA: 0.005 }]);
    expect(law.current(20, Infinity)).toBeCloseTo(1.005, 12);
    expect(law.current(8, Infinity)).toBeCloseTo(0.505, 12);
    expect(law.current(1, Infinity)).toBeCloseTo(0.005, 12);
    expect(law.current(0.25, Infinity)).toBeCloseTo(0.0025, 12);
  });

  test('parallel loads add, in any order', () => {
    const loads = [
      { kind: 'resistance', resistanceOhm: 100 },
      { kind: 'current', currentA: 0.3 },
      { kind: 'regulator', outputV: 5, dropoutV: 2, currentA: 0.2, quiescentA: 0 },
    ] as const;
    const forward = loadLaw(loads);
    const backward = loadLaw([...loads].reverse());
    for (const v of [-1, 0.2, 1, 4, 6.9, 7.1, 30]) {
      expect(forward.current(v, Infinity)).toBeCloseTo(backward.current(v, Infinity), 12);
      const alone = loads.reduce((sum, load) => sum + loadLaw([load]).current(v, Infinity), 0);
      expect(forward.current(v, Infinity)).toBeCloseTo(alone, 12);
    }
  });
});
