// One run over a plain circuit, for the machine: the same as src/core/solve/{integrator,step,carry,stage,level,ports,
// apart-stage,turn-on}.ts do for every circuit, line for line, where nothing bends but diodes, every potential is tied down
// and no inductance lies in a diode's way. `npm run native` compiles it into src/core/solve/native/compiled.ts; the names of
// sizes, offsets, arrays and numbers, and bind(), come from src/core/solve/native/fields.ts.
// What it does not know how to go on with it hands back (a negative answer): the general way then takes the whole run.

const STAGES: i32 = 6;
const LAST: i32 = 5;
const GAMMA: f64 = 1.0 / 4.0;
const OFF: f64 = -40;
const LEVELS: i32 = 48;
const INSTANT: f64 = 1e-7;
const QUIET: f64 = 1.0 / 16.0;
const SHORTEST: f64 = 1e-8;
const MOST_STEPS: i32 = 6000;
const MOST_WORK: f64 = 2.5e7;
const MOST_NEWTON: i32 = 60;
const LAW: f64 = 12;

const CAPACITOR: i32 = 0;
const INDUCTOR: i32 = 1;
const RESISTOR: i32 = 2;

// ESDIRK4(3)6L[2]SA as in src/core/solve/esdirk.ts.
const A10: f64 = 1.0 / 4.0;
const A20: f64 = 8611.0 / 62500.0;
const A21: f64 = -1743.0 / 31250.0;
const A30: f64 = 5012029.0 / 34652500.0;
const A31: f64 = -654441.0 / 2922500.0;
const A32: f64 = 174375.0 / 388108.0;
const A40: f64 = 15267082809.0 / 155376265600.0;
const A41: f64 = -71443401.0 / 120774400.0;
const A42: f64 = 730878875.0 / 902184768.0;
const A43: f64 = 2285395.0 / 8070912.0;
const A50: f64 = 82889.0 / 524892.0;
const A52: f64 = 15625.0 / 83664.0;
const A53: f64 = 69875.0 / 102672.0;
const A54: f64 = -2260.0 / 8211.0;
const B1: f64 = 82889.0 / 524892.0;
const B3: f64 = 15625.0 / 83664.0;
const B4: f64 = 69875.0 / 102672.0;
const B5: f64 = -2260.0 / 8211.0;
const B6: f64 = 1.0 / 4.0;
const D1: f64 = B1 - 4586570599.0 / 29645900160.0;
const D3: f64 = B3 - 178811875.0 / 945068544.0;
const D4: f64 = B4 - 814220225.0 / 1159782912.0;
const D5: f64 = B5 - -3700637.0 / 11593932.0;
const D6: f64 = B6 - 61727.0 / 225920.0;

/** The level in hand, where it stands on the grid of lengths, and its gamma*h. */
let level: usize = 0;
let grid: i32 = -2;
let gammaH: f64 = 0;
/** What conducts: how many, and whether apart. */
let count: i32 = 0;
let apart: bool = true;
/** Kept values of the omega function. */
let fine: usize = 0;
let coarse: usize = 0;
/** Squares of the currents where the step in hand starts. */
let lastSquares: f64 = 0;
/** Records there are. */
let recorded: i32 = 0;
let work: f64 = 0;

export function setOmega(fineAt: usize, coarseAt: usize): void {
  fine = fineAt;
  coarse = coarseAt;
}

// @ts-ignore: decorator
@inline
function f(p: usize, n: i32): f64 {
  return load<f64>(p + ((<usize>n) << 3));
}

// @ts-ignore: decorator
@inline
function put(p: usize, n: i32, v: f64): void {
  store<f64>(p + ((<usize>n) << 3), v);
}

// @ts-ignore: decorator
@inline
function int(p: usize, n: i32): i32 {
  return load<i32>(p + ((<usize>n) << 2));
}

// @ts-ignore: decorator
@inline
function putInt(p: usize, n: i32, v: i32): void {
  store<i32>(p + ((<usize>n) << 2), v);
}

// @ts-ignore: decorator
@inline
function at(p: usize, n: i32): usize {
  return p + ((<usize>n) << 3);
}

/** Far out, where w is nearly z - ln(z). */
function beyond(z: f64): f64 {
  const l = Math.log(z);
  const w = z - l + (l / z) * (1 + (l - 2) / (2 * z));
  const r = z - w - Math.log(w);
  const p = w + 1;
  const q = 2 * p * (p + (2.0 / 3.0) * r);
  return w * (1 + ((r / p) * (q - r)) / (q - 2 * r));
}

/** The Wright omega function as in src/core/solve/wright-omega.ts. */
export function wrightOmega(z: f64): f64 {
  let w: f64;
  let dz: f64;
  if (z < 64) {
    const n = <i32>((z + 41) * 16 + 0.5);
    w = f(fine, n);
    dz = z - (-41 + <f64>n / 16);
  } else if (z < 2048) {
    const n = <i32>(z - 64 + 0.5);
    w = f(coarse, n);
    dz = z - (64 + <f64>n);
  } else return beyond(z);
  const gain = 1.0 / (1.0 + w);
  const a = dz * gain;
  const d = a * (1.0 + a * gain * (0.5 + a * (0.5 * gain - 1.0 / 3.0)));
  const log = d * (1.0 - d * (0.5 - d * (1.0 / 3.0 - d * (0.25 - d * (0.2 - d * (1.0 / 6.0 - d * (1.0 / 7.0)))))));
  const g = d * gain;
  return w * (1.0 + d + (dz - w * d - log) * gain * (1.0 + g * (1.0 - d + g)));
}

