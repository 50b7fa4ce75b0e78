/** A thousandth of an inch squared, mm2. */
const MIL2_MM2 = 0.0254 ** 2;
/** How much warmer than the board a track may get, K. */
export const RISE_K = 10;
/** Nothing etched at home comes out surely below this, mm: neither copper nor the gap between two. */
export const LEAST_MM = 0.4;

/**
 * How wide a track has to be, mm.
 * @param rmsA RMS of what flows, pulses and all, A
 * @param riseK warmer than the board it lies on, K
 * @param copperUm thickness, µm
 * Source: IPC-2221, outer layer; within its charts to about 35 A and 100 K.
 */
export function trackWidthMm(rmsA: number, riseK: number, copperUm: number): number {
  const mil2 = (rmsA / (0.048 * riseK ** 0.44)) ** (1 / 0.725);
  return (mil2 * MIL2_MM2) / (copperUm / 1000);
}

/** How warm a track gets over its board, K: the same charts, read the other way. */
export function trackRiseK(rmsA: number, widthMm: number, copperUm: number): number {
  const mil2 = (widthMm * (copperUm / 1000)) / MIL2_MM2;
  return (rmsA / (0.048 * mil2 ** 0.725)) ** (1 / 0.44);
}

/** IPC-2221, outer, uncoated: to so many volts at their peak, mm. */
const DISTANCES: readonly (readonly [volts: number, mm: number])[] = [
  [30, 0.1],
  [150, 0.6],
  [300, 1.25],
  [500, 2.5],
];
/** Above the table, mm more for each volt. */
const PER_VOLT_MM = 0.005;

/** How far copper of two nets stays apart, mm: by peak volts, and no closer than is etched at home. */
export function distanceMm(volts: number): number {
  const row = DISTANCES.find(([upTo]) => volts <= upTo);
  const [top, mm] = DISTANCES.at(-1)!;
  return Math.max(LEAST_MM, row ? row[1] : mm + PER_VOLT_MM * (volts - top));
}
