import type { Piece } from './copper-geometry';
import { STAR_MM, type Branch } from './etched';

/** A piece is looked at in steps of so many mm. */
const STEP_MM = 0.1;

/** Whether a place lies within a star, where the two halves of its net may touch. */
export const inStar = (x: number, y: number, star: NonNullable<Branch['star']>): boolean =>
  Math.hypot(x - star.xMm, y - star.yMm) < star.padMm / 2 + STAR_MM;

/** What of a piece lies outside a star. */
export function outsideStar({ x1, y1, x2, y2 }: Piece, star: NonNullable<Branch['star']>): Piece[] {
  const steps = Math.max(1, Math.ceil(Math.hypot(x2 - x1, y2 - y1) / STEP_MM));
  const at = (n: number) => [x1 + ((x2 - x1) * n) / steps, y1 + ((y2 - y1) * n) / steps] as const;
  const pieces: Piece[] = [];
  let from = -1;
  for (let n = 0; n <= steps + 1; n++) {
    const out = n <= steps && !inStar(...at(n), star);
    if (out && from < 0) from = n;
    if (out || from < 0) continue;
    const [[ax, ay], [bx, by]] = [at(from), at(n - 1)];
    pieces.push({ x1: ax, y1: ay, x2: bx, y2: by });
    from = -1;
  }
  return pieces;
}
