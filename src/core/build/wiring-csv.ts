import Papa from 'papaparse';
import { harmless } from '@/core/drawer/csv';
import type { WireRow } from './wiring';

const short = (value: number | undefined) => (value === undefined ? '' : String(Number(value.toPrecision(3))));

/** The wiring list, a row a wire. RFC 4180. */
export function wiringCsv(rows: readonly WireRow[]): string {
  return Papa.unparse(
    [
      ['from', 'to', 'net', 'A RMS', 'A peak', 'V to ground at most', 'mm long', 'mm2', 'AWG', 'colour', 'ends'],
      ...rows.map((r) => [
        r.from,
        r.to,
        r.net,
        short(r.rmsA?.value),
        short(r.peakA?.value),
        short(r.volts.value),
        short(r.length?.value),
        String(r.size.mm2),
        String(r.size.awg),
        r.colour,
        r.ends,
      ]),
    ].map((row) => row.map(harmless)),
    { newline: '\r\n' },
  );
}
