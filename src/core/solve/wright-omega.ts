/**
 * The Wright omega function of a real argument: the w > 0 with w + ln(w) = z.
 *
 * It inverts a diode in series with a resistance in closed form, so that no exponential can overflow.
 * Initial guess by region, then one or two fourth-order steps of Fritsch, Shafer and Crowley (CACM 16, 1973).
 * @param z any finite number
 * @returns w, relative error below 1e-11
 */
export function wrightOmega(z: number): number {
  if (z < -36) return Math.exp(z);
  let w: number;
  if (z > 3) {
    const l = Math.log(z);
    w = z - l + (l / z) * (1 + (l - 2) / (2 * z));
  } else if (z < -1.5) {
    const x = Math.exp(z);
    w = x * (1 - x * (1 - 1.5 * x));
  } else {
    const d = z - 1;
    w = 1 + d * (0.5 + d * (0.0625 - d * 0.0052));
  }
  let r = z - w - Math.log(w);
  let p = w + 1;
  let q = 2 * p * (p + (2 / 3) * r);
  w *= 1 + ((r / p) * (q - r)) / (q - 2 * r);
  if (r > 2e-3 || r < -2e-3) {
    r = z - w - Math.log(w);
    p = w + 1;
    q = 2 * p * (p + (2 / 3) * r);
    w *= 1 + ((r / p) * (q - r)) / (q - 2 * r);
  }
  return w;
}
