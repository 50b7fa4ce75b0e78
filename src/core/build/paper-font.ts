import type { PDFDocument, PDFFont } from 'pdf-lib';

/** The font of every print, put into the file with the letters it uses: it looks the same on any machine. */
export async function paperFont(pdf: PDFDocument): Promise<PDFFont> {
  const [{ default: fontkit }, { default: faces }] = await Promise.all([
    import('@pdf-lib/fontkit'),
    import('pdfmake/build/vfs_fonts.js'),
  ]);
  pdf.registerFontkit(fontkit);
  const regular = (faces as unknown as Record<string, string>)['Roboto-Regular.ttf']!;
  return pdf.embedFont(regular, { subset: true });
}
