'use client';

import { Download } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { Picture } from '@/core/picture/picture';
import type { Report } from '@/core/sheet/report';
import type { Paper } from '@/core/sheet/pdf';
import { Alert } from '@/ui/alert';
import { download, downloadDesign, fileName, save } from '@/ui/download';
import { askCircuit } from './ask-circuit';
import { picturesOfLog } from './pictures-of-log';

type What =
  'PDF' | 'Markdown' | 'Shared page' | 'Bench log' | 'Parts list' | 'Verdicts' | 'Readings' | 'Terrace' | 'JSON';

const ALSO: readonly { what: What; says: string }[] = [
  { what: 'Bench log', says: 'PDF: readings and days, with pictures' },
  { what: 'Parts list', says: 'PDF: everything it is made of' },
  { what: 'Shared page', says: 'HTML: opens anywhere, with the design in it' },
  { what: 'Markdown', says: 'for a wiki, with the design in it' },
  { what: 'Verdicts', says: 'CSV' },
  { what: 'Readings', says: 'CSV' },
  { what: 'Terrace', says: 'SVG' },
  { what: 'JSON', says: 'the design itself' },
];

/** Everything of the sheet that can be taken along as a file. */
export function TakeAlong({
  picture,
  page,
  paper,
  children,
}: {
  picture: Picture;
  page: Report;
  paper: Paper;
  /** What stands beside the first of them. */
  children: ReactNode;
}) {
  const [making, setMaking] = useState<What | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { design } = picture;
  const file = fileName(design.name);
  const day = new Date().toISOString().slice(0, 10);
  const savePdf = (name: string, bytes: Uint8Array) =>
    save(`${file}-${name}.pdf`, new Blob([bytes.slice().buffer], { type: 'application/pdf' }));

  const make: Record<What, () => Promise<void>> = {
    PDF: async () => {
      const { sheetPdf } = await import('@/core/sheet/sheet-pdf');
      savePdf('sheet', await sheetPdf(picture, page, { paper, day }));
    },
    'Bench log': async () => {
      const [{ logPdf }, pictures] = await Promise.all([import('@/core/sheet/records-pdf'), picturesOfLog(design)]);
      savePdf('log', await logPdf(design, page, pictures, { paper, day }));
    },
    'Parts list': async () => {
      const [{ billPdf }, { bill }] = await Promise.all([import('@/core/sheet/records-pdf'), askCircuit(design)]);
      savePdf('parts', await billPdf(design, bill, { paper, day }));
    },
    'Shared page': async () => {
      const [{ sharedPage }, { circuit }, pictures] = await Promise.all([
        import('@/core/sheet/share'),
        askCircuit(design),
        picturesOfLog(design),
      ]);
      download(`${file}.html`, sharedPage(picture, page, { circuit, pictures, day }), 'text/html');
    },
    Markdown: async () => {
      const { sheetMarkdown } = await import('@/core/sheet/markdown');
      download(`${file}.md`, sheetMarkdown(picture, page, day), 'text/markdown');
    },
    Verdicts: async () => {
      const { verdictsCsv } = await import('@/core/sheet/verdicts-csv');
      download(`${file}-verdicts.csv`, verdictsCsv(picture.verdicts), 'text/csv');
    },
    Readings: async () => {
      const { readingsCsv } = await import('@/core/bench/readings-csv');
      download(`${file}-readings.csv`, readingsCsv(design), 'text/csv');
    },
    Terrace: async () => {
      const [{ terraceSvg }, { summaryOf }] = await Promise.all([
        import('@/core/picture/terrace-svg'),
        import('@/core/picture/summary'),
      ]);
      download(`${file}-terrace.svg`, terraceSvg(summaryOf(picture)), 'image/svg+xml');
    },
    JSON: () => Promise.resolve(downloadDesign(design)),
  };

  async function take(what: What) {
    setMaking(what);
    setTrouble(null);
    try {
      await make[what]();
    } catch (error) {
      setTrouble(`${what} was not made: ${error instanceof Error ? error.message : String(error)}`);
    }
    setMaking(null);
  }

  return (
    <section aria-label="Take it along" className="print:hidden">
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="btn btn-main" disabled={making !== null} onClick={() => void take('PDF')}>
          <Download size={16} /> {making === 'PDF' ? 'Making…' : 'PDF'}
        </button>
        {children}
      </div>
      <ul aria-label="Also as a file" className="mt-2 flex flex-wrap gap-1.5">
        {ALSO.map(({ what, says }) => (
          <li key={what}>
            <button
              type="button"
              className="btn btn-bare"
              title={says}
              disabled={making !== null}
              onClick={() => void take(what)}
            >
              <Download size={15} /> {making === what ? 'Making…' : what}
            </button>
          </li>
        ))}
      </ul>
      {trouble && <Alert className="pt-1">{trouble}</Alert>}
    </section>
  );
}
