/** A straight piece with round ends. */
export interface Piece {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** From a point to a straight piece, mm. */
export function toPiece(x: number, y: number, { x1, y1, x2, y2 }: Piece): number {
  const [dx, dy] = [x2 - x1, y2 - y1];
  const along = dx * dx + dy * dy;
  const t = along === 0 ? 0 : Math.max(0, Math.min(1, ((x - x1) * dx + (y - y1) * dy) / along));
  return Math.hypot(x - x1 - t * dx, y - y1 - t * dy);
}

/** Between two straight pieces, middle to middle, mm; 0 where they cross. */
export function between(a: Piece, b: Piece): number {
  if (crossing(a, b)) return 0;
  return Math.min(toPiece(a.x1, a.y1, b), toPiece(a.x2, a.y2, b), toPiece(b.x1, b.y1, a), toPiece(b.x2, b.y2, a));
}

/** No less than this lies between two pieces, mm: between the rectangles around them. */
export function atLeast(a: Piece, b: Piece): number {
  const dx = Math.max(Math.min(a.x1, a.x2) - Math.max(b.x1, b.x2), Math.min(b.x1, b.x2) - Math.max(a.x1, a.x2), 0);
  const dy = Math.max(Math.min(a.y1, a.y2) - Math.max(b.y1, b.y2), Math.min(b.y1, b.y2) - Math.max(a.y1, a.y2), 0);
  return Math.max(dx, dy);
}

/** Whether two pieces come closer than so many mm, middle to middle. */
export const closerThan = (mm: number, a: Piece, b: Piece): boolean => atLeast(a, b) < mm && between(a, b) < mm;

/** Whether two straight pieces cross, each through the other's inside. */
function crossing(a: Piece, b: Piece): boolean {
  const [c, d] = [side(a, b.x1, b.y1), side(a, b.x2, b.y2)];
  const [e, f] = [side(b, a.x1, a.y1), side(b, a.x2, a.y2)];
  return c * d < 0 && e * f < 0;
}

const side = ({ x1, y1, x2, y2 }: Piece, x: number, y: number) =>
  Math.sign((x2 - x1) * (y - y1) - (y2 - y1) * (x - x1));
