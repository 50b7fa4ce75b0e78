import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { PT_PER_MM } from '@/core/build/paper';
import type { LabelDrawing, LabelSize } from './label';
import { NO_SHAPE, printed } from '@/core/build/letters';
import type { SheetTable } from './sheet-tables';

export type Paper = 'A4' | 'LETTER';

/** What a print is made on, and when. */
export interface PrintedOn {
  paper: Paper;
  /** As 2026-01-31. The same print of the same day is the same file. */
  day: string;
}

/** What a print is, beside what is in it. */
export interface Print extends PrintedOn {
  title: string;
  content: Content[];
}

const FONT = 'Roboto';
const FACES = {
  normal: 'Roboto-Regular.ttf',
  bold: 'Roboto-Medium.ttf',
  italics: 'Roboto-Italic.ttf',
  bolditalics: 'Roboto-MediumItalic.ttf',
};
const MARGIN_PT = 32;
/** Letter is the shorter page, and holds the same sheet. */
const LETTERS_PT = { A4: 7.2, LETTER: 6.8 } as const;
const FOOTER_PT = 16;

/** A PDF with its fonts in it, text that can be selected, black ink, and pages that are counted. */
export const pdfOf = (print: Print): Promise<Uint8Array> => made(definitionOf(print));

/** A drawing with text as a PDF: one page of its very size. */
export function drawingPdf(
  { texts, filled, lines }: LabelDrawing,
  { wMm, hMm }: LabelSize,
  title: string,
  day: string,
): Promise<Uint8Array> {
  const svg = [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${wMm} ${hMm}">`,
    ...lines.map(({ d, thickMm }) => `<path d="${d}" fill="none" stroke="black" stroke-width="${thickMm}"/>`),
    ...filled.map((d) => `<path d="${d}" fill="black"/>`),
    '</svg>',
  ].join('');
  return made({
    ...aboutIt(title, day),
    pageSize: { width: wMm * PT_PER_MM, height: hMm * PT_PER_MM },
    pageMargins: 0,
    content: [
      { svg, width: wMm * PT_PER_MM, absolutePosition: { x: 0, y: 0 } },
      ...texts.map((t) => ({
        text: printed(t.text),
        bold: t.bold,
        fontSize: t.letterMm * PT_PER_MM,
        lineHeight: 1,
        noWrap: true,
        absolutePosition: { x: t.xMm * PT_PER_MM, y: (t.yMm - ASCENT * t.letterMm) * PT_PER_MM },
      })),
    ],
  });
}

/** From the top of a line to what its letters stand on, of their size; the font's own. */
const ASCENT = 0.927;

async function made(definition: TDocumentDefinitions): Promise<Uint8Array> {
  const [{ default: pdfmake }, { default: faces }] = await Promise.all([
    import('pdfmake'),
    import('pdfmake/build/vfs_fonts.js'),
  ]);
  const maker = pdfmake as unknown as Maker;
  for (const [name, data] of Object.entries(faces as unknown as Record<string, string>))
    maker.virtualfs.writeFileSync(name, data, 'base64');
  maker.setFonts({ [FONT]: FACES });
  // Nothing a print is made of lies anywhere else.
  maker.setUrlAccessPolicy(() => false);
  maker.setLocalAccessPolicy?.(() => false);
  return new Uint8Array(await maker.createPdf(definition).getBuffer());
}

/** What of the maker is used: its types know the browser's half alone. */
interface Maker {
  virtualfs: { writeFileSync(name: string, data: string, encoding: 'base64'): void };
  setFonts(fonts: Record<string, typeof FACES>): void;
  setUrlAccessPolicy(allowed: () => boolean): void;
  /** On a server alone. */
  setLocalAccessPolicy?(allowed: () => boolean): void;
  createPdf(definition: TDocumentDefinitions): { getBuffer(): Promise<ArrayLike<number>> };
}

/** What is the same in all of them, with a date that does not move. */
function aboutIt(title: string, day: string, fontSize: number = LETTERS_PT.A4) {
  const at = new Date(`${day}T12:00:00Z`);
  return {
    info: { title, creator: 'Ember Rail', producer: 'Ember Rail', creationDate: at, modDate: at },
    defaultStyle: { font: FONT, fontSize, lineHeight: 1.02, color: 'black' },
  };
}

function definitionOf({ title, day, paper, content }: Print): TDocumentDefinitions {
  return {
    ...aboutIt(title, day, LETTERS_PT[paper]),
    pageSize: paper,
    pageMargins: [MARGIN_PT, MARGIN_PT, MARGIN_PT, FOOTER_PT + 14],
    footer: (page, of) => ({
      columns: [
        { text: printed(`${title} · Ember Rail, ${day}`), alignment: 'left' },
        { text: `${page} / ${of}`, alignment: 'right', width: 50 },
      ],
      fontSize: 7,
      margin: [MARGIN_PT, 4, MARGIN_PT, 0],
    }),
    content,
  };
}

export const heading = (text: string): Content => ({
  text: printed(text),
  bold: true,
  fontSize: 9,
  margin: [0, 4, 0, 1],
});

/** A table of the sheet: the column that names is quiet, the one that matters bold. */
export const tableOf = (
  { head, rows }: SheetTable,
  widths: Parameters<typeof table>[0],
  { quiet = -1, bold = -1 }: { quiet?: number; bold?: number },
): Content =>
  table(
    widths,
    rows.map((row) => row.map((text, n): Cell => ({ text, quiet: n === quiet, bold: n === bold || LOUD.test(text) }))),
    head,
  );

/** A table with a line to write on where a column is still empty. */
export const toFillIn = (table: SheetTable, column: number): SheetTable => ({
  ...table,
  rows: table.rows.map((row) => row.map((text, n) => (n === column && text === '' ? '__________' : text))),
});

/** What has to be seen at once: a verdict that does not hold, a reading that is out. */
const LOUD = /^(fails|tight|too (low|high))$/;

/** Said where letters were left without a shape: the file of the design has them. */
export const missing = (texts: readonly string[]): Content[] =>
  texts.some((t) => printed(t).includes(NO_SHAPE))
    ? [
        {
          text: `${NO_SHAPE} stands for a letter this print has no shape for; the design’s own file has it.`,
          fontSize: 7,
          margin: [0, 6, 0, 0],
        },
      ]
    : [];

export type Cell = string | { text: string; bold?: boolean; quiet?: boolean };

/** A table with a thin rule between its rows. */
export function table(
  widths: (number | '*' | 'auto')[],
  rows: readonly (readonly Cell[])[],
  head: readonly string[] = [],
): Content {
  const quiet = '#444444';
  const cell = (c: Cell): TableCell =>
    typeof c === 'string'
      ? { text: printed(c) }
      : { text: printed(c.text), bold: c.bold ?? false, ...(c.quiet ? { color: quiet } : {}) };
  return {
    table: {
      widths,
      headerRows: head.length > 0 ? 1 : 0,
      dontBreakRows: true,
      body: [
        ...(head.length > 0 ? [head.map((text): TableCell => ({ text: printed(text), color: quiet }))] : []),
        ...rows.map((r) => r.map(cell)),
      ],
    },
    layout: {
      hLineWidth: (n) => (n === 0 ? 0 : 0.4),
      vLineWidth: () => 0,
      hLineColor: () => '#999999',
      paddingLeft: () => 0,
      paddingRight: () => 6,
      paddingTop: () => 0.6,
      paddingBottom: () => 0.3,
    },
  };
}