/** Common EMF at time t, V. */
function emf(t: f64): f64 {
  const factor = f(numbers, N_factor) + f(numbers, N_factorPerS) * t;
  if (factor == 0) return 0;
  const peak = factor * f(numbers, N_peakV);
  if (direct) {
    const ripple = f(numbers, N_ripple);
    return ripple == 0 ? peak : peak * (1.0 + 0.5 * ripple * Math.sin(2.0 * f(numbers, N_omega) * t));
  }
  const s = Math.sin(f(numbers, N_omega) * t + f(numbers, N_phase));
  const clip = f(numbers, N_clip);
  return peak * (s > clip ? clip : s < -clip ? -clip : s);
}

// Levels: level.ts, port-law.ts, apart-stage.ts.

function elimination(n: i32): f64 {
  const m = <f64>n;
  return (m * m * m) / 3 + m * m;
}

function build(d: usize, g: f64): void {
  work += 3 * elimination(nodes) + <f64>((nodes + states + rails) * (elements + 2 * ports + rails));
  for (let n = 0; n < nodes * nodes; n++) put(matrix, n, 0);
  for (let n = 0; n < nodes; n++) put(matrix, n * nodes + n, f(numbers, N_leakS));
  for (let n = 0; n < elements; n++) {
    const what = int(kind, n);
    const s =
      what == CAPACITOR
        ? 1 / (f(ohmOf, n) + g / f(farad, n))
        : what == INDUCTOR
          ? 1 / (f(ohmOf, n) + f(henry, n) / g)
          : 1 / f(ohmOf, n);
    put(conductance, n, s);
    const a = int(plusOf, n);
    const b = int(minusOf, n);
    if (a == b) continue;
    put(matrix, a * nodes + a, f(matrix, a * nodes + a) + s);
    if (b >= 0) {
      put(matrix, b * nodes + b, f(matrix, b * nodes + b) + s);
      put(matrix, a * nodes + b, f(matrix, a * nodes + b) - s);
      put(matrix, b * nodes + a, f(matrix, b * nodes + a) - s);
    }
  }
  for (let r = 0; r < rails; r++) {
    const to = int(outputNode, r) * (nodes + 1);
    put(matrix, to, f(matrix, to) + f(pieceSlope, int(pieceFrom, r) + int(segment, r)));
  }
  invert(matrix, nodes, inverse);
  nodeMaps(d, g);
  portMaps(d, g);
  outcomeMaps(d, g);
  finishPorts(d);
  finishRows(d);
}

function nodeMaps(d: usize, g: f64): void {
  for (let k = 0; k < nodes; k++) {
    const line = k * nodes;
    for (let n = 0; n < elements; n++) {
      const what = int(kind, n);
      if (what == RESISTOR) continue;
      const s = what == CAPACITOR ? f(conductance, n) : (-f(conductance, n) * f(henry, n)) / g;
      const b = int(minusOf, n);
      const v = f(inverse, line + int(plusOf, n)) - (b >= 0 ? f(inverse, line + b) : 0);
      put(d, o_node + k * states + int(stateOf, n), s * v);
    }
    for (let p = 0; p < ports; p++) {
      let sum: f64 = 0;
      for (let q = int(touchFrom, p); q < int(touchFrom, p + 1); q++) {
        sum += f(touchSign, q) * f(inverse, line + int(touchNode, q));
      }
      put(d, o_nodeP + k * ports + p, sum);
    }
    let constant: f64 = 0;
    for (let r = 0; r < rails; r++) {
      constant -= f(inverse, line + int(outputNode, r)) * f(pieceOffset, int(pieceFrom, r) + int(segment, r));
    }
    put(d, o_nodeC + k, constant);
  }
}

/** What the nodes along a port's path add up to in the map that begins at `from`. */
function along(d: usize, from: i32, width: i32, p: i32, column: i32): f64 {
  let sum: f64 = 0;
  for (let q = int(touchFrom, p); q < int(touchFrom, p + 1); q++) {
    sum += f(touchSign, q) * f(d, from + int(touchNode, q) * width + column);
  }
  return sum;
}

function portMaps(d: usize, g: f64): void {
  for (let p = 0; p < ports; p++) {
    const w = int(windingOf, p);
    for (let c = 0; c < states; c++) put(d, o_u + p * states + c, -along(d, o_node, states, p, c));
    put(d, o_uC + p, -along(d, o_nodeC, 1, p, 0));
    const own = int(windingState, w);
    if (own >= 0) {
      const to = o_u + p * states + own;
      put(d, to, f(d, to) + (f(share, p) * f(windingH, w)) / g);
    }
    for (let j = 0; j < ports; j++) {
      let ohm = f(uE, p) * f(uE, j) * f(numbers, N_sharedOhm);
      if (int(windingOf, j) == w) ohm += f(share, p) * f(share, j) * (f(windingOhm, w) + f(windingH, w) / g);
      put(d, o_z + p * ports + j, ohm + along(d, o_nodeP, ports, p, j));
    }
  }
}

/** Difference of two nodes' rows in the map that begins at `from`. */
function across(d: usize, from: i32, width: i32, plus: i32, minus: i32, column: i32): f64 {
  if (plus < 0) return 0;
  return f(d, from + plus * width + column) - (minus >= 0 ? f(d, from + minus * width + column) : 0);
}

