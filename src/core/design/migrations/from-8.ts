import { filled, isRecord, type Json } from './json';

/** Version 9 keeps a log, the person's instruments, and what fed a supply while it was read. */
export function from8(d: Json): Json {
  const bench = filled(d, 'bench', {
    acTrueRms: true,
    inputOhm: 10e6,
    burdenV: 0.2,
    scopeFloorV: 0.01,
    probe: 1,
    thermometerK: 2,
    soak: [],
  });
  return { log: [], ...d, version: 9, bench: isRecord(bench) ? { ...bench, readings: fed(bench['readings']) } : bench };
}

const fed = (readings: unknown): unknown =>
  Array.isArray(readings) ? readings.map((r: unknown) => (isRecord(r) ? { fedFrom: 'mains', ...r } : r)) : readings;
