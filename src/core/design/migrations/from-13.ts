import { eachFilled, isRecord, type Json } from './json';

const hasRows = (list: unknown): boolean => Array.isArray(list) && list.length > 0;

/** Version 14 keeps how far a supply is, the pictures of its log, and the height of parts that came out of the drawer. */
export const from13 = (d: Json): Json => {
  const { bench } = d;
  const measured = isRecord(bench) && (hasRows(bench['readings']) || hasRows(bench['loadLine']));
  return {
    stage: measured ? 'measured' : 'sketch',
    ...d,
    version: 14,
    picked: eachFilled(d, 'picked', { heightMm: null }),
    log: eachFilled(d, 'log', { photos: [] }),
  };
};