function outcomeMaps(d: usize, g: f64): void {
  for (let n = 0; n < elements; n++) {
    const what = int(kind, n);
    if (what == RESISTOR) continue;
    const own = int(stateOf, n);
    const plus = int(plusOf, n);
    const minus = int(minusOf, n);
    const s = what == CAPACITOR ? (g / f(farad, n)) * f(conductance, n) : f(conductance, n);
    for (let c = 0; c < states; c++) put(d, o_y + own * states + c, s * across(d, o_node, states, plus, minus, c));
    for (let p = 0; p < ports; p++) put(d, o_yP + own * ports + p, s * across(d, o_nodeP, ports, plus, minus, p));
    put(d, o_yC + own, s * across(d, o_nodeC, 1, plus, minus, 0));
    const to = o_y + own * states + own;
    put(d, to, f(d, to) + (what == CAPACITOR ? -s : (s * f(henry, n)) / g - 1));
  }
  for (let p = 0; p < ports; p++) {
    const own = int(windingState, int(windingOf, p));
    if (own < 0) continue;
    put(d, o_yP + own * ports + p, f(share, p));
    put(d, o_y + own * states + own, -1);
  }
  for (let r = 0; r < rails; r++) {
    const out = int(outputNode, r);
    const n = states + r;
    for (let c = 0; c < states; c++) put(d, o_y + n * states + c, f(d, o_node + out * states + c));
    for (let p = 0; p < ports; p++) put(d, o_yP + n * ports + p, f(d, o_nodeP + out * ports + p));
    put(d, o_yC + n, f(d, o_nodeC + out));
  }
}

function finishPorts(d: usize): void {
  for (let k = 0; k < ports; k++) {
    const ohm = Math.max(1e-6, f(d, o_z + k * ports + k) + f(series, k));
    put(d, o_ohm + k, ohm);
    let leak: f64 = 0;
    for (let j = 0; j < ports; j++) if (j != k) leak += f(d, o_z + k * ports + j) * f(saturation, j);
    put(d, o_leak + k, leak);
    if (int(open, k)) {
      put(d, o_off + k, Infinity);
      continue;
    }
    const x = (ohm * f(saturation, k)) / f(theta, k);
    const shift = x + Math.log(x);
    put(d, o_shift + k, shift);
    put(d, o_perAmp + k, f(theta, k) / ohm);
    put(d, o_off + k, (OFF - shift) * f(theta, k));
  }
}

function finishRows(d: usize): void {
  for (let k = 0; k < ports; k++) {
    const to = o_row + k * o_rowWidth;
    const per: f64 = int(open, k) ? 0 : 1 / f(theta, k);
    put(d, to, f(uE, k) * per);
    put(d, to + 1, int(open, k) ? -Infinity : (f(d, o_uC + k) + f(d, o_leak + k)) * per + f(d, o_shift + k));
    for (let g = 0; g < states; g++) put(d, to + 2 + g, f(d, o_u + k * states + g) * per);
    for (let j = 0; j < ports; j++) put(d, to + 2 + states + j, -f(d, o_z + k * ports + j) * per);
  }
  for (let n = 0; n < states + rails; n++) {
    let sum = f(d, o_yC + n);
    for (let p = 0; p < ports; p++) sum -= f(d, o_yP + n * ports + p) * f(saturation, p);
    put(d, o_rest + n, sum);
  }
}

/** Inverts a matrix as dense.ts does. @returns whether it has an inverse */
function invert(a: usize, n: i32, out: usize): bool {
  if (n == 1) {
    put(out, 0, 1 / f(a, 0));
    return f(a, 0) != 0;
  }
  for (let k = 0; k < n * n; k++) put(out, k, 0);
  for (let k = 0; k < n; k++) put(out, k * n + k, 1);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(f(a, r * n + c)) > Math.abs(f(a, pivot * n + c))) pivot = r;
    const p = f(a, pivot * n + c);
    if (p == 0 || p != p) return false;
    if (pivot != c) {
      for (let k = 0; k < n; k++) {
        const x = f(a, c * n + k);
        put(a, c * n + k, f(a, pivot * n + k));
        put(a, pivot * n + k, x);
        const y = f(out, c * n + k);
        put(out, c * n + k, f(out, pivot * n + k));
        put(out, pivot * n + k, y);
      }
    }
    for (let k = 0; k < n; k++) {
      put(a, c * n + k, f(a, c * n + k) / p);
      put(out, c * n + k, f(out, c * n + k) / p);
    }
    for (let r = 0; r < n; r++) {
      const by = f(a, r * n + c);
      if (r == c || by == 0) continue;
      for (let k = 0; k < n; k++) {
        put(a, r * n + k, f(a, r * n + k) - by * f(a, c * n + k));
        put(out, r * n + k, f(out, r * n + k) - by * f(out, c * n + k));
      }
    }
  }
  return true;
}

/** Solves linear equations in place as dense.ts does. @returns whether they can be */
function solveLinear(a: usize, n: i32, b: usize): bool {
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(f(a, r * n + c)) > Math.abs(f(a, pivot * n + c))) pivot = r;
    const p = f(a, pivot * n + c);
    if (p == 0 || p != p) return false;
    if (pivot != c) {
      for (let k = c; k < n; k++) {
        const x = f(a, c * n + k);
        put(a, c * n + k, f(a, pivot * n + k));
        put(a, pivot * n + k, x);
      }
      const y = f(b, c);
      put(b, c, f(b, pivot));
      put(b, pivot, y);
    }
    for (let r = c + 1; r < n; r++) {
      const by = f(a, r * n + c) / p;
      if (by == 0) continue;
      for (let k = c; k < n; k++) put(a, r * n + k, f(a, r * n + k) - by * f(a, c * n + k));
      put(b, r, f(b, r) - by * f(b, c));
    }
  }
  for (let r = n - 1; r >= 0; r--) {
    let sum = f(b, r);
    for (let k = r + 1; k < n; k++) sum -= f(a, r * n + k) * f(b, k);
    put(b, r, sum / f(a, r * n + r));
  }
  return true;
}

