import { rgb, type PDFDocument, type PDFFont, type PDFPage } from 'pdf-lib';
import { printed } from '@/core/build/letters';
import { A4_MM, CHECK_LINE_MM, PT_PER_MM } from '@/core/build/paper';

const MARGIN_MM = 15;
/** Below a drawing: the line the print is checked by, and what it is. */
const BELOW_MM = 35;

/** A page for a drawing at its own size: its places in points from millimetres rightwards and downwards. */
export interface TruePage {
  page: PDFPage;
  X(mm: number): number;
  Y(mm: number): number;
}

/** Adds a page no smaller than A4 for a drawing, with a line to check the printer by and what it is under it. */
export function truePage(
  pdf: PDFDocument,
  font: PDFFont,
  { wMm, hMm, says }: { wMm: number; hMm: number; says: readonly string[] },
): TruePage {
  const w = Math.max(A4_MM.w, wMm + 2 * MARGIN_MM);
  const h = Math.max(A4_MM.h, hMm + 2 * MARGIN_MM + BELOW_MM);
  const page = pdf.addPage([w * PT_PER_MM, h * PT_PER_MM]);
  const X = (mm: number) => (MARGIN_MM + mm) * PT_PER_MM;
  const Y = (mm: number) => (h - MARGIN_MM - mm) * PT_PER_MM;
  const color = rgb(0, 0, 0);
  const line = hMm + 15;
  page.drawLine({ start: { x: X(0), y: Y(line) }, end: { x: X(CHECK_LINE_MM), y: Y(line) }, thickness: 0.5, color });
  for (const x of [0, CHECK_LINE_MM])
    page.drawLine({ start: { x: X(x), y: Y(line - 2) }, end: { x: X(x), y: Y(line + 2) }, thickness: 0.5, color });
  [`${CHECK_LINE_MM} mm: measure it on the print`, ...says].forEach((text, n) =>
    page.drawText(printed(text), { x: X(0), y: Y(line + 7 + 5 * n), size: 3 * PT_PER_MM, font, color }),
  );
  return { page, X, Y };
}
