/** A path through pixels, to a thousandth of one. */
export function polyline(points: readonly [number, number][]): string {
  const short = (px: number) => Math.round(px * 1000) / 1000;
  return points.map(([x, y], n) => `${n === 0 ? 'M' : 'L'}${short(x)},${short(y)}`).join('');
}