/** Finds the level of the step in force, building it where it is not kept. */
function fetch(): void {
  if (grid >= 0) {
    let key = 0;
    for (let r = 0; r < rails; r++) key += int(segment, r) * int(radix, r);
    if (key < keys) {
      const n = key * (LEVELS + 1) + grid;
      let there = <usize>int(levelAt, n);
      if (there == 0) {
        const next = load<u32>(table + ((<usize>S_roomNext) << 2));
        if (next + <u32>(o_length << 3) <= <u32>roomEnd) {
          there = <usize>next;
          putInt(table, S_roomNext, next + (o_length << 3));
          putInt(levelAt, n, <i32>there);
        }
      }
      if (there != 0) {
        level = there;
        if (int(levelLoading, n) == loading) return;
        putInt(levelLoading, n, loading);
        build(level, gammaH);
        return;
      }
    }
  }
  level = scratch;
  build(level, gammaH);
}

function setStep(index: i32, g: f64): void {
  if (index == grid && g == gammaH) return;
  grid = index;
  gammaH = g;
  fetch();
}

// Ports: apart-stage.ts, ports.ts, port-response.ts.

/** The usual instant, in closed form. */
function solveApart(e: f64, outcomes: i32): bool {
  const d = level;
  for (let a = 0; a < count; a++) {
    const p = int(alive, a);
    const from = o_row + p * o_rowWidth;
    let z = f(d, from) * e + f(d, from + 1);
    for (let g = 0; g < states; g++) z += f(d, from + 2 + g) * f(base, g);
    if (!(z >= OFF)) return false;
    const w = wrightOmega(z);
    put(more, p, w * f(d, o_perAmp + p));
    put(slope, p, w / ((1 + w) * f(d, o_ohm + p)));
  }
  let next = 0;
  for (let p = 0; p < ports; p++) {
    if (next < count && int(alive, next) == p) {
      next++;
      continue;
    }
    const from = o_row + p * o_rowWidth;
    let z = f(d, from) * e + f(d, from + 1);
    for (let g = 0; g < states; g++) z += f(d, from + 2 + g) * f(base, g);
    for (let b = 0; b < count; b++) {
      const q = int(alive, b);
      z += f(d, from + 2 + states + q) * f(more, q);
    }
    if (z > OFF) return false;
    put(portA, p, -f(saturation, p));
  }
  for (let a = 0; a < count; a++) {
    const p = int(alive, a);
    put(portA, p, f(more, p) - f(saturation, p));
  }
  for (let n = 0; n < outcomes; n++) {
    let sum = f(d, o_rest + n);
    for (let g = 0; g < states; g++) sum += f(d, o_y + n * states + g) * f(base, g);
    for (let a = 0; a < count; a++) {
      const p = int(alive, a);
      sum += f(d, o_yP + n * ports + p) * f(more, p);
    }
    put(outcome, n, sum);
  }
  return true;
}

function own(p: i32, drive: f64): f64 {
  if (!int(open, p)) {
    const x = drive / f(theta, p) + f(level, o_shift + p);
    if (!(x < OFF)) {
      const w = wrightOmega(x);
      putInt(live, p, 1);
      put(slope, p, w / ((1 + w) * f(level, o_ohm + p)));
      return w * f(level, o_perAmp + p) - f(saturation, p);
    }
  }
  putInt(live, p, 0);
  put(slope, p, 0);
  return -f(saturation, p);
}

function driveOf(p: i32): f64 {
  let drive = f(drives, p);
  for (let j = 0; j < ports; j++) if (j != p) drive -= f(level, o_z + p * ports + j) * f(portA, j);
  return drive;
}

function found(): bool {
  count = 0;
  for (let p = 0; p < ports; p++) {
    if (int(live, p)) putInt(alive, count++, p);
    else put(portA, p, -f(saturation, p));
  }
  apart = true;
  for (let a = 0; a < count; a++) {
    for (let b = 0; b < count; b++) {
      if (b != a && f(level, o_z + int(alive, a) * ports + int(alive, b)) != 0) apart = false;
    }
  }
  return true;
}

function settle(): bool {
  for (let sweep = 0; sweep < 3; sweep++) {
    work += <f64>ports * (<f64>ports + LAW);
    let moved: f64 = 0;
    let conducting = 0;
    let changed = sweep > 0;
    for (let p = 0; p < ports; p++) putInt(was, p, int(live, p));
    for (let turn = 1; turn >= 0; turn--) {
      for (let p = 0; p < ports; p++) {
        if (int(was, p) != turn) continue;
        const amps = own(p, driveOf(p));
        const change = Math.abs(amps - f(portA, p)) * f(level, o_ohm + p);
        if (change > moved) moved = change;
        put(portA, p, amps);
        if (int(live, p) != turn) changed = true;
        conducting += int(live, p);
      }
    }
    if (moved < 1e-11 || ports == 1 || (!changed && conducting < 2)) return found();
    if (conducting > 1 && sweep > 0 && moved > 1e-3) break;
  }
  return newton();
}

