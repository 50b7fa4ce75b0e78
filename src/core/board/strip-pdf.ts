import { PDFDocument, rgb } from 'pdf-lib';
import { paperFont } from '@/core/build/paper-font';
import { printed } from '@/core/build/letters';
import { PT_PER_MM } from '@/core/build/paper';
import { onCopper, stripDrawing } from './strip-drawing';
import { truePage } from './true-page';
import type { Stripboard } from './on-strips';

const VIEWS = [
  { copper: false, says: 'from the side of its parts' },
  { copper: true, says: 'from the side of its copper: lay it on the strips and cut at the crosses' },
] as const;

/** A board of strips at its own size: the side of its parts, and mirrored that of its copper. The same board gives the same bytes. */
export async function stripPdf(board: Stripboard, title: string): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  pdf.setTitle(title);
  const font = await paperFont(pdf);
  const { wMm, hMm, shapes } = stripDrawing(board);
  const ink = (grey: number) => rgb(grey, grey, grey);
  for (const { copper, says } of VIEWS) {
    const { page, X: right, Y } = truePage(pdf, font, { wMm, hMm, says: [title, says] });
    const X = (x: number) => right(copper ? wMm - x : x);
    const line = (x1: number, y1: number, x2: number, y2: number, mm: number, dash: number[] = []) =>
      page.drawLine({
        start: { x: X(x1), y: Y(y1) },
        end: { x: X(x2), y: Y(y2) },
        thickness: mm * PT_PER_MM,
        color: ink(0),
        dashArray: dash.map((d) => d * PT_PER_MM),
      });
    for (const s of shapes.filter((shape) => !copper || onCopper(shape)))
      switch (s.kind) {
        case 'strip':
          page.drawRectangle({
            x: Math.min(X(s.x), X(s.x + s.w)),
            y: Y(s.y + s.h),
            width: s.w * PT_PER_MM,
            height: s.h * PT_PER_MM,
            color: ink(0.87),
          });
          break;
        case 'hole':
          page.drawCircle({
            x: X(s.x),
            y: Y(s.y),
            size: 0.5 * PT_PER_MM,
            color: ink(1),
            borderColor: ink(0.5),
            borderWidth: 0.3,
          });
          break;
        case 'cut':
          line(s.x - 0.9, s.y - 0.9, s.x + 0.9, s.y + 0.9, 0.5);
          line(s.x - 0.9, s.y + 0.9, s.x + 0.9, s.y - 0.9, 0.5);
          break;
        case 'link':
        case 'lead':
          line(
            s.x1,
            s.y1,
            s.x2,
            s.y2,
            s.kind === 'link' ? 0.7 : 0.3,
            s.kind === 'link' && s.insulated ? [1.6, 1.2] : [],
          );
          break;
        case 'body':
          if (s.round)
            page.drawEllipse({
              x: X(s.x + s.w / 2),
              y: Y(s.y + s.h / 2),
              xScale: (s.w / 2) * PT_PER_MM,
              yScale: (s.h / 2) * PT_PER_MM,
              color: ink(1),
              borderColor: ink(0),
              borderWidth: 0.7,
            });
          else
            page.drawRectangle({
              x: X(s.x),
              y: Y(s.y + s.h),
              width: s.w * PT_PER_MM,
              height: s.h * PT_PER_MM,
              color: ink(1),
              borderColor: ink(0),
              borderWidth: 0.7,
            });
          break;
        case 'pin':
          page.drawCircle({ x: X(s.x), y: Y(s.y), size: (s.wire ? 0.9 : 0.6) * PT_PER_MM, color: ink(0) });
          break;
        case 'text': {
          const words = printed(s.text);
          const size = s.size * PT_PER_MM;
          const width = font.widthOfTextAtSize(words, size);
          const back = s.anchor === 'middle' ? width / 2 : s.anchor === 'end' ? width : 0;
          page.drawText(words, { x: X(s.x) - back, y: Y(s.y), size, font, color: ink(0) });
          break;
        }
      }
  }
  return pdf.save();
}
