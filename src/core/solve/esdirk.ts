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
