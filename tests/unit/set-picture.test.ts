import type { SizedSet } from '@/core/size/sized-set';
import { bestFront, setPoints } from '@/places/parts/set-points';

const set = (toPayEur: number, worstLeft: number, fails = 0, name = 'x') =>
  ({ toPayEur, worstLeft, fails, parts: [{ name }] }) as unknown as SizedSet;

test('sets that cost and hold the same are one point, by the first of them', () => {
  const points = setPoints([set(10, 0.5, 0, 'a'), set(10.001, 0.5002, 0, 'b'), set(10, 0.6), set(10, 0.5, 1)]);
  expect(points.map((p) => [p.x, p.y, p.sets])).toEqual([
    [10, 0.5, 2],
    [10, 0.6, 1],
    [10, 0.5, 1],
  ]);
  expect(points[0]!.set.parts[0]!.name).toBe('a');
});

test('margins far beyond all that is wanted, or far short, stand at the edge', () => {
  expect(setPoints([set(1, 40), set(2, -40)]).map((p) => p.y)).toEqual([3, -3]);
});

test('the best are those nothing beats: dearer only for more margin, and never one that fails', () => {
  const points = setPoints([
    set(12, 0.4),
    set(8, 0.2),
    set(9, 0.1),
    set(15, 1.1),
    set(15, 0.9),
    set(4, 2, 1),
    set(20, 1.1),
  ]);
  expect(bestFront(points).map((p) => [p.x, p.y])).toEqual([
    [8, 0.2],
    [12, 0.4],
    [15, 1.1],
  ]);
  expect(bestFront([])).toEqual([]);
});
