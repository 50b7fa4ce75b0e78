/**
 * Where a function crosses zero between two bounds with values of opposite sign: false position, the value of an end that
 * stays twice counting half (Illinois rule).
 * @param resolution how close two guesses in a row have to lie, in the units of the bounds
 */
export function zeroBetween(
  f: (x: number) => number,
  from: number,
  to: number,
  atFrom: number,
  atTo: number,
  resolution: number,
): number {
  let [low, high, atLow, atHigh] = [from, to, atFrom, atTo];
  let last = Infinity;
  let stayed = 0;
  for (let round = 0; round < 60; round++) {
    const straight = (low * atHigh - high * atLow) / (atHigh - atLow);
    // Where rounding or a bend defeats it, halving the bracket always helps.
    const x = straight > low && straight < high && round < 20 ? straight : (low + high) / 2;
    if (Math.abs(x - last) < resolution) return x;
    last = x;
    const y = f(x);
    if (y === 0) return x;
    if (y > 0 === atHigh > 0) {
      high = x;
      atHigh = y;
      if (stayed === 1) atLow /= 2;
      stayed = 1;
    } else {
      low = x;
      atLow = y;
      if (stayed === -1) atHigh /= 2;
      stayed = -1;
    }
  }
  return last;
}
