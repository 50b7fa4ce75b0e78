import { lastKept } from '@/workers/last-kept';

test('what is asked again is not worked out again; what is another question is', () => {
  let worked = 0;
  const double = lastKept((of: { n: number }, times: number) => (worked++, of.n * times));
  expect([double({ n: 2 }, 2), double({ n: 2 }, 2), worked]).toEqual([4, 4, 1]);
  expect([double({ n: 2 }, 3), worked]).toEqual([6, 2]);
  expect([double({ n: 2 }, 2), worked]).toEqual([4, 3]);
});
