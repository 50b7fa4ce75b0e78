import { greatest, mapped, summed } from '@/core/quantity/lists';

const cans = [
  { uF: 470, ratedV: 35 },
  { uF: 2200, ratedV: 25 },
  { uF: 100, ratedV: 63 },
];

test('a list of what each comes to is what the language makes of it, places included', () => {
  const label = ({ uF }: { uF: number }, n: number) => `C${n + 1} ${uF} µF`;
  expect(mapped(cans, label)).toEqual(cans.map(label));
  expect(mapped([], label)).toEqual([]);
});

test('sums and the greatest of nothing are what adding and comparing begin with', () => {
  expect(summed(cans, (c) => c.uF)).toBe(2770);
  expect(greatest(cans, (c) => c.ratedV)).toBe(63);
  expect(greatest(cans, (c) => -c.ratedV)).toBe(-25);
  expect(summed([], () => 1)).toBe(0);
  expect(greatest([], () => 1)).toBe(-Infinity);
});
