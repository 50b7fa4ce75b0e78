import Papa from 'papaparse';
import { harmless } from '@/core/drawer/csv';
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
          harmless(value),
          'above',
          ((body.x0 + body.x1) / 2).toFixed(2),
          (hMm - (body.y0 + body.y1) / 2).toFixed(2),
          90 * turn,
        ]),
    },
    { newline: '\r\n' },
  );
}

/** Links of a one-sided board, wires that leave it, and its screws, mm from the lower left corner: CSV. */
export function boardCsv(board: EtchedBoard): string {
  const { parts, links, vias, holes, hMm, branches } = board;
  const at = (x: number, y: number) => `${x.toFixed(2)} ${(hMm - y).toFixed(2)}`;
  const rows = [
    ['what', 'name', 'net', 'mm'],
    ...links.map((l) => ['link', '', branches[l.branch]!.net, `${at(l.x1, l.y1)}; ${at(l.x2, l.y2)}`]),
    ...vias.map((v) => ['through', '', branches[v.branch]!.net, at(v.xMm, v.yMm)]),
    ...parts.map((p) => [
      p.wire ? 'wire' : 'part',
      p.wire ? p.ref : `${p.ref} ${p.value}`,
      [...new Set(p.pads.map((pad) => pad.net))].join('; '),
      p.pads.map((pad) => `${at(pad.xMm, pad.yMm)} ${pad.name}`).join('; '),
    ]),
    ...holes.map((h) => ['screw', '', '', at(h.xMm, h.yMm)]),
  ];
  return `${Papa.unparse(
    rows.map((row) => row.map(harmless)),
    { newline: '\r\n' },
  )}\r\n`;
}
