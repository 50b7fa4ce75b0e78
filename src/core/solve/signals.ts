import type { Circuit } from '@/core/circuit/assemble';
import { STAGES } from './esdirk';
import { zeroBetween } from './zero';
import type { Integrator } from './integrator';
import { makeRoom, type Records } from './records';

/** One quantity of the circuit, a number per record; what lies behind the last of them means nothing. */
export type Column = Float64Array;

/**
 * The records from..to as columns, one for each quantity of the circuit, read when asked for. They lie in the
 * integrator's own memory and hold until the next columns are read from it.
 */
export interface Columns {
  count: number;
  t: Column;
  /** Weight of each record in an integral over time, s. */
  weight: Column;
  emf: Column;
  windingA(n: number): Column;
  /** What the primary carries, referred to the first section's winding. */
  primaryA(): Column;
  portA(n: number): Column;
  portV(n: number): Column;
  elementV(n: number): Column;
  elementA(n: number): Column;
  railV(n: number): Column;
  railInputV(n: number): Column;
  loadA(n: number): Column;
  /** One more column to be filled. */
  blank(): Column;
}

/** Reads quantities out of the records from..to. */
export function columnsOf(
  integrator: Integrator,
  from = 0,
  to = integrator.records.count,
  records = integrator.records,
): Columns {
  const { circuit } = integrator;
  const { windings, ports, inputs, elements, rails } = circuit;
  const { stride, data } = records;
  const count = to - from;
  const first = from * stride;
  const { arena } = integrator;
  arena.clear();
  const read = (index: number, factor = 1): Column => {
    const out = arena.take(count);
    for (let r = 0, at = first + index; r < count; r++, at += stride) out[r] = factor * data[at]!;
    return out;
  };
  const kept = (size: number, find: (n: number) => Column) => {
    const columns = new Array<Column | undefined>(size);
    return (n: number): Column => (columns[n] ??= find(n));
  };
  const times = (factor: number, column: Column): Column => {
    const out = arena.take(count);
    for (let r = 0; r < count; r++) out[r] = factor * column[r]!;
    return out;
  };
  const add = (out: Column, factor: number, column: Column) => {
    for (let r = 0; r < count; r++) out[r]! += factor * column[r]!;
  };
  /** The sum of what several pick, each times its factor; nothing where none does. */
  const sum = <T>(of: readonly T[], factor: (one: T, n: number) => number, column: (n: number) => Column): Column => {
    let out: Column | null = null;
    of.forEach((one, n) => {
      const f = factor(one, n);
      if (f === 0) return;
      if (out) add(out, f, column(n));
      else out = times(f, column(n));
    });
    return out ?? arena.take(count).fill(0, 0, count);
  };
  const nodeV = kept(circuit.nodes, (n) => read(records.node + n));
  const between = (a: number, b: number): Column => {
    if (b < 0) return nodeV(a);
    const high = nodeV(a);
    const low = nodeV(b);
    const out = arena.take(count);
    for (let r = 0; r < count; r++) out[r] = high[r]! - low[r]!;
    return out;
  };

  const emf = read(records.emf);
  const portA = kept(ports.length, (n) => read(records.port + n));
  const windingA = kept(windings.length, (w) => sum(ports, (port) => (port.winding === w ? port.share : 0), portA));
  const primary = kept(1, () =>
    windings.length === 1 && windings[0]!.ratio === 1 ? windingA(0) : sum(windings, ({ ratio }) => ratio, windingA),
  );
  const windingV = kept(windings.length, (w) => {
    const winding = windings[w]!;
    const out = times(winding.ratio, emf);
    if (circuit.sharedOhm > 0) add(out, -winding.ratio * circuit.sharedOhm, primary(0));
    add(out, -winding.ownOhm, windingA(w));
    if (winding.state >= 0) add(out, -winding.inductanceH, read(records.k + winding.state));
    return out;
  });
  const inputV = kept(inputs.length, (n) => between(inputs[n]!.plus, inputs[n]!.minus));
  const elementV = kept(elements.length, (n) => {
    const e = elements[n]!;
    return e.kind === 'capacitor' ? between(e.plus, e.minus) : between(e.from, e.to);
  });
  return {
    count,
    t: read(0),
    weight: read(1),
    emf,
    windingA,
    primaryA: () => primary(0),
    portA,
    portV: kept(ports.length, (n) => {
      const port = ports[n]!;
      const out = times(port.share, windingV(port.winding));
      for (const { input, sign } of port.into) add(out, -sign, inputV(input));
      if (port.floating >= 0) add(out, port.floatSign, read(records.float + port.floating));
      return out;
    }),
    elementV,
    elementA: kept(elements.length, (n) => {
      const e = elements[n]!;
      if (e.kind === 'inductor') {
        const out = read(records.x + e.state);
        if (e.halfAtA !== Infinity) for (let r = 0; r < count; r++) out[r] = integrator.stage.chokeCurrent(n, out[r]!);
        return out;
      }
      return e.kind === 'capacitor' ? read(records.k + e.state, e.capacitanceF) : times(1 / e.ohm, elementV(n));
    }),
    railV: (n) => nodeV(rails[n]!.outputNode),
    railInputV: (n) => nodeV(rails[n]!.inputNode),
    loadA: kept(rails.length, (n) => read(records.load + n)),
    blank: () => arena.take(count),
  };
}

