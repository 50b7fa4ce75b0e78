import type { Load } from './network';

/** Below this many volts a constant-current load starts to let go, falling straight to zero at 0 V. */
export const CURRENT_LOAD_KNEE_V = 0.5;

/**
 * The current all loads of a rail draw together. Most of it is a piecewise-linear function of the rail voltage: in
 * segment k, from breakpoint k-1 to breakpoint k, i = offset[k] + slope[k]*v. What bends (constant power) or dies away
 * with time (start surge) is `extra`.
 */
export interface LoadLaw {
  breakpoints: Float64Array;
  offset: Float64Array;
  slope: Float64Array;
  /** Null when the piecewise-linear part is all there is. `t` counts from switch-on, s; Infinity for a running load. */
  extra: ((v: number, t: number) => number) | null;
  /** Everything together at v volts, A. */
  current: (v: number, t: number) => number;
  /** The first regulator among the loads. */
  regulator: Extract<Load, { kind: 'regulator' }> | null;
}

/** Adds up loads on one node. Currents in A, voltages in V. */
export function loadLaw(loads: readonly Load[]): LoadLaw {
  const ramps: { from: number; to: number; current: number }[] = [];
  /** Branches that begin to draw at a voltage and have no end. */
  const drains: { from: number; siemens: number }[] = [];
  let conductance = 0;
  for (const load of loads) {
    if (load.kind === 'resistance') conductance += 1 / load.resistanceOhm;
    else if (load.kind === 'current') ramps.push({ from: 0, to: CURRENT_LOAD_KNEE_V, current: load.currentA });
    else if (load.kind === 'drain') drains.push({ from: load.fromV, siemens: 1 / load.ohm });
    else if (load.kind === 'regulator') {
      if (load.quiescentA > 0) ramps.push({ from: 0, to: CURRENT_LOAD_KNEE_V, current: load.quiescentA });
      // Below regulation the output falls with the input, and with it the current and the dropout it makes.
      ramps.push({ from: load.dropoutV, to: heldFrom(load), current: (load.passShare ?? 1) * load.currentA });
    }
  }
  const points: number[] = [];
  for (const r of ramps) {
    if (!points.includes(r.from)) points.push(r.from);
    if (!points.includes(r.to)) points.push(r.to);
  }
  for (const d of drains) if (!points.includes(d.from)) points.push(d.from);
  if (points.length > 1) points.sort((a, b) => a - b);
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
    for (const d of drains) {
      if (middle <= d.from) continue;
      g += d.siemens;
      c -= d.siemens * d.from;
    }
    offset[k] = c;
    slope[k] = g;
  }
  const breakpoints = new Float64Array(points);
  const powers = loads.filter((l) => l.kind === 'power');
  const surges = loads.filter((l) => l.surge);
  const extra =
    powers.length === 0 && surges.length === 0
      ? null
      : (v: number, t: number) => {
          let i = 0;
          for (const p of powers) i += powerCurrent(p, v);
          if (t !== Infinity) {
            for (const l of surges) i += currentOf(l, v) * (l.surge!.factor - 1) * Math.exp(-t / l.surge!.tauS);
          }
          return i;
        };
  return {
    breakpoints,
    offset,
    slope,
    extra,
    current: (v, t) => {
      let k = 0;
      while (k < breakpoints.length && v > breakpoints[k]!) k++;
      return offset[k]! + slope[k]! * v + (extra ? extra(v, t) : 0);
    },
    regulator: loads.find((l) => l.kind === 'regulator') ?? null,
  };
}

function powerCurrent(load: Extract<Load, { kind: 'power' }>, v: number): number {
  if (v <= 0) return 0;
  return v >= load.minV ? load.powerW / v : (load.powerW * v) / (load.minV * load.minV);
}

/** Current of one load once it runs, A. */
export function currentOf(load: Load, v: number): number {
  if (load.kind === 'resistance') return v / load.resistanceOhm;
  if (load.kind === 'power') return powerCurrent(load, v);
  if (load.kind === 'drain') return Math.max(0, v - load.fromV) / load.ohm;
  const knee = Math.min(Math.max(v / CURRENT_LOAD_KNEE_V, 0), 1);
  if (load.kind === 'current') return load.currentA * knee;
  return load.quiescentA * knee + ((load.passShare ?? 1) * load.currentA * regulatorOutput(load, v)) / load.outputV;
}

/** From so many volts on a regulator holds its output: what it draws from there on does not follow its dropout, V. */
export function heldFrom(load: Extract<Load, { kind: 'regulator' }>): number {
  return load.dropoutV + load.outputV + (load.dropoutOhm ?? 0) * load.currentA;
}

/** What a linear regulator gives out when `v` stands at its input: held up to `outputV`, never more than input less dropout. */
export function regulatorOutput(load: Extract<Load, { kind: 'regulator' }>, v: number): number {
  const perVolt = 1 + ((load.dropoutOhm ?? 0) * load.currentA) / load.outputV;
  return Math.min(Math.max((v - load.dropoutV) / perVolt, 0), load.outputV);
}
