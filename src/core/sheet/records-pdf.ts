import type { Content } from 'pdfmake/interfaces';
import type { Design } from '@/core/design/design';
import { ratingWords } from '@/core/design/words';
import { formatQuantity as q } from '@/core/quantity/format';
import { billSums, type BillLine } from '@/core/study/bill-sums';
import { printed } from '@/core/build/letters';
import { logDays } from './log';
import { heading, missing, pdfOf, table, tableOf, toFillIn, type PrintedOn } from './pdf';
import type { Report } from './report';
import { sheetTables } from './sheet-tables';

const title = (design: Design, of: string): Content => ({
  text: printed(`${design.name}: ${of}`),
  bold: true,
  fontSize: 14,
});

/**
 * What was read and what was done, day by day, as a PDF.
 * @param pictures of the log by the name they are kept under, as JPEG or PNG data addresses; others are counted
 */
export function logPdf(
  design: Design,
  report: Report,
  pictures: ReadonlyMap<string, string>,
  on: PrintedOn,
): Promise<Uint8Array> {
  const days = logDays(design);
  const { readings } = sheetTables(report);
  const content: Content[] = [
    title(design, 'bench log'),
    { text: printed(ratingWords(design)) },
    heading(readings.title),
    tableOf(toFillIn(readings, 3), ['auto', '*', 'auto', 'auto', 'auto'], { quiet: 0, bold: 3 }),
    heading('Day by day, the newest first'),
    ...(days.length === 0 ? [{ text: 'Nothing was written down.' }] : []),
    ...days.flatMap((d): Content[] => [
      { text: d.day, bold: true, margin: [0, 5, 0, 0] },
      ...d.entries.flatMap(({ entry: e }): Content[] => {
        const shown = e.photos.filter((id) => pictures.has(id));
        const without = e.photos.length - shown.length;
        return [
          { text: [{ text: printed(e.what), bold: true }, printed(e.why === '' ? '' : ` ${e.why}`)] },
          ...(shown.length > 0
            ? [
                {
                  columns: shown.map((id) => ({ image: pictures.get(id)!, fit: [165, 130] as [number, number] })),
                  columnGap: 6,
                },
              ]
            : []),
          ...(without > 0 ? [{ text: `${without} more in the program.`, italics: true }] : []),
        ];
      }),
      ...(d.read.length > 0 ? [{ text: printed(`Read: ${d.read.join('; ')}.`) }] : []),
    ]),
    ...missing([design.name, ...design.log.flatMap((e) => [e.what, e.why])]),
  ];
  return pdfOf({ title: `${design.name}: bench log`, content, ...on });
}

/** Everything it is made of, to be ticked or ordered, as a PDF. */
export function billPdf(design: Design, lines: readonly BillLine[], on: PrintedOn): Promise<Uint8Array> {
  const { allEur, toBuyEur } = billSums(lines);
  const content: Content[] = [
    title(design, 'parts'),
    { text: printed(ratingWords(design)) },
    table(
      ['auto', '*', 'auto', 'auto', 'auto', 'auto', 'auto'],
      lines.map((l) => [
        l.references,
        l.what,
        String(l.count),
        l.needed,
        l.had,
        l.fromDrawer === null ? 'to buy' : `drawer: ${l.fromDrawer}`,
        `${q(l.count * l.priceEachEur, 'EUR')}${l.typicalPrice ? ' ≈' : ''}`,
      ]),
      ['On the drawing', 'Part', 'Count', 'Has to bear', 'Bears', 'From', 'Price'],
    ),
    {
      text: printed(
        `To buy ${q(toBuyEur, 'EUR')}; all of it would be ${q(allEur, 'EUR')}. ≈ is a rule of thumb for hobby quantities, not an offer.`,
      ),
      margin: [0, 6, 0, 0],
    },
    ...missing([design.name, ...lines.map((l) => l.fromDrawer ?? '')]),
  ];
  return pdfOf({ title: `${design.name}: parts`, content, ...on });
}
