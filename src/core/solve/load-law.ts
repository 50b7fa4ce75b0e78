import type { Load } from '@/core/circuit/network';

/** Below this many volts a constant-current load starts to let go, falling straight to zero at 0 V. */
export const CURRENT_LOAD_KNEE_V = 0.5;

/**
 * The current all loads of a rail draw together, as a piecewise-linear function of the rail voltage:
 * in segment k, from breakpoint k-1 to breakpoint k, i = offset[k] + slope[k]*v.
 */
export interface LoadLaw {
  breakpoints: Float64Array;
  offset: Float64Array;
  slope: Float64Array;
}

/** Adds up loads on one node. Currents in A, voltages in V. */
export function loadLaw(loads: readonly Load[]): LoadLaw {
  const ramps: { from: number; to: number; current: number }[] = [];
  let conductance = 0;
  for (const load of loads) {
    if (load.kind === 'resistance') conductance += 1 / load.resistanceOhm;
    else if (load.kind === 'current') ramps.push({ from: 0, to: CURRENT_LOAD_KNEE_V, current: load.currentA });
    else {
      if (load.quiescentA > 0) ramps.push({ from: 0, to: CURRENT_LOAD_KNEE_V, current: load.quiescentA });
      ramps.push({ from: load.dropoutV, to: load.dropoutV + load.outputV, current: load.currentA });
    }
  }
  const points = [...new Set(ramps.flatMap((r) => [r.from, r.to]))].sort((a, b) => a - b);
  const offset = new Float64Array(points.length + 1);
  const slope = new Float64Array(points.length + 1);
  for (let k = 0; k <= points.length; k++) {
    const middle =
      k === 0 ? (points[0] ?? 0) - 1 : k === points.length ? points[k - 1]! + 1 : (points[k - 1]! + points[k]!) / 2;
    let c = 0;
    let g = conductance;
    for (const r of ramps) {
      if (middle >= r.to) c += r.current;
      else if (middle > r.from) {
        const gradient = r.current / (r.to - r.from);
        g += gradient;
        c -= gradient * r.from;
      }
    }
    offset[k] = c;
    slope[k] = g;
  }
  return { breakpoints: Float64Array.from(points), offset, slope };
}

/** Current drawn at `v` volts, A. */
export function loadCurrent(law: LoadLaw, v: number): number {
  let k = 0;
  while (k < law.breakpoints.length && v > law.breakpoints[k]!) k++;
  return law.offset[k]! + law.slope[k]! * v;
}

/** What a linear regulator gives out when `v` stands at its input: held up to `outputV`, never more than input less dropout. */
export function regulatorOutput(load: Extract<Load, { kind: 'regulator' }>, v: number): number {
  return Math.min(Math.max(v - load.dropoutV, 0), load.outputV);
}
