import type { Circuit } from '@/core/circuit/assemble';

/** The mains as the windings see it. */
export interface Mains {
  /** Phase of the sine at t = 0, rad. */
  phase: number;
  /** EMF at t = 0 against its usual value: 1, or 0 while the mains is missing. */
  factor: number;
  /** How fast the factor grows, 1/s; nothing for a mains that keeps its height. */
  factorPerS?: number;
}

export const RUNNING_MAINS: Mains = { phase: 0, factor: 1 };

/** Common EMF at time t, V. */
export function emf(circuit: Circuit, mains: Mains, t: number): number {
  if (mains.factor === 0) return 0;
  const factor = mains.factorPerS === undefined ? mains.factor : mains.factor + mains.factorPerS * t;
  if (circuit.direct) {
    const { ripple } = circuit;
    return factor * circuit.peakV * (ripple === 0 ? 1 : 1 + 0.5 * ripple * Math.sin(2 * circuit.omega * t));
  }
  const s = Math.sin(circuit.omega * t + mains.phase);
  const { clip } = circuit;
  return factor * circuit.peakV * (s > clip ? clip : s < -clip ? -clip : s);
}

/**
 * Instants in (from, to] no step may straddle, s, the last of them the end: the clip's edges where it has corners, else the
 * EMF's crest, which always lies within the charging pulse, so that not even the shortest pulse falls between two steps.
 */
export function stops(circuit: Circuit, mains: Mains, from: number, to: number): number[] {
  if (mains.factor === 0) return [to];
  const { periodS, omega, clip } = circuit;
  const half = periodS / 2;
  const lead = mains.phase / omega;
  const edge = clip < 1 ? Math.asin(clip) / omega : half;
  const offsets = edge < half ? [edge, half - edge] : [half / 2];
  const found: number[] = [];
  for (let n = Math.floor((from + lead) / half) - 1; n * half - lead <= to; n++) {
    for (const offset of offsets) {
      const t = n * half - lead + offset;
      if (t > from + 1e-7 * periodS && t < to - 1e-7 * periodS) found.push(t);
    }
  }
  found.push(to);
  return found;
}
