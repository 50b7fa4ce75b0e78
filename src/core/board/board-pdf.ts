import { LineCapStyle, PDFDocument, rgb, StandardFonts } from 'pdf-lib';
import { A4_MM, CHECK_LINE_MM, PT_PER_MM, printable } from '@/core/build/paper';
import { printed, PRINT_WORDS, printViews } from './board-print';
import type { EtchedBoard } from './etched';

const MARGIN_MM = 15;
const BELOW_MM = 30;

/** Every view of a board at its own size, a page each, with a line to check the printer by. The same board gives the same bytes. */
export async function boardPdf(
  board: EtchedBoard,
  title: string,
  volts: ReadonlyMap<string, string>,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  pdf.setTitle(title);
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const black = rgb(0, 0, 0);
  for (const view of printViews(board)) {
    const w = Math.max(A4_MM.w, board.wMm + 2 * MARGIN_MM);
    const h = Math.max(A4_MM.h, board.hMm + MARGIN_MM + BELOW_MM + 2 * MARGIN_MM);
    const page = pdf.addPage([w * PT_PER_MM, h * PT_PER_MM]);
    const X = (x: number) => (MARGIN_MM + x) * PT_PER_MM;
    const Y = (y: number) => (h - MARGIN_MM - y) * PT_PER_MM;
    for (const s of printed(board, view, volts))
      if (s.kind === 'dot')
        page.drawCircle({
          x: X(s.x),
          y: Y(s.y),
          size: (s.d / 2) * PT_PER_MM,
          color: s.ink === 'black' ? black : rgb(1, 1, 1),
        });
      else
        page.drawLine({
          start: { x: X(s.x1), y: Y(s.y1) },
          end: { x: X(s.x2), y: Y(s.y2) },
          thickness: s.w * PT_PER_MM,
          color: black,
          lineCap: LineCapStyle.Round,
        });
    const line = board.hMm + 15;
    page.drawLine({
      start: { x: X(0), y: Y(line) },
      end: { x: X(CHECK_LINE_MM), y: Y(line) },
      thickness: 0.5,
      color: black,
    });
    for (const x of [0, CHECK_LINE_MM])
      page.drawLine({
        start: { x: X(x), y: Y(line - 2) },
        end: { x: X(x), y: Y(line + 2) },
        thickness: 0.5,
        color: black,
      });
    [`${CHECK_LINE_MM} mm: measure it on the print`, title, PRINT_WORDS[view]].forEach((text, n) =>
      page.drawText(printable(text), { x: X(0), y: Y(line + 7 + 5 * n), size: 3 * PT_PER_MM, font, color: black }),
    );
  }
  return pdf.save();
}
