import Papa from 'papaparse';
import { harmless } from '@/core/drawer/csv';
import type { Hole, Stripboard } from './on-strips';

/** A strip as it is lettered, from above: A to Z, then AA. */
export function stripName(strip: number): string {
  const letter = String.fromCharCode(65 + (strip % 26));
  return strip < 26 ? letter : stripName(Math.floor(strip / 26) - 1) + letter;
}

/** A hole as it is found: its strip's letter and its number from the left. */
export const holeName = ({ strip, hole }: Hole): string => `${stripName(strip)}${hole + 1}`;

/** What is done to a board and what goes where, a row each: cuts first, then links, then parts. RFC 4180. */
export function stripCsv({ cuts, links, parts }: Stripboard): string {
  const rows = [
    ['what', 'name', 'net', 'holes'],
    ...cuts.map((c) => ['cut', '', '', holeName(c)]),
    ...links.map((l) => [
      l.insulated ? 'link, insulated' : 'link, bare',
      '',
      l.net,
      `${holeName(l.from)} ${holeName(l.to)}`,
    ]),
    ...parts.map((p) => [
      p.wire ? 'wire' : 'part',
      p.ref,
      [...new Set(p.legs.map((l) => l.net))].join('; '),
      p.legs.map((l) => `${holeName(l.at)} ${l.name}`).join('; '),
    ]),
  ];
  return `${Papa.unparse(
    rows.map((row) => row.map(harmless)),
    { newline: '\r\n' },
  )}\r\n`;
}
