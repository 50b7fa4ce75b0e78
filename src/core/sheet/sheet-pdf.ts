import type { Content } from 'pdfmake/interfaces';
import { arrangementWords, ratingWords } from '@/core/design/words';
import { summaryOf } from '@/core/picture/summary';
import { terraceSvg } from '@/core/picture/terrace-svg';
import type { Picture } from '@/core/picture/picture';
import { printed } from '@/core/build/letters';
import { heading, missing, pdfOf, table, tableOf, toFillIn, type PrintedOn } from './pdf';
import type { Report } from './report';
import { sheetTables } from './sheet-tables';

/** The sheet that stays with the box, as a PDF. */
export function sheetPdf(picture: Picture, report: Report, on: PrintedOn): Promise<Uint8Array> {
  const { design } = picture;
  const { plate, parts, margins, readings, tryFirst } = sheetTables(report);
  const content: Content[] = [
    title(picture),
    cautionBox(report.cautions),
    {
      columns: [
        [heading(plate.title), tableOf(plate, ['auto', '*'], { quiet: 0, bold: 1 })],
        { svg: terraceSvg(summaryOf(picture)), width: 175, alignment: 'right', margin: [0, 4, 0, 0] },
      ],
      columnGap: 14,
    },
    heading(parts.title),
    tableOf(parts, [68, 130, '*'], { quiet: 0, bold: 1 }),
    heading(margins.title),
    tableOf(margins, ['*', 'auto', 'auto', 'auto', 'auto'], { bold: 2 }),
    heading(readings.title),
    tableOf(toFillIn(readings, 3), ['auto', '*', 'auto', 'auto', 'auto'], { quiet: 0, bold: 3 }),
    ...(tryFirst.rows.length === 0
      ? []
      : [
          heading(tryFirst.title),
          table(
            ['auto', '*'],
            tryFirst.rows.map(([label, should, low, high]) => [
              { text: `${label}, ${should}`, bold: true },
              `Less: ${low} More: ${high}`,
            ]),
          ),
        ]),
    ...(report.changed.length === 0
      ? []
      : [
          heading('Last done to it, and why'),
          table(
            ['auto', '*', '*'],
            report.changed.map((c) => [{ text: c.day, quiet: true }, { text: c.what, bold: true }, c.why]),
          ),
        ]),
    ...(design.note === '' ? [] : [heading('Notes'), { text: printed(design.note) }]),
    ...missing([design.name, design.note, ...report.changed.flatMap((c) => [c.what, c.why])]),
  ];
  return pdfOf({ title: design.name, content, ...on });
}

const title = ({ design }: Picture): Content => ({
  columns: [
    [
      { text: printed(design.name), bold: true, fontSize: 14 },
      { text: printed(arrangementWords(design)), fontSize: 8.5 },
    ],
    { text: printed(ratingWords(design)), bold: true, fontSize: 13, alignment: 'right', width: 'auto' },
  ],
  columnGap: 12,
});

/** In the order of danger, read down and then across, within a firm frame. */
function cautionBox(cautions: readonly string[]): Content {
  const half = Math.ceil(cautions.length / 2);
  const column = (list: readonly string[]): Content => ({ stack: list.map((c) => ({ text: printed(`! ${c}`) })) });
  return {
    table: { widths: ['*', '*'], body: [[column(cautions.slice(0, half)), column(cautions.slice(half))]] },
    layout: { hLineWidth: () => 1.4, vLineWidth: (n) => (n === 1 ? 0 : 1.4) },
    margin: [0, 3, 0, 0],
  };
}
