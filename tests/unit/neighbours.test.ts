import { conditionOf } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { applyPatch } from '@/core/design/design';
import { Neighbours } from '@/core/solve/neighbours';
import { solveSteady } from '@/core/solve/steady';
import { solveVariations, type Variation } from '@/core/study/variation';
import { clock, dome, drum, tide } from '../support/demos';

describe('where a search begins', () => {
  test('nowhere, at the nearest while there are few, on a plane once there are enough', () => {
    const found = new Neighbours(2);
    expect(found.beginAt([0, 0])).toBeNull();
    // Anything linear is foretold exactly.
    const state = (x: number, y: number) => [3 + 2 * x - y, 10 - x];
    const at = [
      [0, 0],
      [1, 0],
      [0, 1],
      [0.9, 0.8],
    ] as const;
    for (const [x, y] of at.slice(0, 3)) found.remember([x, y], state(x, y));
    expect(found.beginAt([0.9, 0.1])).toEqual({ warm: state(1, 0), sure: false });
    found.remember(at[3], state(...at[3]));
    const { warm, sure } = found.beginAt([0.4, 0.3])!;
    expect(sure).toBe(true);
    warm.forEach((v, n) => expect(v).toBeCloseTo(state(0.4, 0.3)[n]!, 6));
  });

  test('off by the square of the distance where the states bend', () => {
    const off = (distance: number) => {
      const found = new Neighbours(1);
      for (const k of [-2, -1, 1, 2]) found.remember([0.5 + k * distance], [(0.5 + k * distance) ** 2]);
      return Math.abs(found.beginAt([0.5])!.warm[0]! - 0.25);
    };
    expect(off(0.2) / off(0.1)).toBeCloseTo(4, 1);
  });

  test('points in a row foretell along their row; circuits of different states foretell nothing of each other', () => {
    const row = new Neighbours(2);
    for (const x of [0, 0.2, 0.4, 0.6, 0.8, 1]) row.remember([x, 0.5], [5 * x]);
    expect(row.beginAt([0.5, 0.5])!.warm[0]).toBeCloseTo(2.5, 6);
    const mixed = new Neighbours(1);
    for (const x of [0, 1, 2]) mixed.remember([x], x === 2 ? [1, 2] : [x]);
    expect(mixed.beginAt([0.1])).toEqual({ warm: [0], sure: false });
  });

  test('the last few hundred are kept', () => {
    const found = new Neighbours(1);
    for (let n = 0; n <= 300; n++) found.remember([n], [n === 0 ? 77 : n]);
    // The first is forgotten: what lies next to it is foretold by what is left.
    expect(found.beginAt([0])!.warm[0]).toBeCloseTo(0, 4);
  });
});

describe('a sure beginning', () => {
  const network = networkOf(clock, conditionOf(clock, 'low'));
  const cold = solveSteady(network);

  test('one careful pass closes what is already right', () => {
    const closed = solveSteady(network, { warm: cold.state, sure: true });
    const again = solveSteady(network, { warm: closed.state, sure: true });
    expect(again.effort.passes).toBe(1);
    expect(again.effort.steps).toBeLessThan(0.6 * cold.effort.steps);
    expect(again.rails[0]!.meanV / cold.rails[0]!.meanV).toBeCloseTo(1, 4);
  });

  test('one that is wrong costs a pass and no exactness', () => {
    for (const share of [1.001, 1.02, 0.5, 3]) {
      const found = solveSteady(network, { warm: cold.state.map((v) => share * v), sure: true });
      expect(found.effort.passes).toBeGreaterThan(1);
      expect(found.rails[0]!.meanV / cold.rails[0]!.meanV).toBeCloseTo(1, 4);
      expect(found.rails[0]!.minV / cold.rails[0]!.minV).toBeCloseTo(1, 4);
    }
  });
});

test('many variations at once are what each is alone, for every arrangement of supply', () => {
  for (const design of [clock, dome, drum, tide]) {
    const variations = Array.from({ length: 60 }, (_, n): Variation => {
      const adjust = {
        openCircuitFactor: 0.95 + 0.1 * ((n * 0.618) % 1),
        capacitanceFactor: 0.8 + 0.4 * ((n * 0.382) % 1),
      };
      // Three kinds, mixed: drawn parts, a changed can, and nothing hanging on it.
      if (n % 3 === 0) return { condition: 'low', adjust };
      if (n % 3 === 1)
        return {
          condition: 'high',
          patch: { reservoir: { capacitanceF: design.reservoir.capacitanceF * (1 + 0.01 * n) } },
        };
      return { condition: 'nominal', adjust: { openCircuitFactor: adjust.openCircuitFactor }, unloaded: true };
    });
    solveVariations(design, variations).forEach((found, n) => {
      const { condition, patch, adjust, unloaded } = variations[n]!;
      const changed = patch ? applyPatch(design, patch) : design;
      const { rails } = solveSteady(
        networkOf(
          changed,
          { ...conditionOf(changed, condition), ...(unloaded ? { load: 'none' as const } : {}) },
          adjust,
        ),
      );
      const { meanV, minV, maxV, loadMeanA } = rails[0]!;
      expect(found).toMatchObject({ ok: true });
      const { railMeanV, railMinV, railMaxV, loadMeanA: amps } = found as Extract<typeof found, { ok: true }>;
      for (const [a, b] of [
        [railMeanV, meanV],
        [railMinV, minV],
        [railMaxV, maxV],
      ] as const)
        expect(Math.abs(a / b - 1)).toBeLessThan(2e-4);
      expect(amps).toBeCloseTo(loadMeanA, 3);
    });
  }
});

test('one without a solution says why, and the others are solved', () => {
  const hopeless = { demand: { kind: 'power' as const }, reservoir: { capacitanceF: 0 } };
  const found = solveVariations(dome, [
    { condition: 'low' },
    { condition: 'low', patch: hopeless },
    { condition: 'high' },
  ]);
  expect(found.map((f) => f.ok)).toEqual([true, false, true]);
  expect(found[1]).toMatchObject({ error: expect.stringMatching(/\S{4}/) });
});
