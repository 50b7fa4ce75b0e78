/** One secondary as it comes: volts at its rated current, and that current. */
export interface Secondary {
  volts: number;
  amps: number;
}

export type Combined = { ok: true; volts: number; amps: number; how: string } | { ok: false; why: string };

/** Windings whose volts differ by more than this share must not be joined in parallel. */
const PARALLEL_ALIKE = 0.02;

/** Windings in series, each in phase (aiding) or against it: volts add with their sign, the thinnest wire rules. */
export function inSeries(windings: readonly (Secondary & { aiding: boolean })[]): Combined {
  const volts = windings.reduce((sum, w) => sum + (w.aiding ? w.volts : -w.volts), 0);
  if (Math.abs(volts) < 1e-9) return { ok: false, why: 'They cancel: join the end of one to the start of the other.' };
  return {
    ok: true,
    volts: Math.abs(volts),
    amps: Math.min(...windings.map((w) => w.amps)),
    how: 'end to start, volts add; the current of the thinnest winding rules',
  };
}

/** Windings in parallel: only identical ones, in phase. */
export function inParallel(windings: readonly Secondary[]): Combined {
  const volts = windings[0]!.volts;
  const off = Math.max(...windings.map((w) => Math.abs(w.volts / volts - 1)));
  if (off > PARALLEL_ALIKE) {
    return { ok: false, why: 'Their volts differ: the higher would drive current through the lower, load or not.' };
  }
  return {
    ok: true,
    volts,
    amps: windings.reduce((sum, w) => sum + w.amps, 0),
    how: 'start to start and end to end; against phase it is a short',
  };
}

/** Two cores with their primaries in series on one mains: each gets half of it when they are alike, and only then. */
export function primariesInSeries(a: Secondary, b: Secondary): Combined {
  const alike = Math.abs(a.volts / b.volts - 1) < PARALLEL_ALIKE && Math.abs(a.amps / b.amps - 1) < 0.1;
  if (!alike) {
    return {
      ok: false,
      why: 'The two are not alike: under load the mains would not share in halves, and one core saturates.',
    };
  }
  return {
    ok: true,
    volts: a.volts / 2 + b.volts / 2,
    amps: Math.min(a.amps, b.amps),
    how: 'each primary gets half the mains; secondaries in series give one core’s volts, at half the flux and little hum',
  };
}

/** A tap at a share of the turns: its volts, and the current its own stretch of wire bears. */
export function tapOf(winding: Secondary, share: number): Combined {
  if (!(share > 0 && share <= 1)) return { ok: false, why: 'A tap lies between nothing and the whole winding.' };
  return {
    ok: true,
    volts: winding.volts * share,
    amps: winding.amps,
    how: 'volts by the share of the turns; the wire is the same',
  };
}
