/** Volts to pixels and back. */
export interface VoltScale {
  (volts: number): number;
  /** The volts that stand at a height in pixels. */
  invert(px: number): number;
}

/**
 * A scale that runs straight between knots, and on beyond the first and the last.
 * @param volts rising, two or more
 * @param px one for each, all rising or all falling
 */
export function voltScale(volts: readonly number[], px: readonly number[]): VoltScale {
  return Object.assign((v: number) => along(volts, px, v), { invert: (at: number) => along(px, volts, at) });
}

function along(from: readonly number[], to: readonly number[], x: number): number {
  const falling = from[1]! < from[0]!;
  let n = 0;
  while (n < from.length - 2 && (falling ? x < from[n + 1]! : x > from[n + 1]!)) n++;
  return to[n]! + ((x - from[n]!) / (from[n + 1]! - from[n]!)) * (to[n + 1]! - to[n]!);
}
