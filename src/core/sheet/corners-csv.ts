import Papa from 'papaparse';
import { harmless } from '@/core/drawer/csv';
import type { Grid } from '@/core/judge/corners';

/** Every verdict in every corner as CSV (RFC 4180): a line each, its figure and its limit in SI. */
export function cornersCsv({ cells, rows }: Grid): string {
  const data = rows.flatMap((row) =>
    row.values.flatMap((found, n) =>
      found
        ? [
            [
              harmless(row.title),
              harmless(cells[n]!.words),
              found.state,
              found.figure.value,
              found.figure.unit,
              n === row.worst ? 'decides' : '',
            ],
          ]
        : [],
    ),
  );
  return `${Papa.unparse({ fields: ['verdict', 'corner', 'state', 'figure', 'unit', 'decides'], data })}\r\n`;
}
