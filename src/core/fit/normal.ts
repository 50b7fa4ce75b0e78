/** ln of the normal density. */
export const logNormal = (x: number, mean: number, sigma: number): number =>
  -0.5 * ((x - mean) / sigma) ** 2 - Math.log(sigma * Math.sqrt(2 * Math.PI));

/** Quantile of the normal distribution by bisection of its integral. */
export function quantile(share: number): number {
  let [low, high] = [-6, 6];
  for (let n = 0; n < 60; n++) {
    const middle = (low + high) / 2;
    if (normalShare(middle) < share) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Share of a normal distribution below x, by Simpson's rule. */
function normalShare(x: number): number {
  const steps = 400;
  const from = -8;
  const h = (x - from) / steps;
  let sum = 0;
  for (let n = 0; n <= steps; n++) {
    const t = from + n * h;
    sum += (n === 0 || n === steps ? 1 : n % 2 === 1 ? 4 : 2) * Math.exp(-0.5 * t * t);
  }
  return (sum * h) / 3 / Math.sqrt(2 * Math.PI);
}
