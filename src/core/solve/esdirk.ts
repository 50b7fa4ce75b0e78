/**
 * ESDIRK4(3)6L[2]SA, the implicit half of ARK4(3)6L[2]SA: order 4 with an order 3 estimate, stiffly accurate, L-stable.
 * Source: Kennedy and Carpenter, Applied Numerical Mathematics 44 (2003) 139. The order conditions are a test.
 */

export const STAGES = 6;
export const GAMMA = 1 / 4;
export const C: readonly number[] = [0, 1 / 2, 83 / 250, 31 / 50, 17 / 20, 1];

/** Strictly lower part; the diagonal is GAMMA from the second stage on, 0 in the first. */
export const A: readonly (readonly number[])[] = [
  [],
  [1 / 4],
  [8611 / 62500, -1743 / 31250],
  [5012029 / 34652500, -654441 / 2922500, 174375 / 388108],
  [15267082809 / 155376265600, -71443401 / 120774400, 730878875 / 902184768, 2285395 / 8070912],
  [82889 / 524892, 0, 15625 / 83664, 69875 / 102672, -2260 / 8211],
];

export const B: readonly number[] = [82889 / 524892, 0, 15625 / 83664, 69875 / 102672, -2260 / 8211, 1 / 4];

const B_EMBEDDED: readonly number[] = [
  4586570599 / 29645900160,
  0,
  178811875 / 945068544,
  814220225 / 1159782912,
  -3700637 / 11593932,
  61727 / 225920,
];

/** Weights of the error estimate. */
export const D: readonly number[] = B.map((b, j) => b - B_EMBEDDED[j]!);

/** The coefficients by name: module bindings and nested arrays cost more than the arithmetic. */
const [A10, A20, A21, A30, A31, A32, A40, A41, A42, A43, A50, A52, A53, A54] = [
  ...A[1]!,
  ...A[2]!,
  ...A[3]!,
  ...A[4]!,
  A[5]![0],
  ...A[5]!.slice(2),
] as [number, number, number, number, number, number, number, number, number, number, number, number, number, number];

/**
 * How far the stages before stage s carry: h times the sum of A[s][j]*k[j], `width` numbers into `out`. The k stand one
 * stage after the other.
 */
export function carried(s: number, h: number, k: Float64Array, width: number, out: Float64Array): void {
  if (s === 1) {
    for (let n = 0; n < width; n++) out[n] = h * A10 * k[n]!;
  } else if (s === 2) {
    for (let n = 0; n < width; n++) out[n] = h * (A20 * k[n]! + A21 * k[width + n]!);
  } else if (s === 3) {
    for (let n = 0; n < width; n++) out[n] = h * (A30 * k[n]! + A31 * k[width + n]! + A32 * k[2 * width + n]!);
  } else if (s === 4) {
    for (let n = 0; n < width; n++) {
      out[n] = h * (A40 * k[n]! + A41 * k[width + n]! + A42 * k[2 * width + n]! + A43 * k[3 * width + n]!);
    }
  } else {
    for (let n = 0; n < width; n++) {
      out[n] = h * (A50 * k[n]! + A52 * k[2 * width + n]! + A53 * k[3 * width + n]! + A54 * k[4 * width + n]!);
    }
  }
}
