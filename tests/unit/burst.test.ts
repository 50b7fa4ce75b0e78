import { banksFor, shopCans, type BurstAsk, type Can } from '@/core/study/burst';

const can: Can = { name: 'C', capacitanceF: 220e-6, ratedV: 63, esrOhm: 0.2, priceEur: 0.2, count: null };
const ask: BurstAsk = {
  amps: 10,
  watts: null,
  seconds: 0.002,
  fromV: 40,
  sagV: 3,
  tolerancePct: 20,
  agedPct: 20,
  idleV: 50,
};

test('so many of a small can that charge and resistance together stay within the sag, and not one less', () => {
  const [bank] = banksFor(ask, [can]);
  // 10 A for 2 ms out of n·220 µF·0.64, and 10 A through 0.4 ohm/n: (142 + 4)/n volts.
  const by = (n: number) => (10 * 0.002) / (n * 220e-6 * 0.64) + (10 * 0.4) / n;
  expect(bank!.sagV).toBeCloseTo(by(bank!.cans), 9);
  expect(by(bank!.cans)).toBeLessThanOrEqual(3);
  expect(by(bank!.cans - 1)).toBeGreaterThan(3);
  expect(bank!.cans).toBe(49);
});

test('a constant power takes its energy: half C times the difference of the squares', () => {
  const free = { ...can, esrOhm: 0 };
  const [bank] = banksFor({ ...ask, amps: null, watts: 360, tolerancePct: 0, agedPct: 0 }, [free]);
  const joule = 0.5 * bank!.cans * 220e-6 * (40 ** 2 - (40 - bank!.sagV) ** 2);
  expect(joule).toBeCloseTo(360 * 0.002, 6);
});

test('no more cans of a kind than there are, none below the volts it idles at, and shops have what stands them', () => {
  expect(banksFor(ask, [{ ...can, count: 3 }])).toEqual([]);
  expect(banksFor(ask, [{ ...can, ratedV: 35 }])).toEqual([]);
  expect(shopCans(50).every((c) => c.ratedV >= 50)).toBe(true);
  const found = banksFor(ask, shopCans(50));
  for (let n = 1; n < found.length; n++) expect(found[n]!.priceEur).toBeGreaterThanOrEqual(found[n - 1]!.priceEur);
});

test('a bank from the shop costs its cans, one from the drawer nothing', () => {
  expect(banksFor(ask, [can])[0]!.priceEur).toBeCloseTo(49 * 0.2, 9);
  expect(banksFor(ask, [{ ...can, count: 60 }])[0]!.priceEur).toBe(0);
});
