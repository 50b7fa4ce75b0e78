import type { Block, Inside, Spot } from './block';

/** An upright box in space, mm: x from the left, y from the front, z from the floor. */
export interface Solid {
  x: readonly [number, number];
  y: readonly [number, number];
  z: readonly [number, number];
  /** A cylinder about its z axis, as wide as it is deep. */
  round: boolean;
}

/** Room a block takes up where it is, without what has to stay free around it. */
export function solidOf({ size, standOffMm, round, outside }: Block, spot: Spot, inside: Inside): Solid {
  const { wMm, dMm, hMm } = size;
  if (spot.face === 'floor') {
    const [w, d] = spot.turned ? [dMm, wMm] : [wMm, dMm];
    return {
      x: around(spot.xMm, w),
      y: around(spot.yMm, d),
      z: [standOffMm, standOffMm + hMm],
      round,
    };
  }
  const [w, h] = spot.turned ? [hMm, wMm] : [wMm, hMm];
  const into = outside ? -dMm : dMm;
  const wall = spot.face === 'front' ? 0 : inside.dMm;
  const end = spot.face === 'front' ? into : inside.dMm - into;
  return {
    x: around(spot.xMm, w),
    y: [Math.min(wall, end), Math.max(wall, end)],
    z: around(spot.yMm, h),
    round: false,
  };
}

const around = (middle: number, size: number): [number, number] => [middle - size / 2, middle + size / 2];

const apart = (a: readonly [number, number], b: readonly [number, number]) => Math.max(a[0] - b[1], b[0] - a[1]);

/** How far two solids are apart, mm; below nothing by how far they are in each other. Round ones by their circles. */
export function gapMm(a: Solid, b: Solid): number {
  const dz = apart(a.z, b.z);
  const flat = planGap(a, b);
  if (flat < 0 && dz < 0) return Math.max(flat, dz);
  return Math.hypot(Math.max(flat, 0), Math.max(dz, 0));
}

/** The same seen from above. */
export function planGap(a: Solid, b: Solid): number {
  if (a.round && b.round) {
    const centres = Math.hypot(mid(a.x) - mid(b.x), mid(a.y) - mid(b.y));
    return centres - (length(a.x) + length(b.x)) / 2;
  }
  if (a.round !== b.round) {
    const [disc, slab] = a.round ? [a, b] : [b, a];
    const cx = mid(disc.x);
    const cy = mid(disc.y);
    const dx = Math.max(slab.x[0] - cx, cx - slab.x[1]);
    const dy = Math.max(slab.y[0] - cy, cy - slab.y[1]);
    const edge = dx < 0 && dy < 0 ? Math.max(dx, dy) : Math.hypot(Math.max(dx, 0), Math.max(dy, 0));
    return edge - length(disc.x) / 2;
  }
  const dx = apart(a.x, b.x);
  const dy = apart(a.y, b.y);
  return dx < 0 && dy < 0 ? Math.max(dx, dy) : Math.hypot(Math.max(dx, 0), Math.max(dy, 0));
}

export const mid = (span: readonly [number, number]) => (span[0] + span[1]) / 2;
const length = (span: readonly [number, number]) => span[1] - span[0];
