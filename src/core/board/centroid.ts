import Papa from 'papaparse';
import type { EtchedBoard } from './etched';

/** Where each part's middle is, mm from the lower left corner, and its turn, for whoever places them: CSV. */
export function centroidCsv({ parts, hMm }: EtchedBoard): string {
  return Papa.unparse(
    {
      fields: ['part', 'value', 'side', 'x mm', 'y mm', 'turn °'],
      data: parts
        .filter((p) => !p.wire)
        .map(({ ref, value, body, turn }) => [
          ref,
          value,
          'above',
          ((body.x0 + body.x1) / 2).toFixed(2),
          (hMm - (body.y0 + body.y1) / 2).toFixed(2),
          90 * turn,
        ]),
    },
    { newline: '\r\n' },
  );
}
