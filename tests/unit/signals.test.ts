import { extremes, largest, survey, timeAbove, type Columns } from '@/core/solve/signals';

/** Instants of a step's records, as shares of its length, and their weights. */
const PLACES = [0, 0.332, 0.5, 0.62, 0.85, 1];

/** A wave as a run records it, in even steps from 0 to `end`. */
function recorded(wave: (t: number) => number, end: number, steps: number) {
  const t = Float64Array.from(
    Array.from({ length: steps }, (_, s) => PLACES.map((p) => ((s + p) * end) / steps)).flat(),
  );
  // By the trapezoidal rule: fine enough for a smooth wave.
  const weight = Float64Array.from(t, (at, r) => ((t[r + 1] ?? at) - (t[r - 1] ?? at)) / 2);
  return { columns: { t, weight, count: t.length } as Pick<Columns, 't' | 'weight' | 'count'>, column: t.map(wave) };
}

describe('the crest of a wave', () => {
  test('between its records is found by the parabola through them', () => {
    const { columns, column } = recorded((t) => Math.cos(2 * Math.PI * (t - 0.4137)), 1, 20);
    expect(Math.max(...column)).toBeLessThan(0.9999);
    const found = largest(columns, column, 1);
    expect(found.value).toBeCloseTo(1, 5);
    expect(found.t).toBeCloseTo(0.4137, 3);
  });

  test.each([
    ['begins', 0.004],
    ['ends', 0.996],
  ])('where the cycle %s is found whichever of its two ends stands higher by a last digit', (_, at) => {
    for (const [from, to] of [
      [0, 1e-9],
      [1e-9, 0],
    ] as const) {
      const { columns, column } = recorded((t) => Math.cos(2 * Math.PI * (t - at)), 1, 20);
      column[0]! += from;
      column[column.length - 1]! += to;
      expect(Math.max(...column)).toBeLessThan(0.9998);
      expect(extremes(columns, column).max).toBeCloseTo(1, 5);
      expect(
        largest(
          columns,
          column.map((v) => -v),
          -1,
        ).value,
      ).toBeCloseTo(-1, 5);
    }
  });

  test('at a corner is the corner: nothing is made up beyond it', () => {
    const { columns, column } = recorded((t) => 1 - Math.abs(t - 0.5), 1, 20);
    expect(largest(columns, column, 1)).toMatchObject({ value: 1, t: 0.5 });
  });
});

test('integrals, and the time above a level, are those of the wave', () => {
  const { columns, column } = recorded((t) => 3 + 2 * Math.sin(2 * Math.PI * t), 1, 60);
  const found = survey(columns as Columns, column);
  expect(found.sum).toBeCloseTo(3, 4);
  expect(found.squares).toBeCloseTo(9 + 2, 2);
  expect(found.max).toBeCloseTo(5, 6);
  expect(found.min).toBeCloseTo(1, 6);
  // Above 4 as long as its sine is above a half: a third of the cycle.
  expect(timeAbove(columns, column, 4)).toBeCloseTo(1 / 3, 6);
});
