// Where a function is nothing: src/core/solve/zero.ts.

function zeroBetween(
  value: (x: f64) => f64,
  low: f64,
  high: f64,
  atLow: f64,
  atHigh: f64,
  resolution: f64,
): f64 {
  let last: f64 = Infinity;
  let stayed = 0;
  for (let round = 0; round < 60; round++) {
    const straight = (low * atHigh - high * atLow) / (atHigh - atLow);
    const x = straight > low && straight < high && round < 20 ? straight : (low + high) / 2;
    if (Math.abs(x - last) < resolution) return x;
    last = x;
    const y = value(x);
    if (y == 0) return x;
    if (y > 0 == atHigh > 0) {
      high = x;
      atHigh = y;
      if (stayed == 1) atLow /= 2;
      stayed = 1;
    } else {
      low = x;
      atLow = y;
      if (stayed == -1) atHigh /= 2;
      stayed = -1;
    }
  }
  return last;
}
