import { firstThat } from '@/core/quantity/first-that';

test('the first that holds is found wherever it stands, in few looks', () => {
  for (const count of [0, 1, 2, 7, 20])
    for (let first = 0; first <= count; first++) {
      let looks = 0;
      const found = firstThat(count, (n) => {
        expect(n).toBeLessThan(count);
        looks++;
        return n >= first;
      });
      expect(found).toBe(first);
      expect(looks).toBeLessThanOrEqual(Math.ceil(Math.log2(count + 1)));
    }
});