/**
 * Reads the records at even distances of `step` into records of their own, from the `first` such instant on as far as
 * `end`, which is left out: each between the two records beside it.
 */
export function sampledRecords({ records, sampled }: Integrator, step: number, first: number, end: number): Records {
  const { stride, count, data } = records;
  sampled.count = 0;
  makeRoom(sampled, Math.max(0, Math.ceil(end / step) - first));
  const into = sampled.data;
  let to = 0;
  for (let n = first, r = 0; n * step < end - 1e-9 * step; n++) {
    const t = n * step;
    while (r + 2 < count && data[(r + 1) * stride]! <= t) r++;
    const a = r * stride;
    const b = r + 1 < count ? a + stride : a;
    const span = data[b]! - data[a]!;
    const share = span > 0 ? Math.min(Math.max((t - data[a]!) / span, 0), 1) : 0;
    into[to] = t;
    for (let k = 1; k < stride; k++) into[to + k] = data[a + k]! + share * (data[b + k]! - data[a + k]!);
    to += stride;
    sampled.count++;
  }
  return sampled;
}

/** Appends to records of half a period what the other half holds: the same with roles exchanged. */
export function mirrorRecords(circuit: Circuit, records: Records): void {
  const mirror = circuit.mirror!;
  const { stride, count } = records;
  makeRoom(records, count);
  const { data } = records;
  const nP = circuit.ports.length;
  for (let r = 0; r < count; r++) {
    const from = r * stride;
    const to = (count + r) * stride;
    for (let n = 0; n < stride; n++) data[to + n] = data[from + n]!;
    data[to] = data[from]! + circuit.periodS / 2;
    data[to + records.emf] = -data[from + records.emf]!;
    for (let n = 0; n < nP; n++) data[to + records.port + mirror.ports[n]!] = data[from + records.port + n]!;
    for (let n = 0; n < circuit.states; n++) {
      const sign = mirror.stateSigns[n]!;
      data[to + records.x + mirror.states[n]!] = sign * data[from + records.x + n]!;
      data[to + records.k + mirror.states[n]!] = sign * data[from + records.k + n]!;
    }
    for (const n of circuit.acPorts) data[to + records.port + n] = -data[from + records.port + n]!;
    for (let q = 0; q < circuit.inputs.length; q++) {
      // The middle of a doubler's two capacitors: what stood below it now stands above.
      if (mirror.inputs[q]! <= q) continue;
      const { plus, minus } = circuit.inputs[q]!;
      data[to + records.node + minus] = data[from + records.node + plus]! - data[from + records.node + minus]!;
    }
  }
  records.count = 2 * count;
}

/** Instants of a column's numbers, and how many there are. */
export type Timed = Pick<Columns, 't' | 'count'>;

/** Integrals and extremes of a quantity over its records. */
export interface Survey {
  /** Integral over time, unit*s. */
  sum: number;
  /** Integral of the square, unit^2*s. */
  squares: number;
  max: number;
  min: number;
}

/** Integrals and extremes of a column; extremes are refined as by `largest`. */
export function survey(columns: Columns, column: Column): Survey {
  const { weight, count } = columns;
  let sum = 0;
  let squares = 0;
  let max = -Infinity;
  let min = Infinity;
  let maxAt = 0;
  let minAt = 0;
  for (let r = 0; r < count; r++) {
    const v = column[r]!;
    const w = weight[r]! * v;
    sum += w;
    squares += w * v;
    if (v > max) {
      max = v;
      maxAt = r;
    }
    if (v < min) {
      min = v;
      minAt = r;
    }
  }
  return { sum, squares, max: crest(columns, column, 1, maxAt).value, min: crest(columns, column, -1, minAt).value };
}

/** An extreme value and when it was reached. */
export interface Extreme {
  value: number;
  t: number;
}