function pair(): bool {
  const d = level;
  const a = int(alive, 0);
  const b = int(alive, 1);
  const zab = f(d, o_z + a * ports + b);
  const zba = f(d, o_z + b * ports + a);
  const driveA = f(drives, a) + f(d, o_leak + a);
  const driveB = f(drives, b) + f(d, o_leak + b);
  let iB = f(portA, b) + f(saturation, b);
  for (let iteration = 0; iteration < 8; iteration++) {
    const xA = (driveA - zab * iB) / f(theta, a) + f(d, o_shift + a);
    if (!(xA >= OFF)) return false;
    const wA = wrightOmega(xA);
    const iA = wA * f(d, o_perAmp + a);
    const sA = wA / ((1 + wA) * f(d, o_ohm + a));
    const xB = (driveB - zba * iA) / f(theta, b) + f(d, o_shift + b);
    if (!(xB >= OFF)) return false;
    const wB = wrightOmega(xB);
    const sB = wB / ((1 + wB) * f(d, o_ohm + b));
    const step = (wB * f(d, o_perAmp + b) - iB) / (1 - sA * zab * sB * zba);
    iB += step;
    if (Math.abs(step) * f(d, o_ohm + b) < 1e-5 * f(theta, b) && iB > 0) {
      put(more, a, iA - sA * zab * step);
      put(more, b, iB);
      put(slope, a, sA);
      put(slope, b, sB);
      return othersOff();
    }
    if (step != step) return false;
  }
  return false;
}

function othersOff(): bool {
  for (let j = 0; j < ports; j++) {
    if (int(live, j)) continue;
    let drive = f(drives, j) + f(level, o_leak + j);
    for (let a = 0; a < count; a++) {
      const p = int(alive, a);
      drive -= f(level, o_z + j * ports + p) * f(more, p);
    }
    if (drive > f(level, o_off + j)) return false;
    put(slope, j, 0);
    put(portA, j, -f(saturation, j));
  }
  for (let a = 0; a < count; a++) {
    const p = int(alive, a);
    put(portA, p, f(more, p) - f(saturation, p));
  }
  return true;
}

function roundoff(): f64 {
  let most: f64 = 0;
  for (let p = 0; p < ports; p++) {
    let terms = Math.abs(f(drives, p));
    for (let j = 0; j < ports; j++) terms += Math.abs(f(level, o_z + p * ports + j) * f(portA, j));
    most = Math.max(most, terms / (int(open, p) ? 1 : f(theta, p)));
  }
  return 1e-4 * most;
}

function newton(): bool {
  const d = level;
  let last: f64 = Infinity;
  let damping: f64 = 1;
  for (let iteration = 0; iteration < MOST_NEWTON; iteration++) {
    work += <f64>ports * (<f64>ports + LAW) + elimination(ports);
    let worst: f64 = 0;
    let m = 0;
    for (let p = 0; p < ports; p++) {
      const drive = driveOf(p);
      if (!int(open, p) && drive <= f(d, o_off + p) && f(portA, p) == -f(saturation, p)) {
        putInt(live, p, 0);
        put(slope, p, 0);
        continue;
      }
      const miss = f(portA, p) - own(p, drive);
      putInt(active, m, p);
      put(right, m++, -miss);
      const weight = (Math.abs(miss) * f(d, o_ohm + p)) / (1e-9 * (int(open, p) ? 1 : f(theta, p)));
      if (!(weight <= worst)) worst = weight;
    }
    if (worst != worst) return false;
    if (worst < 1 || (worst >= 0.5 * last && worst < 1e3 + roundoff())) return found();
    damping = worst > 0.9 * last ? Math.max(0.2, damping * 0.6) : Math.min(1, damping * 1.5);
    last = worst;
    if (m == 2) {
      const a = int(active, 0);
      const b = int(active, 1);
      const ab = f(slope, a) * f(d, o_z + a * ports + b);
      const ba = f(slope, b) * f(d, o_z + b * ports + a);
      const det = 1 - ab * ba;
      const ra = f(right, 0);
      const rb = f(right, 1);
      if (det == 0) return false;
      put(right, 0, (ra - ab * rb) / det);
      put(right, 1, (rb - ba * ra) / det);
    } else if (m > 2) {
      for (let r = 0; r < m; r++) {
        const p = int(active, r);
        for (let c = 0; c < m; c++) {
          put(portMatrix, r * m + c, r == c ? 1 : f(slope, p) * f(d, o_z + p * ports + int(active, c)));
        }
      }
      if (!solveLinear(portMatrix, m, right)) return false;
    }
    let close = damping == 1;
    for (let r = 0; r < m; r++) {
      const p = int(active, r);
      const move = damping * f(right, r);
      put(portA, p, f(portA, p) + move);
      if (!(Math.abs(move) * f(d, o_ohm + p) < 1e-5 * (int(open, p) ? 1 : f(theta, p)))) close = false;
    }
    if (close) return found();
  }
  return false;
}

// Stages: stage.ts.

function pass(e: f64, outcomes: i32): bool {
  work += <f64>(ports * states + outcomes * (states + ports)) + LAW;
  const d = level;
  if (!apart || !solveApart(e, outcomes)) {
    for (let p = 0; p < ports; p++) {
      let sum = f(uE, p) * e + f(d, o_uC + p);
      for (let g = 0; g < states; g++) sum += f(d, o_u + p * states + g) * f(base, g);
      put(drives, p, sum);
    }
    const solved = apart ? settle() : (count == 2 && pair()) || newton() || settle();
    if (!solved) return false;
    for (let n = 0; n < outcomes; n++) {
      let sum = f(d, o_yC + n);
      for (let g = 0; g < states; g++) sum += f(d, o_y + n * states + g) * f(base, g);
      for (let p = 0; p < ports; p++) sum += f(d, o_yP + n * ports + p) * f(portA, p);
      put(outcome, n, sum);
    }
  }
  for (let n = 0; n < states; n++) put(stageX, n, f(base, n) + f(outcome, n));
  return true;
}

