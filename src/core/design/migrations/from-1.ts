import { filled, type Json } from './json';

/** Version 2 knows filters, leakage, flat-topped mains and an unequal negative rail. */
export function from1(d: Json): Json {
  return {
    ...d,
    version: 2,
    demand: filled(d, 'demand', { negativeA: null }),
    mains: filled(d, 'mains', { flatTopPct: 0 }),
    transformer: filled(d, 'transformer', { leakageH: 0 }),
    filter: { before: [], after: [], bleederOhm: null },
    heater: null,
  };
}
