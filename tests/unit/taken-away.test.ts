import { shareTaken, takenAway } from '@/cli/taken-away';

jest.mock('node:os', () => ({ ...jest.requireActual<object>('node:os'), cpus: () => [{}, {}] }));
const stat = jest.fn<string, []>();
jest.mock('node:fs', () => ({ ...jest.requireActual<object>('node:fs'), readFileSync: () => stat() }));

const ticks = (taken: number) => `cpu  900 10 80 5000 3 0 7 ${taken} 0 0\ncpu0 1 2 3\n`;

test('of two processors one was given to others for the whole time: half', () => {
  const clock = jest.spyOn(performance, 'now').mockReturnValue(1000);
  stat.mockReturnValue(ticks(700));
  const taken = takenAway();
  clock.mockReturnValue(5000);
  stat.mockReturnValue(ticks(700 + 400));
  expect(taken()).toBeCloseTo(0.5, 9);
  expect(shareTaken(taken())).toBe('50 %');
  clock.mockRestore();
});

test('where the system does not tell, nothing is said of it', () => {
  stat.mockImplementation(() => {
    throw new Error('no such file');
  });
  expect(takenAway()()).toBeNull();
  expect(shareTaken(null)).toBe('–');
});
