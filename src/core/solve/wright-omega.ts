/** Below this the function is an exponential to the last digit. */
const LEAST = -40;
/** Up to here its series are kept at a fine raster, from there to the end at a coarse one; beyond it is iterated. */
const COARSE = 64;
const MOST = 2048;
/** Kept series per unit of the fine raster. */
const RASTER = 20;
/** The first of them stands here: a whole raster below the least. */
const FROM = LEAST - 1;
/** Terms of each, up to the fifth power. */
const TERMS = 6;
/** Of the fine raster, both its ends included. */
const FINE = (COARSE - FROM) * RASTER + 1;

/** Taylor's series of w about each point, term by term, in rasters: the fine ones, then the coarse. */
const kept = new Float64Array(TERMS * (FINE + MOST - COARSE + 1));
for (let n = 0; n < FINE; n++) keep(n, FROM + n / RASTER, 1 / RASTER);
for (let n = 0; n <= MOST - COARSE; n++) keep(FINE + n, COARSE + n, 1);

/** Its k-th derivative is w g^(2k-1) times a polynomial in w, where g = 1 / (1 + w). */
function keep(n: number, z: number, raster: number): void {
  const w = iterated(z);
  const g = 1 / (1 + w);
  const b = raster * g * g;
  const polynomials = [
    1,
    1 / 2,
    (1 - 2 * w) / 6,
    (1 + w * (-8 + 6 * w)) / 24,
    (1 + w * (-22 + w * (58 - 24 * w))) / 120,
  ];
  kept[TERMS * n] = w;
  let power = w * (1 + w);
  for (let k = 1; k < TERMS; k++) kept[TERMS * n + k] = (power *= b) * polynomials[k - 1]!;
}

/** The series that are kept, and which number of them the coarse ones begin with: for another that works from them. */
export const keptOmega = (): { series: Float64Array; coarseFrom: number } => ({
  series: kept,
  coarseFrom: TERMS * FINE,
});

/**
 * The Wright omega function of a real argument: the w > 0 with w + ln(w) = z.
 *
 * It inverts a diode in series with a resistance in closed form, so that no exponential can overflow. About the nearest
 * point that is kept Taylor's series goes on to the fifth power, added up in pairs so that none waits for the last: no
 * exponential, no logarithm and no division.
 * @param z any finite number
 * @returns w, relative error below 1e-12
 */
export function wrightOmega(z: number): number {
  let u: number;
  let n: number;
  if (z < COARSE) {
    if (z < LEAST) return Math.exp(z);
    u = z * RASTER - FROM * RASTER;
    n = (u + 0.5) | 0;
    u -= n;
  } else if (z < MOST) {
    u = z - COARSE;
    n = (u + 0.5) | 0;
    u -= n;
    n += FINE;
  } else return beyond(z);
  const k = TERMS * n;
  const u2 = u * u;
  return kept[k]! + kept[k + 1]! * u + u2 * (kept[k + 2]! + kept[k + 3]! * u + u2 * (kept[k + 4]! + kept[k + 5]! * u));
}

/** Far out, where w is nearly z - ln(z): one step of fourth order from there. */
function beyond(z: number): number {
  const l = Math.log(z);
  const w = z - l + (l / z) * (1 + (l - 2) / (2 * z));
  const r = z - w - Math.log(w);
  const p = w + 1;
  const q = 2 * p * (p + (2 / 3) * r);
  return w * (1 + ((r / p) * (q - r)) / (q - 2 * r));
}

/** The same by fourth-order steps of Fritsch, Shafer and Crowley (CACM 16, 1973) from a guess by region. */
function iterated(z: number): number {
  if (z < -700) return Math.exp(z);
  let w = z > 1 ? z - Math.log(z) : z < -1 ? Math.exp(z) : 0.6;
  for (let round = 0; round < 4; round++) {
    const r = z - w - Math.log(w);
    const p = w + 1;
    const q = 2 * p * (p + (2 / 3) * r);
    w *= 1 + ((r / p) * (q - r)) / (q - 2 * r);
  }
  return w;
}
