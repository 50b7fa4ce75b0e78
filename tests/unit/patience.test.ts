import { workingTime } from '@/core/solve/patience';

test('time at work adds up; a pause of the machine counts as one beat', () => {
  let now = 1000;
  const clock = jest.spyOn(performance, 'now').mockImplementation(() => now);
  const spentMs = workingTime(50);
  now += 10;
  expect(spentMs()).toBe(10);
  now += 20;
  expect(spentMs()).toBe(30);
  now += 5000;
  expect(spentMs()).toBe(80);
  now += 49;
  expect(spentMs()).toBe(129);
  clock.mockRestore();
});
