// What the records of a run come to: the sums of src/core/solve/signals.ts. A column is numbers that lie `step` bytes
// apart: a field of the records, or one put together here. Records are `wide` bytes apart, each with its instant first and
// its weight second.

/** out[r] = factor * column[r]. */
export function fill(out: usize, count: i32, column: usize, step: usize, factor: f64): void {
  for (let r = 0; r < count; r++) {
    store<f64>(out, factor * load<f64>(column));
    out += 8;
    column += step;
  }
}

/** out[r] += factor * column[r]. */
export function add(out: usize, count: i32, column: usize, step: usize, factor: f64): void {
  for (let r = 0; r < count; r++) {
    store<f64>(out, load<f64>(out) + factor * load<f64>(column));
    out += 8;
    column += step;
  }
}

/** Raises `crestV` to the top of the parabola through an entry and its two neighbours, when it lies between them. */
function vertex(from: usize, wide: usize, count: i32, column: usize, step: usize, sign: f64, middle: i32): void {
  if (middle < 1 || middle + 1 >= count) return;
  const t = from + <usize>middle * wide;
  const v = column + <usize>middle * step;
  const h0 = load<f64>(t) - load<f64>(t - wide);
  const h1 = load<f64>(t + wide) - load<f64>(t);
  if (!(h0 > 0 && h1 > 0)) return;
  const value = sign * load<f64>(v);
  const d0 = (value - sign * load<f64>(v - step)) / h0;
  const d1 = (sign * load<f64>(v + step) - value) / h1;
  const bend = (d1 - d0) / (h0 + h1);
  if (!(bend < 0)) return;
  const slope = (d0 * h1 + d1 * h0) / (h0 + h1);
  const shift = -slope / (2 * bend);
  const top = value + slope * shift + bend * shift * shift;
  if (shift < -h0 || shift > h1 || top <= crestV) return;
  crestV = top;
}

let crestV: f64 = 0;

/** The extreme that an entry and its neighbours in the same step make likely, or those where the records begin and end. */
function crest(from: usize, wide: usize, count: i32, column: usize, step: usize, sign: f64, at: i32): f64 {
  crestV = sign * load<f64>(column + <usize>at * step);
  const place = at % STAGES;
  if (place == 0) {
    vertex(from, wide, count, column, step, sign, at + 1);
    vertex(from, wide, count, column, step, sign, at - 2);
  } else if (place == STAGES - 1) {
    vertex(from, wide, count, column, step, sign, at - 1);
    vertex(from, wide, count, column, step, sign, at + 2);
  } else vertex(from, wide, count, column, step, sign, at);
  vertex(from, wide, count, column, step, sign, 1);
  vertex(from, wide, count, column, step, sign, count - 2);
  return sign * crestV;
}

/** Integrals of a column and of its square, its largest and its smallest value: four numbers at `out`. */
export function survey(out: usize, from: usize, wide: usize, count: i32, column: usize, step: usize): void {
  let sum: f64 = 0;
  let squares: f64 = 0;
  let high: f64 = -Infinity;
  let low: f64 = Infinity;
  let highAt = 0;
  let lowAt = 0;
  let weight = from + 8;
  let value = column;
  for (let r = 0; r < count; r++) {
    const v = load<f64>(value);
    const w = load<f64>(weight) * v;
    sum += w;
    squares += w * v;
    if (v > high) {
      high = v;
      highAt = r;
    }
    if (v < low) {
      low = v;
      lowAt = r;
    }
    value += step;
    weight += wide;
  }
  put(out, 0, sum);
  put(out, 1, squares);
  put(out, 2, crest(from, wide, count, column, step, 1, highAt));
  put(out, 3, crest(from, wide, count, column, step, -1, lowAt));
}

/** Integral of the product of two columns. */
export function product(from: usize, wide: usize, count: i32, a: usize, stepA: usize, b: usize, stepB: usize): f64 {
  let sum: f64 = 0;
  let weight = from + 8;
  for (let r = 0; r < count; r++) {
    sum += load<f64>(weight) * load<f64>(a) * load<f64>(b);
    a += stepA;
    b += stepB;
    weight += wide;
  }
  return sum;
}

/** Integral of the square of what a column is off `mean`. */
export function spread(from: usize, wide: usize, count: i32, column: usize, step: usize, mean: f64): f64 {
  let sum: f64 = 0;
  let weight = from + 8;
  for (let r = 0; r < count; r++) {
    const off = load<f64>(column) - mean;
    sum += load<f64>(weight) * off * off;
    column += step;
    weight += wide;
  }
  return sum;
}

/** A cubic, or less, in Newton's form: places, and divided differences. */
let places: i32 = 0;
let t0: f64 = 0;
let t1: f64 = 0;
let t2: f64 = 0;
let c0: f64 = 0;
let c1: f64 = 0;
let c2: f64 = 0;
let c3: f64 = 0;

function cubic(t: f64): f64 {
  let v: f64 = places == 4 ? c3 : 0;
  if (places == 4) v = v * (t - t2) + c2;
  else if (places == 3) v = c2;
  if (places == 2) v = c1;
  else v = v * (t - t1) + c1;
  return v * (t - t0) + c0;
}

/** Where a column crosses a level between entries r and r + 1, s. */
function crossing(from: usize, wide: usize, count: i32, column: usize, level: f64, r: i32): f64 {
  const a = from + <usize>r * wide;
  const low = load<f64>(a);
  const high = load<f64>(a + wide);
  let atLow = f(column, r) - level;
  let atHigh = f(column, r + 1) - level;
  places = 2;
  t0 = low;
  t1 = high;
  c0 = atLow;
  c1 = atHigh;
  const start = r - (r % STAGES);
  const end = min(start + STAGES, count);
  let t3: f64 = 0;
  for (let side = 0; side < 2; side++) {
    const n = side == 0 ? r - 1 : r + 2;
    if (n < start || n >= end) continue;
    const t = load<f64>(from + <usize>n * wide);
    const c = f(column, n) - level;
    if (places == 2) {
      t2 = t;
      c2 = c;
    } else {
      t3 = t;
      c3 = c;
    }
    places++;
  }
  if (places == 4) c3 = (c3 - c2) / (t3 - t2);
  if (places >= 3) c2 = (c2 - c1) / (t2 - t1);
  c1 = (c1 - c0) / (t1 - t0);
  if (places == 4) c3 = (c3 - c2) / (t3 - t1);
  if (places >= 3) c2 = (c2 - c1) / (t2 - t0);
  if (places == 4) c3 = (c3 - c2) / (t3 - t0);
  return zeroBetween(cubic, low, high, atLow, atHigh, 1e-9 * (high - low));
}

/** Time during which a column put together here exceeds a level, s. */
export function timeAbove(from: usize, wide: usize, count: i32, column: usize, level: f64): f64 {
  let total: f64 = 0;
  let a = f(column, 0) - level;
  for (let r = 0; r + 1 < count; r++) {
    const b = f(column, r + 1) - level;
    if ((a > 0) | (b > 0)) {
      const before = load<f64>(from + <usize>r * wide);
      const after = load<f64>(from + <usize>(r + 1) * wide);
      if (after > before) {
        if (a > 0 && b > 0) total += after - before;
        else {
          const at = crossing(from, wide, count, column, level, r);
          total += a > 0 ? at - before : after - at;
        }
      }
    }
    a = b;
  }
  return total;
}
