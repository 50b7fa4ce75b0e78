import Papa from 'papaparse';
import type { Design } from '@/core/design/design';
import { harmless } from '@/core/drawer/csv';

/** The log as CSV (RFC 4180), a line an entry. */
export const logCsv = ({ log }: Pick<Design, 'log'>): string =>
  Papa.unparse({
    fields: ['day', 'what', 'why'],
    data: log.map((e) => [e.day, harmless(e.what), harmless(e.why)]),
  });