function takeSegment(r: i32, k: i32): void {
  putInt(segment, r, k);
  const from = int(pieceFrom, r);
  put(segmentLow, r, k > 0 ? f(breakV, from + k - 1) : -Infinity);
  put(segmentHigh, r, k < int(pieces, r) - 1 ? f(breakV, from + k) : Infinity);
}

/** Moves load segments towards where the last pass ended. */
function moveSegments(): bool {
  let moved = false;
  for (let r = 0; r < rails; r++) {
    const v = f(outcome, states + r);
    const k = int(segment, r);
    const from = int(pieceFrom, r);
    if (k < int(pieces, r) - 1 && v > f(breakV, from + k) + 1e-12) {
      takeSegment(r, k + 1);
      moved = true;
    } else if (k > 0 && v < f(breakV, from + k - 1) - 1e-12) {
      takeSegment(r, k - 1);
      moved = true;
    }
  }
  return moved;
}

function solveStage(e: f64): bool {
  const outcomes = segmented ? states + rails : states;
  for (let round = 0; round < 13; round++) {
    if (!pass(e, outcomes)) return false;
    if (!segmented) return true;
    let within = true;
    for (let r = 0; r < rails; r++) {
      const v = f(outcome, states + r);
      if (v > f(segmentHigh, r) + 1e-12 || v < f(segmentLow, r) - 1e-12) within = false;
    }
    if (within || round == 12 || !moveSegments()) return true;
    fetch();
  }
  return false;
}

/** d(x)/d(base) of the stage just solved, into the map of stage s. */
function sense(s: i32): void {
  const d = level;
  const out = at(sensitivity, s * states * states);
  for (let n = 0; n < states * states; n++) put(out, n, f(d, o_y + n));
  for (let n = 0; n < states; n++) put(out, n * (states + 1), f(out, n * (states + 1)) + 1);
  if (count == 0) return;
  if (count == 1) {
    const p = int(alive, 0);
    for (let n = 0; n < states; n++) {
      const part = f(d, o_yP + n * ports + p) * f(slope, p);
      for (let c = 0; c < states; c++) put(out, n * states + c, f(out, n * states + c) + part * f(d, o_u + p * states + c));
    }
    return;
  }
  respond();
  for (let p = 0; p < ports; p++) {
    for (let c = 0; c < states; c++) {
      let sum: f64 = 0;
      for (let j = 0; j < ports; j++) sum += f(response, p * ports + j) * f(d, o_u + j * states + c);
      put(dPort, p * states + c, sum);
    }
  }
  for (let n = 0; n < states; n++) {
    for (let p = 0; p < ports; p++) {
      const part = f(d, o_yP + n * ports + p);
      if (part == 0) continue;
      for (let c = 0; c < states; c++) put(out, n * states + c, f(out, n * states + c) + part * f(dPort, p * states + c));
    }
  }
}

/** d(i)/d(u) where several conduct. */
function respond(): void {
  const d = level;
  if (count == 2) {
    for (let n = 0; n < ports * ports; n++) put(response, n, 0);
    const a = int(alive, 0);
    const b = int(alive, 1);
    const ab = f(slope, a) * f(d, o_z + a * ports + b);
    const ba = f(slope, b) * f(d, o_z + b * ports + a);
    const det = 1 - ab * ba;
    put(response, a * ports + a, f(slope, a) / det);
    put(response, b * ports + b, f(slope, b) / det);
    put(response, a * ports + b, (-ab * f(slope, b)) / det);
    put(response, b * ports + a, (-ba * f(slope, a)) / det);
    return;
  }
  for (let k = 0; k < ports; k++) {
    for (let j = 0; j < ports; j++) put(portMatrix, k * ports + j, j == k ? 1 : f(slope, k) * f(d, o_z + k * ports + j));
  }
  if (!invert(portMatrix, ports, portInverse)) {
    for (let n = 0; n < ports * ports; n++) put(response, n, 0);
    return;
  }
  for (let k = 0; k < ports; k++) {
    for (let j = 0; j < ports; j++) put(response, k * ports + j, f(portInverse, k * ports + j) * f(slope, j));
  }
}

/** Voltages of the nodes at the stage just solved. */
function spell(): void {
  for (let k = 0; k < nodes; k++) {
    let sum = f(level, o_nodeC + k);
    for (let g = 0; g < states; g++) sum += f(level, o_node + k * states + g) * f(base, g);
    for (let p = 0; p < ports; p++) sum += f(level, o_nodeP + k * ports + p) * f(portA, p);
    put(nodeV, k, sum);
  }
}

function copy(to: usize, from: usize, n: i32): usize {
  for (let m = 0; m < n; m++) put(to, m, f(from, m));
  return at(to, n);
}

/** Writes the stage just solved into a record; its weight stays. */
function write(record: usize, t: f64, e: f64, kAt: i32): void {
  spell();
  for (let r = 0; r < rails; r++) {
    const piece = int(pieceFrom, r) + int(segment, r);
    put(loadA, r, f(pieceOffset, piece) + f(pieceSlope, piece) * f(nodeV, int(outputNode, r)));
  }
  put(record, 0, t);
  put(record, 2, e);
  let to = copy(at(record, 3), portA, ports);
  to = copy(to, stageX, states);
  to = copy(to, at(k, kAt), states);
  to = copy(to, nodeV, nodes);
  copy(to, loadA, rails);
}

