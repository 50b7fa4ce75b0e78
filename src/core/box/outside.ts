import type { Figure } from '@/core/study/figure';
import type { Inside } from './block';

/** Walls of a box, mm; typical. */
const WALL_MM = 2;

/** The faces of a box that give heat to the room, cm2: the lid and four sides; its floor stands on the table. */
export function outsideFigure({ wMm, dMm, hMm }: Inside): Figure {
  const [w, d, h] = [wMm, dMm, hMm].map((v) => (v + 2 * WALL_MM) / 10) as [number, number, number];
  return {
    id: 'box-outside',
    label: 'Free faces of the box',
    value: Math.round(w * d + 2 * h * (w + d)),
    unit: 'cm²',
    origin: 'formula',
    expression: 'lid + four sides, walls counted in',
    inputs: [
      { label: 'width', value: wMm + 2 * WALL_MM, unit: 'mm', origin: 'chosen' },
      { label: 'depth', value: dMm + 2 * WALL_MM, unit: 'mm', origin: 'chosen' },
      { label: 'height', value: hMm + 2 * WALL_MM, unit: 'mm', origin: 'chosen' },
    ],
    source: 'Painted metal gives about 5.5 W/m²K to the room, plastic 3.5 to 4.',
    assumes: [`Walls of ${WALL_MM} mm.`, 'Its floor stands on a table and gives nothing.'],
  };
}
