import { recently } from '@/core/quantity/recently';

test('a thing among the last few asked of is not worked out again, one before them is', () => {
  const asked: string[] = [];
  const nameOf = recently(2, (of: { name: string }) => {
    asked.push(of.name);
    return of.name.toUpperCase();
  });
  const [a, b, c] = [{ name: 'a' }, { name: 'b' }, { name: 'c' }];
  expect([a, b, a, b, a].map(nameOf)).toEqual(['A', 'B', 'A', 'B', 'A']);
  expect(asked).toEqual(['a', 'b']);
  expect([c, b, a, c].map(nameOf)).toEqual(['C', 'B', 'A', 'C']);
  expect(asked).toEqual(['a', 'b', 'c', 'a']);
});

test('what has no value is kept as well, and one may be asked of while another is worked out', () => {
  let times = 0;
  const depthOf: (of: { in: object | null }) => number | undefined = recently(1, (of) => {
    times++;
    return of.in === null ? undefined : 1 + (depthOf(of.in as { in: object | null }) ?? 0);
  });
  const inner = { in: null };
  expect([depthOf({ in: inner }), depthOf(inner), depthOf(inner)]).toEqual([1, undefined, undefined]);
  expect(times).toBe(3);
});
