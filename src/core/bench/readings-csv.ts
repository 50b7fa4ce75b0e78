import Papa from 'papaparse';
import type { Design } from '@/core/design/design';
import { harmless } from '@/core/drawer/csv';
import { pointNames } from './stages';

/** Every reading of the power-up as CSV (RFC 4180), in SI, in the order it was read. */
export function readingsCsv(design: Design): string {
  const names = pointNames(design);
  return `${Papa.unparse({
    fields: ['at', 'point', 'what', 'value', 'unit', 'mains_v', 'fed_from'],
    data: design.bench.readings.map((r) => [
      r.at,
      harmless(r.point),
      harmless(names[r.point] ?? r.point),
      r.value,
      r.point === 'sink-warm' ? '°C' : r.point === 'load-current' ? 'A' : 'V',
      r.mainsV,
      r.fedFrom,
    ]),
  })}\r\n`;
}
