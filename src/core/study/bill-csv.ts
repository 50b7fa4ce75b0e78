import Papa from 'papaparse';
import { harmless } from '@/core/drawer/csv';
import type { BillLine } from './bill-sums';

/** The bill as a file for a spreadsheet. */
export function billCsv(lines: readonly BillLine[]): string {
  const rows = lines.map((l) => [
    l.references,
    harmless(l.what),
    l.count,
    harmless(l.needed),
    harmless(l.had),
    l.fromDrawer === null ? 'to buy' : `drawer: ${harmless(l.fromDrawer)}`,
    l.priceEachEur.toFixed(2),
    (l.count * l.priceEachEur).toFixed(2),
    l.typicalPrice ? 'rule of thumb' : 'from the drawer',
  ]);
  const head = [
    'references',
    'part',
    'count',
    'needed',
    'had',
    'source',
    'price_each_eur',
    'price_eur',
    'price_known_by',
  ];
  return `${Papa.unparse([head, ...rows])}\r\n`;
}
