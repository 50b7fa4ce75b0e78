import { settleLabels, type Placed } from '@/ui/terrace/settle-labels';

const box = (x: number, y: number, rank = 0, width = 60, height = 14): Placed => ({ x, y, width, height, rank });
const after = (labels: Placed[], moves: number[]) => labels.map((l, n) => ({ ...l, y: l.y + moves[n]! }));
const collide = (a: Placed, b: Placed) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

test('labels that do not meet stay where they are', () => {
  expect(settleLabels([box(0, 10), box(0, 24), box(60, 10)], 0, 200)).toEqual([0, 0, 0]);
});

test('of two that meet the lesser one moves, the shorter way, and no further than it must', () => {
  const labels = [box(0, 100), box(10, 104, 5)];
  const moves = settleLabels(labels, 0, 200);
  expect(moves[1]).toBe(0);
  expect(moves[0]).toBe(-12);
  expect(collide(...(after(labels, moves) as [Placed, Placed]))).toBe(false);
});

test('at an edge it moves the other way', () => {
  expect(settleLabels([box(0, 2), box(0, 0, 1)], 0, 200)[0]).toBeGreaterThan(0);
  expect(settleLabels([box(0, 184), box(0, 186, 1)], 0, 200)[0]).toBeLessThan(0);
});

test('six on one spot end up one above the other', () => {
  const labels = Array.from({ length: 6 }, (_, n) => box(n, 100, n));
  const moved = after(labels, settleLabels(labels, 0, 300));
  for (const a of moved) for (const b of moved) expect(a !== b && collide(a, b)).toBe(false);
});

test('where there is no room within reach it stays with what it names', () => {
  const wall = Array.from({ length: 20 }, (_, n) => box(0, 10 * n, 9, 60, 10));
  expect(settleLabels([...wall, box(0, 100)], 0, 200).at(-1)).toBe(0);
});
