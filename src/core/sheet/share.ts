import { arrangementWords, ratingWords } from '@/core/design/words';
import { summaryOf } from '@/core/picture/summary';
import { terraceSvg } from '@/core/picture/terrace-svg';
import type { Picture } from '@/core/picture/picture';
import { escaped } from '@/core/quantity/escaped';
import { asScript } from './design-inside';
import { logDays } from './log';
import type { Report } from './report';
import { sheetTables, type SheetTable } from './sheet-tables';

/** What a shared page shows beside the sheet. */
export interface Shared {
  /** The circuit as SVG. */
  circuit: string;
  /** Pictures of the log by the name they are kept under, as data addresses; one that could not be had is left out. */
  pictures: ReadonlyMap<string, string>;
  /** As 2026-01-31. */
  day: string;
}

const STYLE = `
body{margin:0;background:#f7f2e8;color:#2b2621;font:16px/1.45 system-ui,sans-serif}
main{max-width:960px;margin:0 auto;padding:24px 20px 60px}
h1{margin:0;font-size:28px}h2{margin:32px 0 6px;font-size:19px}
table{width:100%;border-collapse:collapse;font-size:14.5px}
th{font-weight:400;text-align:left;color:#5e554b}td,th{padding:4px 12px 4px 0;border-top:1px solid #d5c9b5;vertical-align:top}
.wide{overflow-x:auto}.wide svg{max-width:100%;height:auto}
.caution{border:2px solid #a8231a;padding:8px 14px}.caution p{margin:3px 0}
.fails{color:#a8231a;font-weight:700}.bold{font-weight:600}img{max-width:300px;margin:6px 8px 0 0}
@media print{body{background:#fff}}`;

/** One design as one page that opens anywhere without a network: sheet, terrace, circuit, readings, log. It runs nothing. */
export function sharedPage(
  { design, ...picture }: Picture,
  report: Report,
  { circuit, pictures, day }: Shared,
): string {
  const name = escaped(design.name);
  const { plate, parts, margins, readings, tryFirst } = sheetTables(report);
  return [
    '<!doctype html>',
    '<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">',
    `<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; img-src data:">`,
    `<title>${name}</title><style>${STYLE}</style></head><body><main>`,
    `<h1>${name}</h1><p><span class="bold">${escaped(ratingWords(design))}</span>, ${escaped(arrangementWords(design))}. Ember Rail, ${day}.</p>`,
    `<section class="caution" aria-label="Cautions">${report.cautions.map((c) => `<p>⚠ ${escaped(c)}</p>`).join('')}</section>`,
    section('The terrace', terraceSvg(summaryOf({ design, ...picture }))),
    ...[plate, parts].map(tableSection),
    section('Circuit', `<div class="wide">${circuit}</div>`),
    ...[margins, readings, tryFirst].map(tableSection),
    design.note === '' ? '' : section('Notes', `<p>${escaped(design.note).replace(/\n/g, '<br>')}</p>`),
    section('Log', logSection(design, pictures)),
    asScript(design),
    '</main></body></html>',
    '',
  ].join('\n');
}

const tableSection = ({ title, head, rows }: SheetTable): string =>
  rows.length === 0 ? '' : section(title, table(head, rows));

const section = (title: string, content: string): string => `<section><h2>${escaped(title)}</h2>${content}</section>`;

const table = (head: readonly string[], rows: readonly (readonly string[])[]): string =>
  [
    '<div class="wide"><table>',
    head.length > 0 ? `<tr>${head.map((h) => `<th scope="col">${escaped(h)}</th>`).join('')}</tr>` : '',
    ...rows.map(
      ([first = '', ...rest]) =>
        `<tr><th scope="row">${escaped(first)}</th>${rest.map((c) => `<td${c === 'fails' || c.startsWith('too ') ? ' class="fails"' : ''}>${escaped(c)}</td>`).join('')}</tr>`,
    ),
    '</table></div>',
  ].join('');

function logSection(design: Picture['design'], pictures: ReadonlyMap<string, string>): string {
  const days = logDays(design);
  if (days.length === 0) return '<p>Nothing was written down.</p>';
  return days
    .map((d) => {
      const entries = d.entries.map(({ entry: e }) => {
        const shown = e.photos.flatMap((id) => {
          const data = pictures.get(id);
          return data ? [`<img src="${escaped(data)}" alt="${escaped(`Picture of ${d.day}: ${e.what}`)}">`] : [];
        });
        return `<p><span class="bold">${escaped(e.what)}</span> ${escaped(e.why)}</p>${shown.join('')}`;
      });
      const read = d.read.length > 0 ? `<p>Read: ${escaped(d.read.join('; '))}.</p>` : '';
      return `<h3>${d.day}</h3>${entries.join('')}${read}`;
    })
    .join('');
}
