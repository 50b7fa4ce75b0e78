import { mainsForReadings } from '@/core/bench/readings';
import { saidVolts } from '@/core/bench/said-volts';
import { testPoints } from '@/core/bench/test-points';
import { circuitDrawing } from '@/core/build/circuit/circuit-drawing';
import { circuitSvg } from '@/core/build/circuit/circuit-svg';
import { resistorRatings } from '@/core/build/circuit/resistor-ratings';
import type { Design } from '@/core/design/design';
import { pictureOf } from '@/core/judge/picture';
import { netlistOf } from '@/core/netlist/netlist-of';
import { LABEL_MM, labelDrawing, labelOf, labelSvg } from '@/core/sheet/label';
import { sheetMarkdown } from '@/core/sheet/markdown';
import { drawingPdf } from '@/core/sheet/pdf';
import { report } from '@/core/sheet/report';
import { sharedPage } from '@/core/sheet/share';
import { sheetPdf } from '@/core/sheet/sheet-pdf';
import { verdictsCsv } from '@/core/sheet/verdicts-csv';
import { billOf } from '@/core/study/bill';
import { mostOf } from '@/core/study/most';
import type { NamedFile } from './board-files';

/** What of a design goes onto paper or to somebody else, as it was asked for. @throws SolveError */
export async function sheetFiles(
  design: Design,
  asked: { sheet: boolean; verdicts: boolean; share: boolean; label: boolean },
): Promise<NamedFile[]> {
  const day = new Date().toISOString().slice(0, 10);
  const { picture, study } = pictureOf(design);
  const points = testPoints(design, mainsForReadings(design));
  const files: NamedFile[] = [];
  if (asked.sheet || asked.share) {
    const sheet = report(picture, points, mostOf(design));
    if (asked.sheet)
      files.push(
        ['sheet.pdf', await sheetPdf(picture, sheet, { paper: 'A4', day })],
        ['sheet.md', sheetMarkdown(picture, sheet, day)],
      );
    if (asked.share) {
      const netlist = netlistOf(design);
      const drawing = circuitDrawing(netlist, saidVolts(netlist, points), resistorRatings(netlist, billOf(study)));
      const circuit = circuitSvg(drawing, 'rectangles', design.name);
      files.push(['share.html', sharedPage(picture, sheet, { circuit, pictures: new Map(), day })]);
    }
  }
  if (asked.verdicts) files.push(['verdicts.csv', verdictsCsv(picture.verdicts)]);
  if (asked.label) {
    const size = { wMm: LABEL_MM.width, hMm: LABEL_MM.height };
    const label = labelOf(design, { hazard: picture.hazard, day, kept: null });
    files.push(
      ['label.svg', labelSvg(label, size)],
      ['label.pdf', await drawingPdf(labelDrawing(label, size), size, design.name, day)],
    );
  }
  return files;
}
