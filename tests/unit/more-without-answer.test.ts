import { SolveError } from '@/core/solve/solve-error';
import { clock } from '../support/demos';

const judged = jest.fn();
jest.mock('@/core/judge/judge', () => ({
  ...jest.requireActual('@/core/judge/judge'),
  outcomeOf: () => judged() as unknown,
}));
import { moreOf } from '../support/changes';

const gains = () => moreOf(clock, 'main').flatMap((m) => m ?? []);

test('a change that gains is told even where the load of today has no answer with it: nothing is dropped unsaid', () => {
  judged.mockReturnValue({ fails: 0, worst: null });
  const all = gains();
  expect(all.length).toBeGreaterThan(3);
  expect(all.every((m) => m.fails === 0)).toBe(true);
  judged.mockImplementation(() => {
    throw new SolveError('no cycle was found');
  });
  const without = gains();
  expect(without.map((m) => m.edit.label)).toEqual(all.map((m) => m.edit.label));
  expect(without.every((m) => m.fails === null)).toBe(true);
  // What is no circuit's fault is nobody's answer.
  judged.mockImplementation(() => {
    throw new TypeError('a fault of the program');
  });
  expect(gains).toThrow(TypeError);
});
