import { windowOf } from '@/core/design/outputs';
import type { Picture } from '@/core/picture/picture';
import { onRail } from '@/core/study/point';

/** How many times the gap itself the lens shows around it. */
const AROUND = 1.6;
/** Least stretch it shows, V. */
const LEAST_V = 0.4;

/**
 * The stretch of volts around the tightest gap, V in magnitudes: of a regulated supply between the lowest valley and
 * what the regulator needs, of an unregulated one between what comes out and its window.
 */
export function lensOf(picture: Picture): { fromV: number; toV: number } {
  const rails = picture.points.low.rails.map((_, r) => r);
  const gaps =
    picture.neededV !== null
      ? rails.map((r) => [picture.neededV!, onRail(picture.points.low, r).rail.minV] as const)
      : rails.flatMap((r) => {
          const { lowV, highV } = windowOf(picture.design.demand);
          return [
            [lowV, onRail(picture.points.low, r).outputMinV],
            [highV, onRail(picture.points.high, r).outputMaxV],
          ] as const;
        });
  const size = ([a, b]: readonly [number, number]) => Math.abs(a - b);
  const [a, b] = gaps.reduce((x, y) => (size(y) < size(x) ? y : x));
  const half = Math.max(AROUND * Math.abs(a - b), LEAST_V) / 2;
  const middle = (a + b) / 2;
  const reach = half + Math.abs(a - b) / 2;
  return { fromV: Math.max(0, middle - reach), toV: middle + reach };
}
