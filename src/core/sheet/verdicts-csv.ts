import Papa from 'papaparse';
import { harmless } from '@/core/drawer/csv';
import type { Verdict } from '@/core/judge/verdict';

/** Every verdict as CSV (RFC 4180): its state, its figure and its limit in SI, the corner that decides, and the sentence. */
export const verdictsCsv = (verdicts: readonly Verdict[]): string =>
  `${Papa.unparse({
    fields: ['verdict', 'state', 'figure', 'unit', 'relation', 'limit', 'corner', 'sentence'],
    data: verdicts.map((v) => [
      harmless(v.title),
      v.state,
      v.figure.value,
      v.figure.unit,
      v.relation,
      v.limit,
      harmless(v.figure.condition ?? ''),
      harmless(v.sentence),
    ]),
  })}\r\n`;
