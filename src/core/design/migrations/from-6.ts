import { filled, isRecord, type Json } from './json';

/** Version 7 knows more of the part in hand: its package and safe area, and the diode by two points of its data sheet. */
export function from6(d: Json): Json {
  const { outputs } = d;
  return {
    ...d,
    version: 7,
    rectifier: filled(d, 'rectifier', { sheet: null }),
    regulatorSheet: sheet(d['regulatorSheet']),
    outputs: Array.isArray(outputs)
      ? outputs.map((o: unknown) => (isRecord(o) ? { ...o, regulatorSheet: sheet(o['regulatorSheet']) } : o))
      : outputs,
  };
}

function sheet(value: unknown): unknown {
  return isRecord(value) ? { package: null, powerW: null, breakdownV: null, ...value } : value;
}
