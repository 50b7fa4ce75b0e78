/** Below this the function is an exponential to the last digit. */
const LEAST = -40;
/** Up to here its values are kept at a fine raster, from there to the end at a coarse one; beyond it is iterated. */
const COARSE = 64;
const MOST = 2048;
/** Kept values per unit of the fine raster. */
const RASTER = 64;
/** The first kept value stands here: half a raster below the least. */
const FROM = LEAST - 1;

const fine = Float64Array.from({ length: (COARSE - FROM) * RASTER + 1 }, (_, n) => iterated(FROM + n / RASTER));
const coarse = Float64Array.from({ length: MOST - COARSE + 1 }, (_, n) => iterated(COARSE + n));

/** The values that are kept: for another that works from them. */
export const keptOmega = (): { fine: Float64Array; coarse: Float64Array } => ({ fine, coarse });

/**
 * The Wright omega function of a real argument: the w > 0 with w + ln(w) = z.
 *
 * It inverts a diode in series with a resistance in closed form, so that no exponential can overflow. From the nearest
 * kept value w0 at z0 Taylor's series goes on to the fourth power of a = (z - z0) / (1 + w0), its coefficients polynomials
 * in g = 1 / (1 + w0). No exponential, no logarithm and one division.
 * @param z any finite number
 * @returns w, relative error below 1e-12
 */
export function wrightOmega(z: number): number {
  let w: number;
  let dz: number;
  if (z < COARSE) {
    if (z < LEAST) return Math.exp(z);
    const n = ((z - FROM) * RASTER + 0.5) | 0;
    w = fine[n]!;
    dz = z - (FROM + n / RASTER);
  } else if (z < MOST) {
    const n = (z - COARSE + 0.5) | 0;
    w = coarse[n]!;
    dz = z - (COARSE + n);
  } else return beyond(z);
  const g = 1 / (1 + w);
  const a = dz * g;
  const fourth = g * (15 * g - 20) + 6;
  return w * (1 + a * (1 + a * g * (1 / 2 + a * (g * (1 / 2) - 1 / 3 + a * fourth * (1 / 24)))));
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