/** Largest and smallest value of a column, both refined as by `largest`. */
export function extremes(columns: Timed, column: Column): { max: number; min: number } {
  let max = -Infinity;
  let min = Infinity;
  let maxAt = 0;
  let minAt = 0;
  for (let r = 0; r < columns.count; r++) {
    const v = column[r]!;
    if (v > max) {
      max = v;
      maxAt = r;
    }
    if (v < min) {
      min = v;
      minAt = r;
    }
  }
  return { max: crest(columns, column, 1, maxAt).value, min: crest(columns, column, -1, minAt).value };
}

/**
 * Largest value of sign*column, refined by a parabola through neighbouring stages of one step: they lie close enough
 * together that a smooth crest between them is found to far better than their spacing. Never across the joint of two
 * steps, where a corner may lie.
 */
export function largest(columns: Timed, column: Column, sign: number): Extreme {
  const { count } = columns;
  let best = -Infinity;
  let at = 0;
  for (let r = 0; r < count; r++) {
    const v = sign * column[r]!;
    if (v > best) {
      best = v;
      at = r;
    }
  }
  return crest(columns, column, sign, at);
}

/** The extreme that an entry and its neighbours make likely. */
function crest(columns: Timed, column: Column, sign: number, at: number): Extreme {
  const found = { value: sign * column[at]!, t: columns.t[at]! };
  const place = at % STAGES;
  if (place === 0) {
    vertex(columns, column, sign, at + 1, found);
    vertex(columns, column, sign, at - 2, found);
  } else if (place === STAGES - 1) {
    vertex(columns, column, sign, at - 1, found);
    vertex(columns, column, sign, at + 2, found);
  } else vertex(columns, column, sign, at, found);
  // A cycle ends where it begins but for its last digits: a crest just behind that instant may show at its other end.
  vertex(columns, column, sign, 1, found);
  vertex(columns, column, sign, columns.count - 2, found);
  found.value *= sign;
  return found;
}

/** Raises `found` to the top of the parabola through an entry and its two neighbours, when it lies between them. */
function vertex({ t, count }: Timed, column: Column, sign: number, middle: number, found: Extreme): void {
  if (middle < 1 || middle + 1 >= count) return;
  const h0 = t[middle]! - t[middle - 1]!;
  const h1 = t[middle + 1]! - t[middle]!;
  if (!(h0 > 0 && h1 > 0)) return;
  const value = sign * column[middle]!;
  const d0 = (value - sign * column[middle - 1]!) / h0;
  const d1 = (sign * column[middle + 1]! - value) / h1;
  const bend = (d1 - d0) / (h0 + h1);
  if (!(bend < 0)) return;
  const slope = (d0 * h1 + d1 * h0) / (h0 + h1);
  const shift = -slope / (2 * bend);
  const crest = value + slope * shift + bend * shift * shift;
  if (shift < -h0 || shift > h1 || crest <= found.value) return;
  found.value = crest;
  found.t = t[middle]! + shift;
}

/**
 * Time during which a column exceeds a threshold, s. The quantity has to be smooth where it crosses: a cubic through
 * stages of the same step places the crossing.
 */
export function timeAbove(columns: Timed, column: Column, threshold: number): number {
  const { t, count } = columns;
  let total = 0;
  let a = column[0]! - threshold;
  for (let r = 0; r + 1 < count; r++) {
    const b = column[r + 1]! - threshold;
    const t0 = t[r]!;
    const t1 = t[r + 1]!;
    if (t1 > t0) {
      if (a > 0 && b > 0) total += t1 - t0;
      else if (a > 0 !== b > 0) {
        const at = crossing(columns, column, threshold, r);
        total += a > 0 ? at - t0 : t1 - at;
      }
    }
    a = b;
  }
  return total;
}

/** Where a column crosses a threshold between entries r and r+1, s. */
export function crossing({ t, count }: Timed, column: Column, threshold: number, r: number): number {
  const times = [t[r]!, t[r + 1]!];
  const c = [column[r]! - threshold, column[r + 1]! - threshold];
  // Only stages of the same step: a corner may lie where two steps join.
  const start = r - (r % STAGES);
  for (const n of [r - 1, r + 2]) {
    if (n < start || n >= Math.min(start + STAGES, count)) continue;
    c.push(column[n]! - threshold);
    times.push(t[n]!);
  }
  const atLow = c[0]!;
  const atHigh = c[1]!;
  // Newton's divided differences.
  for (let order = 1; order < c.length; order++) {
    for (let n = c.length - 1; n >= order; n--) c[n] = (c[n]! - c[n - 1]!) / (times[n]! - times[n - order]!);
  }
  const value = (at: number) => {
    let v = c[c.length - 1]!;
    for (let n = c.length - 2; n >= 0; n--) v = v * (at - times[n]!) + c[n]!;
    return v;
  };
  const [from, to] = [times[0]!, times[1]!];
  return zeroBetween(value, from, to, atLow, atHigh, 1e-9 * (to - from));
}
