import { PDFDocument, rgb } from 'pdf-lib';
import { paperFont } from '@/core/build/paper-font';
import { printed } from '@/core/build/letters';
import { A4_MM as A4, PT_PER_MM as PT } from '@/core/build/paper';
import type { Template } from './template';
import { templatePaper, templateStrokes, type Layer } from './template-strokes';

const GREY: Readonly<Record<Layer, number>> = { cut: 0, mark: 0.4, text: 0 };

/** Templates at their own size, a page each. */
export async function templatePdf(templates: readonly Template[], title: string): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  pdf.setTitle(title);
  const font = await paperFont(pdf);
  for (const template of templates) {
    const { left, below, w, h } = templatePaper(template);
    const [short, long] = w > h ? [h, w] : [w, h];
    const fits = short <= A4.w && long <= A4.h;
    const size = fits ? (w > h && w > A4.w ? [A4.h, A4.w] : h > A4.h ? [w, h] : [A4.w, A4.h]) : [w, h];
    const page = pdf.addPage([size[0]! * PT, size[1]! * PT]);
    const X = (x: number) => (left + x) * PT;
    const Y = (y: number) => (below + y) * PT;
    for (const s of templateStrokes(template)) {
      const color = rgb(GREY[s.layer], GREY[s.layer], GREY[s.layer]);
      if (s.kind === 'line')
        page.drawLine({ start: { x: X(s.x1), y: Y(s.y1) }, end: { x: X(s.x2), y: Y(s.y2) }, thickness: 0.5, color });
      else if (s.kind === 'circle')
        page.drawCircle({ x: X(s.x), y: Y(s.y), size: s.r * PT, borderWidth: 0.5, borderColor: color });
      else {
        const text = printed(s.text);
        const width = s.middle ? font.widthOfTextAtSize(text, s.mm * PT) : 0;
        page.drawText(text, { x: X(s.x) - width / 2, y: Y(s.y), size: s.mm * PT, font, color });
      }
    }
  }
  return pdf.save();
}
