import { lastKept, lastKeptSteps } from '@/workers/last-kept';

test('what is asked again is not worked out again; what is another question is', () => {
  let worked = 0;
  const double = lastKept((of: { n: number }, times: number) => (worked++, of.n * times));
  expect([double({ n: 2 }, 2), double({ n: 2 }, 2), worked]).toEqual([4, 4, 1]);
  expect([double({ n: 2 }, 3), worked]).toEqual([6, 2]);
  expect([double({ n: 2 }, 2), worked]).toEqual([4, 3]);
});

test('so is work in steps: asked again it has no steps left, broken off it is begun anew', () => {
  const count = lastKeptSteps(function* (to: number): Generator<number, string> {
    for (let n = 1; n <= to; n++) yield n;
    return `to ${to}`;
  });
  const stepsOf = (to: number) => [...count(to)];
  expect(stepsOf(3)).toEqual([1, 2, 3]);
  expect(count(3).next()).toEqual({ done: true, value: 'to 3' });
  const broken = count(2);
  broken.next();
  expect(stepsOf(2)).toEqual([1, 2]);
});
