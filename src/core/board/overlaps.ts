import type { EtchedBoard, Rect } from './etched';

/** Between two rectangles, mm, along the side they are farther apart on; below nothing where they lie on each other. */
export const gapBetween = (a: Rect, b: Rect): number => Math.max(a.x0 - b.x1, b.x0 - a.x1, a.y0 - b.y1, b.y0 - a.y1);

/** Parts that stand on each other or over the edge. */
export function overlapsOf({ parts, wMm, hMm }: Pick<EtchedBoard, 'parts' | 'wMm' | 'hMm'>): [string, string][] {
  const found: [string, string][] = [];
  parts.forEach((a, n) => {
    const { x0, y0, x1, y1 } = a.body;
    if (!a.wire && (x0 < 0 || y0 < 0 || x1 > wMm || y1 > hMm)) found.push([a.ref, 'the edge']);
    for (const b of parts.slice(n + 1)) {
      if (gapBetween(a.body, b.body) < 0) found.push([a.ref, b.ref]);
    }
  });
  return found;
}