// Steps: step.ts, carry.ts.

function instant(s: i32): f64 {
  return s == 1 ? 0.5 : s == 2 ? 83.0 / 250.0 : s == 3 ? 31.0 / 50.0 : s == 4 ? 17.0 / 20.0 : 1.0;
}

function carried(s: i32, h: f64, from: usize, width: i32, n: i32): f64 {
  const k0 = f(from, n);
  if (s == 1) return h * A10 * k0;
  if (s == 2) return h * (A20 * k0 + A21 * f(from, width + n));
  if (s == 3) return h * (A30 * k0 + A31 * f(from, width + n) + A32 * f(from, 2 * width + n));
  if (s == 4) {
    return h * (A40 * k0 + A41 * f(from, width + n) + A42 * f(from, 2 * width + n) + A43 * f(from, 3 * width + n));
  }
  return h * (A50 * k0 + A52 * f(from, 2 * width + n) + A53 * f(from, 3 * width + n) + A54 * f(from, 4 * width + n));
}

function sumOfSquares(): f64 {
  let sum: f64 = 0;
  for (let p = 0; p < ports; p++) sum += f(portA, p) * f(portA, p);
  return sum;
}

function derive(t: f64, carry: bool): bool {
  const h = INSTANT * f(numbers, N_periodS) * GAMMA;
  setStep(LEVELS, h);
  const e = emf(t);
  for (let n = 0; n < states; n++) put(base, n, f(x, n));
  if (!solveStage(e)) return false;
  if (carry) {
    sense(0);
    for (let c = 0; c < states; c++) {
      for (let n = 0; n < states; n++) {
        let dx: f64 = 0;
        for (let m = 0; m < states; m++) dx += f(sensitivity, n * states + m) * f(transition, m * states + c);
        put(lastDK, c * states + n, (dx - f(transition, n * states + c)) / h);
      }
    }
  }
  for (let n = 0; n < states; n++) {
    const slope = f(outcome, n) / h;
    put(k, n, slope);
    put(lastK, n, slope);
  }
  lastSquares = sumOfSquares();
  write(lastRow, t, e, 0);
  return true;
}

function takeStages(t: f64, h: f64, record: bool, carry: bool): bool {
  const perGammaH = 1 / (GAMMA * h);
  for (let n = 0; n < states; n++) put(k, n, f(lastK, n));
  put(squares, 0, lastSquares);
  for (let s = 1; s < STAGES; s++) {
    for (let n = 0; n < states; n++) put(base, n, f(x, n) + carried(s, h, k, states, n));
    const ts = t + instant(s) * h;
    const e = emf(ts);
    if (!solveStage(e)) return false;
    for (let n = 0; n < states; n++) put(k, s * states + n, f(outcome, n) * perGammaH);
    put(squares, s, sumOfSquares());
    if (record) write(at(sheet, (s == 1 ? 2 : s == 2 ? 1 : s) * stride), ts, e, s * states);
    if (carry) sense(s);
  }
  return true;
}

function estimate(from: usize, width: i32, n: i32): f64 {
  return (
    D1 * f(from, n) +
    D3 * f(from, 2 * width + n) +
    D4 * f(from, 3 * width + n) +
    D5 * f(from, 4 * width + n) +
    D6 * f(from, 5 * width + n)
  );
}

function errorOf(h: f64): f64 {
  let error = Math.abs(h * estimate(squares, 1, 0)) / f(numbers, N_toleranceSquares);
  for (let n = 0; n < states; n++) {
    const part = Math.abs(h * estimate(k, states, n)) / f(tolerance, n);
    if (part > error || part != part) error = part;
  }
  return error;
}

function carryStep(h: f64): void {
  const size = states * states;
  const perGammaH = 1 / (GAMMA * h);
  copy(dK, lastDK, size);
  for (let s = 1; s < STAGES; s++) {
    const map = s * size;
    for (let c = 0; c < states; c++) {
      const column = c * states;
      for (let n = 0; n < states; n++) {
        put(dBase, n, f(transition, n * states + c) + carried(s, h, dK, size, column + n));
      }
      for (let n = 0; n < states; n++) {
        let dx: f64 = 0;
        for (let m = 0; m < states; m++) dx += f(sensitivity, map + n * states + m) * f(dBase, m);
        put(dK, map + column + n, (dx - f(dBase, n)) * perGammaH);
        put(dEnd, column + n, dx);
      }
    }
  }
  copy(lastDK, at(dK, LAST * size), size);
  for (let c = 0; c < states; c++) {
    for (let n = 0; n < states; n++) put(transition, n * states + c, f(dEnd, c * states + n));
  }
}

/** Puts the step just accepted into the records. @returns false where there is no room */
function keep(h: f64): bool {
  if (recorded + STAGES > capacity) return false;
  copy(sheet, lastRow, stride);
  put(sheet, 1, h * B1);
  put(sheet, 2 * stride + 1, 0);
  put(sheet, stride + 1, h * B3);
  put(sheet, 3 * stride + 1, h * B4);
  put(sheet, 4 * stride + 1, h * B5);
  put(sheet, 5 * stride + 1, h * B6);
  copy(at(records, recorded * stride), sheet, STAGES * stride);
  recorded += STAGES;
  copy(lastRow, at(sheet, LAST * stride), stride);
  return true;
}

// What is foreseen: turn-on.ts.

