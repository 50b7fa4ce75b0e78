/**
 * Compares a computed result with a trusted one, field by field, each on its natural scale: levels against the rail's
 * mean, ripple against a thousandth of it, currents against the largest of their kind. Fields below a thousandth of
 * their scale are ignored, and so are figures a result declares soft.
 */

type Json = Record<string, unknown>;

export interface Difference {
  path: string;
  /** Null where the trusted result has none ('never reached'). */
  reference: number | null;
  candidate: number | null;
  relative: number;
}

/** Differences worst first. A field the candidate lacks counts as infinitely off. */
export function compareResults(reference: Json, candidate: Json): Difference[] {
  const soft = new Set(((reference['meta'] as Json | undefined)?.['soft'] as string[] | undefined) ?? []);
  const rows: Difference[] = [];
  for (const { path, value, scale } of fields(reference)) {
    const found = path.reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], candidate);
    if (value === null) {
      if (typeof found === 'number') {
        rows.push({ path: path.join('.'), reference: null, candidate: found, relative: Infinity });
      }
      continue;
    }
    if (soft.has(path.join('.')) || Math.abs(value) < 1e-3 * scale || value === 0) continue;
    const number = typeof found === 'number' && Number.isFinite(found) ? found : null;
    rows.push({
      path: path.join('.'),
      reference: value,
      candidate: number,
      relative: number === null ? Infinity : Math.abs(number - value) / Math.abs(value),
    });
  }
  return rows.sort((a, b) => b.relative - a.relative);
}

function* fields(reference: Json): Generator<{ path: string[]; value: number | null; scale: number }> {
  const source = reference['source'] as Record<string, number>;
  const rms = source['rms']!;
  for (const [key, value] of Object.entries(source)) yield { path: ['source', key], value, scale: Math.abs(value) };
  const rails = reference['rails'] as Record<string, number>[];
  const largestLoad = Math.max(...rails.map((r) => Math.abs(r['loadMeanA']!)), 1e-12);
  for (const [i, rail] of rails.entries()) {
    for (const [key, value] of Object.entries(rail)) {
      const scale = /ipple/.test(key)
        ? 1e-3 * Math.max(Math.abs(rail['meanV']!), Math.abs(rail['inputMeanV']!))
        : key === 'loadMeanA' || key === 'loadPowerW'
          ? Math.max(...rails.map((r) => Math.abs(r[key]!)))
          : Math.max(Math.abs(rail['meanV']!), rms);
      yield { path: ['rails', String(i), key], value, scale };
    }
  }
  for (const group of ['windings', 'diodes']) {
    const list = reference[group] as Record<string, number>[];
    const top = Math.max(...list.map((w) => Math.abs(w['rmsA']!)), 0);
    for (const [i, item] of list.entries()) {
      for (const [key, value] of Object.entries(item)) {
        const scale =
          group === 'windings' && key === 'meanA'
            ? Math.abs(item['rmsA']!) >= 1e-3 * top
              ? Math.abs(item['rmsA']!)
              : Infinity
            : key === 'peakReverseV'
              ? rms * Math.SQRT2
              : Math.max(...list.map((w) => Math.abs(w[key]!)));
        yield { path: [group, String(i), key], value, scale };
      }
    }
  }
  const lists: [string[], Record<string, number | string>, number][] = [];
  for (const [r, list] of (reference['elements'] as Record<string, number | string>[][]).entries()) {
    list.forEach((element, k) => lists.push([['elements', String(r), String(k)], element, rails[r]!['meanV']!]));
  }
  const lower = reference['doublerLowerCapacitor'] as Record<string, number | string> | undefined;
  if (lower) lists.push([['doublerLowerCapacitor'], lower, rails[0]!['meanV']!]);
  for (const [path, element, meanV] of lists) {
    for (const [key, value] of Object.entries(element)) {
      if (typeof value !== 'number') continue;
      const scale =
        key === 'rmsA'
          ? 1e-2 * largestLoad
          : key === 'meanA'
            ? Math.abs(element['rmsA'] as number)
            : 1e-3 * Math.abs(meanV);
      yield { path: [...path, key], value, scale };
    }
  }
  for (const run of ['start', 'step', 'dip']) {
    for (const [key, value] of Object.entries((reference[run] as Record<string, number | null> | undefined) ?? {})) {
      yield { path: [run, key], value, scale: Math.abs(value ?? 0) };
    }
  }
}
