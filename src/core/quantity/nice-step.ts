/** The least step of one, two or five times a power of ten that is not below a rough one; 1 for none. */
export function niceStep(rough: number): number {
  if (!(rough > 0)) return 1;
  const decade = 10 ** Math.floor(Math.log10(rough));
  const mantissa = rough / decade;
  return decade * (mantissa <= 1 ? 1 : mantissa <= 2 ? 2 : mantissa <= 5 ? 5 : 10);
}