/** Whether no diode conducts at the stage just solved; notes the inputs. */
function quietNow(h: f64): bool {
  spell();
  for (let q = 0; q < inputs; q++) {
    const minus = int(inputMinus, q);
    const v = f(nodeV, int(inputPlus, q)) - (minus >= 0 ? f(nodeV, minus) : 0);
    put(inputSlope, q, (v - f(inputV, q)) / h);
    put(inputV, q, v);
  }
  for (let w = 0; w < watched; w++) if (f(portA, int(watchedPort, w)) > f(numbers, N_quietA)) return false;
  return true;
}

/** Time from t until the first diode begins to conduct, s, if that lies within h; else Infinity. */
function startsWithin(t: f64, h: f64): f64 {
  let earliest: f64 = Infinity;
  for (let w = 0; w < watched; w++) {
    const p = int(watchedPort, w);
    let stands = f(onV, p);
    let rises: f64 = 0;
    for (let q = int(intoFrom, p); q < int(intoFrom, p + 1); q++) {
      const input = int(intoInput, q);
      stands += f(intoSign, q) * f(inputV, input);
      rises += f(intoSign, q) * f(inputSlope, input);
    }
    const drive = f(driveOfEmf, p);
    if (drive * emf(t) - stands >= 0) continue;
    let high = drive * emf(t + h) - stands - rises * h > 0 ? h : drive * emf(t + h / 2) - stands - (rises * h) / 2 > 0 ? h / 2 : -1;
    if (high < 0) continue;
    let low: f64 = 0;
    for (let round = 0; round < 12; round++) {
      const middle = (low + high) / 2;
      if (drive * emf(t + middle) - stands - rises * middle > 0) high = middle;
      else low = middle;
    }
    if (high < earliest) earliest = high;
  }
  return earliest;
}

/**
 * One run, as integrator.ts does it.
 * @param tableAt where the table stands
 * @param fresh whether values were loaded since the last run
 * @param record whether to keep records, behind the `already` there are
 * @returns steps times 65536 plus records; negative where it does not know how to go on
 */
export function run(tableAt: usize, fresh: bool, from: f64, record: bool, carry: bool, already: i32): f64 {
  bind(tableAt);
  grid = -2;
  recorded = already;
  work = 0;
  count = 0;
  apart = true;
  for (let p = 0; p < ports; p++) {
    putInt(live, p, 0);
    put(portA, p, 0);
  }
  if (fresh) for (let r = 0; r < rails; r++) takeSegment(r, int(pieces, r) - 1);
  const periodS = f(numbers, N_periodS);
  const longest = f(numbers, N_longestS);
  const tolerated = f(numbers, N_tolerated);
  const stepWork = <f64>(8 * STAGES * (states + ports + nodes));
  let first = f(numbers, N_first);
  if (carry) {
    for (let n = 0; n < states * states; n++) put(transition, n, 0);
    for (let n = 0; n < states; n++) put(transition, n * (states + 1), 1);
  }
  copy(low, x, states);
  copy(high, x, states);
  let flowed: f64 = 0;
  let t = from;
  let steps = 0;
  let wanted = periodS / 100;
  let calm = 9;
  if (!derive(t, carry)) return -1;
  let quiet = quietNow(Infinity);
  if (quiet) wanted = QUIET * periodS;
  let starting = false;
  let afterStart = false;
  for (let s = 0; s < stopCount; s++) {
    const stop = f(stops, s);
    while (t < stop) {
      if (++steps > MOST_STEPS) return -2;
      work += stepWork;
      if (work > MOST_WORK) return -3;
      const left = stop - t;
      let index = min(LEVELS - 1, max(0, <i32>Math.ceil(2 * Math.log2(longest / wanted) - 1e-9)));
      let h = f(gridH, index);
      if (left < (calm > 0 ? 1.3 : 1) * h) {
        h = left;
        index = -1;
      }
      if (quiet) {
        const ends = startsWithin(t, h);
        if (ends > 1e-4 * h && ends < h) {
          h = ends;
          index = -1;
          starting = true;
        }
        quiet = false;
      }
      setStep(index, GAMMA * h);
      const solved = takeStages(t, h, record, carry);
      const error = solved ? errorOf(h) : 1e3;
      if (error != error) return -4;
      if (error > 1 && h > SHORTEST * periodS) {
        wanted = h * Math.max(0.15, 0.9 * Math.sqrt(1 / Math.sqrt(error)));
        calm = 0;
        continue;
      }
      if (!solved) return -5;
      if (carry) carryStep(h);
      if (record && !keep(h)) return -6;
      t = h == left ? stop : t + h;
      for (let n = 0; n < states; n++) {
        const value = f(stageX, n);
        put(x, n, value);
        put(lastK, n, f(k, LAST * states + n));
        if (value < f(low, n)) put(low, n, value);
        if (value > f(high, n)) put(high, n, value);
      }
      flowed += (h / 2) * (f(squares, 0) + f(squares, LAST));
      lastSquares = f(squares, LAST);
      quiet = quietNow(h);
      wanted =
        h *
        Math.min(
          ++calm > 3 || quiet ? 4 : 1.42,
          Math.max(0.2, 0.9 * Math.sqrt(1 / Math.sqrt(Math.max(error, 1e-9)))),
        );
      if (starting) wanted = Math.min(wanted, first * tolerated);
      else if (afterStart) first = wanted / tolerated / 1.2;
      afterStart = starting;
      starting = false;
    }
  }
  put(numbers, N_first, first);
  put(numbers, N_flowed, flowed);
  put(numbers, N_work, work);
  return <f64>steps * 65536 + <f64>recorded;
}
