/** What gives direct current in place of mains, transformer and rectifier. All SI but for per cent (in names). */

export interface Battery {
  kind: 'battery';
  /** Open volts fresh, and where it is given up, V. */
  freshV: number;
  emptyV: number;
  /** Its own resistance, ohm. */
  resistanceOhm: number;
  /** What it holds between the two, Ah. */
  capacityAh: number;
  /** Whether a diode in its lead keeps swapped leads harmless. */
  reverseDiode: boolean;
}

export interface DcAdapter {
  kind: 'adapter';
  /** What its plate says it gives, V at A. */
  ratedV: number;
  ratedA: number;
  /** How far above its plate it stands without load, %. */
  idlePct: number;
  /** How far its volts may lie from all this, by spread and by the mains behind it, ± %. */
  spreadPct: number;
  /** Ripple it leaves at its rated current, V peak to peak. */
  rippleVpp: number;
  /** Where it cuts off, A; null for one that only goes soft. */
  limitA: number | null;
  reverseDiode: boolean;
}

export type DcSource = Battery | DcAdapter;

export type SourceLevel = 'low' | 'nominal' | 'high';

/**
 * Open-circuit volts, V: a battery empty, half used and fresh; an adapter at the ends of its spread. A battery's volts
 * are taken to fall evenly with the charge drawn.
 */
export function openVolts(source: DcSource, level: SourceLevel): number {
  if (source.kind === 'battery') {
    return level === 'low' ? source.emptyV : level === 'high' ? source.freshV : (source.freshV + source.emptyV) / 2;
  }
  const idleV = source.ratedV * (1 + source.idlePct / 100);
  return idleV * (1 + (level === 'low' ? -source.spreadPct : level === 'high' ? source.spreadPct : 0) / 100);
}

/** Own resistance, ohm: of an adapter, what takes it from its idle to its rated volts at its rated current. */
export function sourceOhm(source: DcSource): number {
  return source.kind === 'battery' ? source.resistanceOhm : (source.ratedV * source.idlePct) / 100 / source.ratedA;
}

/** Highest current it is made for, A; null where nothing says so. */
export function sourceLimitA(source: DcSource): number | null {
  return source.kind === 'battery' ? null : (source.limitA ?? source.ratedA);
}

/** The same source with all its volts shifted by so much, V: what a drag or an arrow key does to it. */
export function shiftedSource(source: DcSource, byV: number): DcSource {
  const tidy = (v: number) => Number(Math.max(0.5, v).toPrecision(4));
  if (source.kind === 'adapter') return { ...source, ratedV: Math.max(1, tidy(source.ratedV + byV)) };
  const freshV = tidy(source.freshV + byV);
  return { ...source, freshV, emptyV: Math.min(tidy(source.emptyV + byV), tidy(0.98 * freshV)) };
}

/** Typical hobby price, EUR: by what a battery holds, by what an adapter delivers. A rule of thumb. */
export function typicalSourcePrice(source: DcSource): number {
  return source.kind === 'battery'
    ? 1.5 + 0.22 * source.freshV * source.capacityAh
    : 5 + 0.35 * source.ratedV * source.ratedA;
}

export interface SourcePreset {
  id: string;
  name: string;
  source: DcSource;
}

/** Typical of each class; what stands on the part in hand, or is measured at it, wins. */
export const DC_SOURCES: readonly SourcePreset[] = [
  {
    id: 'lead-12',
    name: 'Lead-acid battery 12 V, 7 Ah',
    source: {
      kind: 'battery',
      freshV: 12.9,
      emptyV: 11,
      resistanceOhm: 0.035,
      capacityAh: 7,
      reverseDiode: true,
    },
  },
  {
    id: 'block-9',
    name: 'Block battery 9 V',
    source: { kind: 'battery', freshV: 9.5, emptyV: 6, resistanceOhm: 1.7, capacityAh: 0.5, reverseDiode: true },
  },
  {
    id: 'cells-6',
    name: 'Six alkaline cells, 9 V',
    source: { kind: 'battery', freshV: 9.6, emptyV: 5.4, resistanceOhm: 1.2, capacityAh: 2.2, reverseDiode: true },
  },
  {
    id: 'plain-12',
    name: 'DC adapter 12 V 1 A, unregulated',
    source: {
      kind: 'adapter',
      ratedV: 12,
      ratedA: 1,
      idlePct: 40,
      spreadPct: 12,
      rippleVpp: 1.5,
      limitA: null,
      reverseDiode: true,
    },
  },
  {
    id: 'regulated-12',
    name: 'DC adapter 12 V 2 A, regulated',
    source: {
      kind: 'adapter',
      ratedV: 12,
      ratedA: 2,
      idlePct: 2,
      spreadPct: 5,
      rippleVpp: 0.1,
      limitA: 2.4,
      reverseDiode: true,
    },
  },
];
