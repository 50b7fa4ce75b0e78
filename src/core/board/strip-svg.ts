import { escaped } from '@/core/quantity/escaped';
import type { Stripboard } from './on-strips';
import { onCopper, stripDrawing, type StripShape } from './strip-drawing';

/**
 * A board at its own size, in millimetres, in black.
 * @param copperSide mirrored, as it lies when the strips are cut
 */
export function stripSvg(board: Stripboard, title: string, copperSide: boolean): string {
  const { wMm, hMm, shapes } = stripDrawing(board);
  const body = shapes.filter((s) => !copperSide || onCopper(s)).map((s) => drawn(s, copperSide ? wMm : null));
  const [w, h] = [wMm.toFixed(2), hMm.toFixed(2)];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}" font-family="sans-serif"><title>${escaped(title)}</title>${body.join('')}</svg>\n`;
}

function drawn(shape: StripShape, mirrorMm: number | null): string {
  const X = (x: number) => (mirrorMm === null ? x : mirrorMm - x).toFixed(2);
  const n = (v: number) => v.toFixed(2);
  switch (shape.kind) {
    case 'strip':
      return `<rect x="${mirrorMm === null ? n(shape.x) : n(mirrorMm - shape.x - shape.w)}" y="${n(shape.y)}" width="${n(shape.w)}" height="${n(shape.h)}" fill="#ddd"/>`;
    case 'hole':
      return `<circle cx="${X(shape.x)}" cy="${n(shape.y)}" r="0.5" fill="#fff" stroke="#888" stroke-width="0.1"/>`;
    case 'cut':
      return `<path d="M${X(shape.x - 0.9)} ${n(shape.y - 0.9)}L${X(shape.x + 0.9)} ${n(shape.y + 0.9)}M${X(shape.x + 0.9)} ${n(shape.y - 0.9)}L${X(shape.x - 0.9)} ${n(shape.y + 0.9)}" stroke="#000" stroke-width="0.5"/>`;
    case 'link':
    case 'lead':
      return `<line x1="${X(shape.x1)}" y1="${n(shape.y1)}" x2="${X(shape.x2)}" y2="${n(shape.y2)}" stroke="#000" stroke-width="${shape.kind === 'link' ? 0.7 : 0.3}"${shape.kind === 'link' && shape.insulated ? ' stroke-dasharray="1.6 1.2"' : ''}/>`;
    case 'body':
      return shape.round
        ? `<ellipse cx="${n(shape.x + shape.w / 2)}" cy="${n(shape.y + shape.h / 2)}" rx="${n(shape.w / 2)}" ry="${n(shape.h / 2)}" fill="#fff" stroke="#000" stroke-width="0.25"/>`
        : `<rect x="${n(shape.x)}" y="${n(shape.y)}" width="${n(shape.w)}" height="${n(shape.h)}" rx="0.5" fill="#fff" stroke="#000" stroke-width="0.25"/>`;
    case 'pin':
      return `<circle cx="${n(shape.x)}" cy="${n(shape.y)}" r="${shape.wire ? 0.9 : 0.6}" fill="#000"/>`;
    case 'text':
      return `<text x="${X(shape.x)}" y="${n(shape.y)}" font-size="${shape.size}" text-anchor="${shape.anchor}">${escaped(shape.text)}</text>`;
  }
}
