import { PDFDocument, rgb, StandardFonts } from 'pdf-lib';
import { A4_MM, CHECK_LINE_MM, printable, PT_PER_MM } from '@/core/build/paper';
import { EDGE_MM, onCopper, stripDrawing } from './strip-drawing';
import type { Stripboard } from './on-strips';

const MARGIN_MM = 12;
const BELOW_MM = 30;
const VIEWS = [
  { copper: false, says: 'from the side of its parts' },
  { copper: true, says: 'from the side of its copper: lay it on the strips and cut at the crosses' },
] as const;

/** A board of strips at its own size: the side of its parts, and mirrored that of its copper. The same board gives the same bytes. */
export async function stripPdf(board: Stripboard, title: string): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  pdf.setTitle(title);
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const { wMm, hMm, shapes } = stripDrawing(board);
  const ink = (grey: number) => rgb(grey, grey, grey);
  for (const { copper, says } of VIEWS) {
    const w = Math.max(A4_MM.w, wMm + 2 * MARGIN_MM);
    const h = Math.max(A4_MM.h, hMm + MARGIN_MM + BELOW_MM);
    const page = pdf.addPage([w * PT_PER_MM, h * PT_PER_MM]);
    const X = (x: number) => (MARGIN_MM + (copper ? wMm - x : x)) * PT_PER_MM;
    const Y = (y: number) => (h - MARGIN_MM - y) * PT_PER_MM;
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
          const words = printable(s.text);
          const size = s.size * PT_PER_MM;
          const width = font.widthOfTextAtSize(words, size);
          const back = s.anchor === 'middle' ? width / 2 : s.anchor === 'end' ? width : 0;
          page.drawText(words, { x: X(s.x) - back, y: Y(s.y), size, font, color: ink(0) });
          break;
        }
      }
    const below = hMm + EDGE_MM;
    page.drawLine({
      start: { x: MARGIN_MM * PT_PER_MM, y: Y(below) },
      end: { x: (MARGIN_MM + CHECK_LINE_MM) * PT_PER_MM, y: Y(below) },
      thickness: 0.5,
      color: ink(0),
    });
    [`${CHECK_LINE_MM} mm: measure it on the print`, `${title}, ${says}`].forEach((text, n) =>
      page.drawText(printable(text), {
        x: MARGIN_MM * PT_PER_MM,
        y: Y(below + 6 + 5 * n),
        size: 3 * PT_PER_MM,
        font,
        color: ink(0),
      }),
    );
  }
  return pdf.save();
}
