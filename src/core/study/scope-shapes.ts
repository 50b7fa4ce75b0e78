import type { Figure } from './figure';

/** What is put to the supply while the probe looks. */
export type ScopeRun =
  | { kind: 'steady' }
  | { kind: 'start'; phaseDeg: number; cycles: number }
  | { kind: 'step'; fromShare: number; toShare: number; cycles: number }
  /** The load, or what of it is above a remaining share, taken away. */
  | { kind: 'removal'; remainShare: number; cycles: number }
  | { kind: 'dip'; missingCycles: number; cycles: number }
  /** The mains rises or falls slowly from one end of its band to the other. */
  | { kind: 'drift'; to: 'low' | 'high'; cycles: number };

export type ScopeBand = 'low' | 'nominal' | 'high';

/** One quantity over time, uniformly sampled. */
export interface Trace {
  id: string;
  label: string;
  unit: 'V' | 'A';
  values: number[];
}

export interface Traces {
  /** Seconds between samples, and samples in one mains cycle. */
  stepS: number;
  perCycle: number;
  traces: Trace[];
  /** The figures of the run a builder would note down, each with its working. */
  notes: Figure[];
}

/**
 * Amplitudes (peak) of the mains harmonics of one cycle: index n is the n-th, index 0 the mean.
 * @param cycle exactly one mains cycle of uniform samples
 */
export function harmonics(cycle: readonly number[], upTo = 20): number[] {
  const n = cycle.length;
  return Array.from({ length: upTo + 1 }, (_, order) => {
    let re = 0;
    let im = 0;
    for (let k = 0; k < n; k++) {
      const angle = (2 * Math.PI * order * k) / n;
      re += cycle[k]! * Math.cos(angle);
      im += cycle[k]! * Math.sin(angle);
    }
    return (order === 0 ? 1 : 2) * (Math.hypot(re, im) / n);
  });
}

/** A measured trace as read from a file: times from its first sample, s, and values. */
export interface MeasuredTrace {
  t: number[];
  values: number[];
}

/**
 * Lays a measured trace over a computed periodic one: the shift in time, and the offset, with the least squared
 * difference. Scale is left to the person: a wrong probe factor must show, not be fitted away.
 * @returns shift in seconds (0 to one cycle), offset to add to the measured values, and the RMS left over
 */
export function layOver(
  measured: MeasuredTrace,
  computed: readonly number[],
  stepS: number,
  perCycle: number,
  factor: number,
): { shiftS: number; offset: number; rmsLeft: number } {
  const cycle = computed.slice(0, perCycle);
  const periodS = stepS * perCycle;
  const at = (t: number) => {
    const x = (((t % periodS) + periodS) % periodS) / stepS;
    const k = Math.floor(x) % perCycle;
    return cycle[k]! + (x - Math.floor(x)) * (cycle[(k + 1) % perCycle]! - cycle[k]!);
  };
  const stride = Math.max(1, Math.floor(measured.t.length / 600));
  let best = { shiftS: 0, offset: 0, rmsLeft: Infinity };
  for (let s = 0; s < 250; s++) {
    const shiftS = (s / 250) * periodS;
    let n = 0;
    let sum = 0;
    let squares = 0;
    for (let k = 0; k < measured.t.length; k += stride) {
      const d = at(measured.t[k]! + shiftS) - factor * measured.values[k]!;
      sum += d;
      squares += d * d;
      n++;
    }
    const offset = sum / n;
    const rmsLeft = Math.sqrt(Math.max(0, squares / n - offset * offset));
    if (rmsLeft < best.rmsLeft) best = { shiftS, offset, rmsLeft };
  }
  return best;
}
