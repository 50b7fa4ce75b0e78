import { CHECK_LINE_MM } from '@/core/build/paper';
import type { Template } from './template';

/** What a template is drawn with, mm, upwards and to the right from its lower left corner. */
export type Stroke =
  | { kind: 'line'; x1: number; y1: number; x2: number; y2: number; layer: Layer }
  | { kind: 'circle'; x: number; y: number; r: number; layer: Layer }
  | { kind: 'text'; x: number; y: number; mm: number; text: string; middle: boolean; layer: Layer };

/** Cut through, marked for the eye, or read. */
export type Layer = 'cut' | 'mark' | 'text';

/** Half of the cross in the middle of a hole, mm. */
const CROSS_MM = 2;
const MARGIN_MM = 10;
const LINE_MM = 5;

/** The lines, circles and letters of a template, with its edge, centre marks, check line and notes. */
export function templateStrokes({ wMm, hMm, items, notes, title }: Template): Stroke[] {
  const strokes: Stroke[] = [...rectangle(0, 0, wMm, hMm, 'mark')];
  for (const item of items) {
    const { xMm: x, yMm: y } = item;
    if (item.kind === 'hole') {
      strokes.push({ kind: 'circle', x, y, r: item.diameterMm / 2, layer: 'cut' }, ...cross(x, y));
    } else if (item.kind === 'slot') {
      strokes.push(...rectangle(x, y, item.wMm, item.hMm, 'cut'), ...cross(x + item.wMm / 2, y + item.hMm / 2));
    } else if (item.kind === 'outline') strokes.push(...rectangle(x, y, item.wMm, item.hMm, 'mark'));
    else if (item.kind === 'ring') strokes.push({ kind: 'circle', x, y, r: item.diameterMm / 2, layer: 'mark' });
    else strokes.push({ kind: 'text', x, y, mm: item.heightMm, text: item.text, middle: true, layer: 'text' });
  }
  const below = -MARGIN_MM;
  strokes.push(
    { kind: 'line', x1: 0, y1: below, x2: CHECK_LINE_MM, y2: below, layer: 'mark' },
    { kind: 'line', x1: 0, y1: below - 2, x2: 0, y2: below + 2, layer: 'mark' },
    { kind: 'line', x1: CHECK_LINE_MM, y1: below - 2, x2: CHECK_LINE_MM, y2: below + 2, layer: 'mark' },
    ...[`${CHECK_LINE_MM} mm`, title, ...notes].map((text, n): Stroke => ({
      kind: 'text',
      x: 0,
      y: below - LINE_MM * (n + 1),
      mm: 3,
      text,
      middle: false,
      layer: 'text',
    })),
  );
  return strokes;
}

/** Paper a template needs around its face, mm. */
export function templatePaper({ wMm, hMm, notes }: Template): { left: number; below: number; w: number; h: number } {
  const below = MARGIN_MM + LINE_MM * (notes.length + 2) + MARGIN_MM;
  return {
    left: MARGIN_MM,
    below,
    w: Math.max(wMm, CHECK_LINE_MM, 130) + 2 * MARGIN_MM,
    h: hMm + below + MARGIN_MM,
  };
}

function rectangle(x: number, y: number, w: number, h: number, layer: Layer): Stroke[] {
  const corners = [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ] as const;
  return corners.map(([x1, y1], n) => {
    const [x2, y2] = corners[(n + 1) % 4]!;
    return { kind: 'line', x1, y1, x2, y2, layer };
  });
}

const cross = (x: number, y: number): Stroke[] => [
  { kind: 'line', x1: x - CROSS_MM, y1: y, x2: x + CROSS_MM, y2: y, layer: 'mark' },
  { kind: 'line', x1: x, y1: y - CROSS_MM, x2: x, y2: y + CROSS_MM, layer: 'mark' },
];
