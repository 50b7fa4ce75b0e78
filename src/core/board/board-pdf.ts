import { LineCapStyle, PDFDocument, rgb } from 'pdf-lib';
import { paperFont } from '@/core/build/paper-font';
import { PT_PER_MM } from '@/core/build/paper';
import { printed, PRINT_WORDS, printViews } from './board-print';
import type { EtchedBoard } from './etched';
import { truePage } from './true-page';

/** Every view of a board at its own size, a page each, with a line to check the printer by. The same board gives the same bytes. */
export async function boardPdf(
  board: EtchedBoard,
  title: string,
  volts: ReadonlyMap<string, string>,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  pdf.setTitle(title);
  const font = await paperFont(pdf);
  const black = rgb(0, 0, 0);
  for (const view of printViews(board)) {
    const { page, X, Y } = truePage(pdf, font, { wMm: board.wMm, hMm: board.hMm, says: [title, PRINT_WORDS[view]] });
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
  }
  return pdf.save();
}
