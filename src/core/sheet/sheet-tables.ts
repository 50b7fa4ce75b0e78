import { figureText } from '@/core/study/figure';
import type { Report } from './report';

/** A table of the sheet in words, whatever it is written on. */
export interface SheetTable {
  title: string;
  /** Empty where a table explains itself. */
  head: readonly string[];
  rows: readonly (readonly string[])[];
}

export type TableName = 'plate' | 'parts' | 'margins' | 'readings' | 'tryFirst';

/** The tables of a sheet, in their order; the same words on paper, in a page and in a wiki. */
export function sheetTables(report: Report): Record<TableName, SheetTable> {
  return {
    plate: { title: 'Rating plate', head: [], rows: report.plate },
    parts: {
      title: 'What it is made of',
      head: [],
      rows: report.parts.map((p) => [p.station, p.what, p.detail]),
    },
    margins: {
      title: 'Margins, simulated, at the corner that decides',
      head: ['Verdict', 'State', 'Figure', 'Limit', 'At'],
      rows: report.margins.map((m) => [m.title, m.state, figureText(m.figure), m.limit, m.condition]),
    },
    readings: {
      title: 'Expected and read',
      head: ['Stage', 'Point', 'Expected', 'Read', 'Judged'],
      rows: report.readings.map((r) => [r.stage, r.label, r.expected, r.read, r.judged]),
    },
    tryFirst: {
      title: 'When it fails, try first: the first one outside its window is where to look',
      head: ['Point', 'Should read', 'If less', 'If more'],
      rows: report.tryFirst.map((t) => [t.label, t.should, t.low, t.high]),
    },
  };
}
