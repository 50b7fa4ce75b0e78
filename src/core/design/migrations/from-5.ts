import { filled, isRecord, type Json } from './json';

/**
 * Version 6 knows every output by the same members (rail, demand, window, regulator or none), consumers by their output,
 * what draws beside the load, figures of one's own data sheet and parts that are fixed.
 */
export function from5(d: Json): Json {
  return {
    ...d,
    version: 6,
    demand: filled(d, 'demand', { leastA: 0, window: null, range: null }),
    load: isRecord(d['load']) ? { ...d['load'], consumers: list(d['load']['consumers'], consumer) } : d['load'],
    transformer: filled(d, 'transformer', { windingsOnPlate: null, sealed: false }),
    reservoir: filled(d, 'reservoir', { gradeC: 85, balanceOhm: null }),
    regulator: regulator(d['regulator']),
    regulatorSheet: null,
    outputs: list(d['outputs'], output),
    indicator: null,
    heat: filled(d, 'heat', { rectifierSinkKPerW: null, fanA: null }),
    fixed: [],
  };
}

function list(value: unknown, each: (item: Json) => Json): unknown {
  return Array.isArray(value) ? value.map((item: unknown) => (isRecord(item) ? each(item) : item)) : value;
}

function consumer({ rail, ...rest }: Json): Json {
  return { ...rest, output: rail === 'minus' ? 'minus' : 'main', on: null, startA: null };
}

function regulator(value: unknown): unknown {
  if (!isRecord(value)) return value;
  const alone = { passes: 1, emitterOhm: 0, gain: null };
  if (value['kind'] === 'follower') return { ...alone, zenerW: 1.3, ...value };
  if (value['kind'] === 'error-transistor') return { ...alone, ...value };
  if (value['kind'] === 'bench') return { referencePct: 1, gain: null, opampRail: 'raw', ...value };
  return value;
}

/** Further outputs gave the volts of their regulator and had no window of their own. */
function output({ currentA, ...rest }: Json): Json {
  const made = regulator(rest['regulator']);
  return {
    ...rest,
    rail: 'plus',
    regulator: made,
    regulatorSheet: null,
    demand: {
      outputV: voltsOf(made),
      outputA: currentA,
      tolerancePct: 5,
      rippleVpp: 0.02,
      kind: 'current',
      typicalA: null,
      leastA: 0,
      window: null,
      range: null,
    },
  };
}

/** Volts a regulator of version 5 gave, V. */
function voltsOf(made: unknown): number {
  const r = (isRecord(made) ? made : {}) as Record<string, number>;
  switch ((made as { kind?: string } | null)?.kind) {
    case 'adjustable':
      return round(1.25 * (1 + (r['r2Ohm']! + (r['potOhm'] ?? 0)) / r['r1Ohm']!));
    case 'follower':
      return round(Math.max(r['zenerV']! - 0.8, 0.5));
    case 'error-transistor':
      return round((r['zenerV']! + 0.65) * (1 + (r['upperOhm']! + (r['potOhm'] ?? 0)) / r['lowerOhm']!));
    case 'bench':
      return r['maxV']!;
    default:
      return r['outputV']!;
  }
}

const round = (volts: number) => Math.min(1000, Math.max(0.5, Number(volts.toPrecision(3))));
