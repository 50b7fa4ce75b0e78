import type { EtchedBoard } from './etched';

/** Parts that stand on each other or over the edge. */
export function overlapsOf({ parts, wMm, hMm }: Pick<EtchedBoard, 'parts' | 'wMm' | 'hMm'>): [string, string][] {
  const found: [string, string][] = [];
  parts.forEach((a, n) => {
    const { x0, y0, x1, y1 } = a.body;
    if (!a.wire && (x0 < 0 || y0 < 0 || x1 > wMm || y1 > hMm)) found.push([a.ref, 'the edge']);
    for (const b of parts.slice(n + 1)) {
      const o = b.body;
      if (x0 < o.x1 && o.x0 < x1 && y0 < o.y1 && o.y0 < y1) found.push([a.ref, b.ref]);
    }
  });
  return found;
}
