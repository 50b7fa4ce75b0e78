import Papa from 'papaparse';
import { harmless } from '@/core/drawer/csv';
import type { OrderLine } from './order';

/** The order as a file for a spreadsheet: what has to be bought, and what for. */
export function orderCsv(lines: readonly OrderLine[]): string {
  const head = [
    'order',
    'part',
    'bears',
    'wanted',
    'from_drawer',
    'came',
    'spares',
    'price_each_eur',
    'price_eur',
    'price_known_by',
    'for',
  ];
  const rows = lines.map((l) => [
    l.order,
    harmless(l.what),
    harmless(l.had),
    l.count,
    l.fromDrawer,
    l.came,
    l.spares,
    l.priceEachEur.toFixed(2),
    (l.order * l.priceEachEur).toFixed(2),
    l.typicalPrice ? 'rule of thumb' : 'from the drawer',
    harmless(l.wanted.map((w) => `${w.design}: ${w.count} (${w.references})`).join('; ')),
  ]);
  return `${Papa.unparse([head, ...rows])}\r\n`;
}
