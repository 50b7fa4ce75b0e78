import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** What an independent reader finds in a PDF. */
export interface ReadPdf {
  text: string;
  /** Each page's width and height, mm. */
  pages: [number, number][];
  fonts: { name: string; embedded: boolean }[];
  images: number;
  title: string;
}

const MM_PER_PT = 25.4 / 72;

export async function readPdf(bytes: Uint8Array): Promise<ReadPdf> {
  const document = await getDocument({ data: bytes.slice(), useSystemFonts: false, verbosity: 0 }).promise;
  const read: ReadPdf = { text: '', pages: [], fonts: [], images: 0, title: '' };
  const fonts = new Map<string, boolean>();
  for (let n = 1; n <= document.numPages; n++) {
    const page = await document.getPage(n);
    const [, , w, h] = page.view as [number, number, number, number];
    read.pages.push([Math.round(w * MM_PER_PT), Math.round(h * MM_PER_PT)]);
    const { items } = await page.getTextContent();
    read.text += `${items.map((i) => ('str' in i ? i.str + (i.hasEOL ? ' ' : '') : '')).join('')}\n`;
    const { fnArray, argsArray } = await page.getOperatorList();
    fnArray.forEach((op, k) => {
      if (op === OPS.paintImageXObject) read.images++;
      if (op === OPS.setFont) {
        const font = page.commonObjs.get((argsArray[k] as [string])[0]) as { name: string; missingFile?: boolean };
        fonts.set(font.name, font.missingFile !== true);
      }
    });
  }
  read.fonts = [...fonts].map(([name, embedded]) => ({ name, embedded }));
  read.title = ((await document.getMetadata()).info as { Title?: string }).Title ?? '';
  await document.destroy();
  return read;
}
