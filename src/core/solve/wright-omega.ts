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
keep(0, corrected(FROM, Math.exp(FROM)), 1 / RASTER);
for (let n = 1; n < FINE; n++) keep(n, corrected(FROM + n / RASTER, seriesAt(n - 1, 1)), 1 / RASTER);
keep(FINE, kept[TERMS * (FINE - 1)]!, 1);
for (let n = 1; n <= MOST - COARSE; n++) keep(FINE + n, corrected(COARSE + n, seriesAt(FINE + n - 1, 1)), 1);

/** The k-th derivative of w is w g^(2k-1) times a polynomial in w, where g = 1 / (1 + w). */
function keep(n: number, w: number, raster: number): void {
  const g = 1 / (1 + w);
  const b = raster * g * g;
  let power = w * (1 + w);
  kept[TERMS * n] = w;
  kept[TERMS * n + 1] = power *= b;
  kept[TERMS * n + 2] = (power *= b) / 2;
  kept[TERMS * n + 3] = ((power *= b) * (1 - 2 * w)) / 6;
  kept[TERMS * n + 4] = ((power *= b) * (1 + w * (-8 + 6 * w))) / 24;
  kept[TERMS * n + 5] = (power * b * (1 + w * (-22 + w * (58 - 24 * w)))) / 120;
}

/** The n-th series u rasters from its point, added up in pairs so that none waits for the last. */
function seriesAt(n: number, u: number): number {
  const k = TERMS * n;
  const u2 = u * u;
  return kept[k]! + kept[k + 1]! * u + u2 * (kept[k + 2]! + kept[k + 3]! * u + u2 * (kept[k + 4]! + kept[k + 5]! * u));
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
 * point that is kept Taylor's series goes on to the fifth power: no exponential, no logarithm and no division.
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
  return seriesAt(n, u);
}

/** Far out, where w is nearly z - ln(z). */
function beyond(z: number): number {
  const l = Math.log(z);
  return corrected(z, z - l + (l / z) * (1 + (l - 2) / (2 * z)));
}

/** One step of fourth order from a guess: Fritsch, Shafer and Crowley (CACM 16, 1973). */
function corrected(z: number, w: number): number {
  const r = z - w - Math.log(w);
  const p = w + 1;
  const q = 2 * p * (p + (2 / 3) * r);
  return w * (1 + ((r / p) * (q - r)) / (q - 2 * r));
}
