// One run over a plain circuit, for the machine: the same as src/core/solve does for every circuit, line for line, where
// nothing bends but diodes and chokes keep their inductance. The pieces of this folder are one program, put one behind the
// other by `npm run native`, which compiles them into src/core/solve/native/compiled.ts; the names of sizes, offsets, arrays
// and numbers, and bind(), come from src/core/solve/native/fields.ts.
// What it does not know how to go on with it hands back (a negative answer): the general way then takes the whole run.

const STAGES: i32 = 6;
const LAST: i32 = 5;
const GAMMA: f64 = 1.0 / 4.0;
const OFF: f64 = -40;
const LEVELS: i32 = 48;
const INSTANT: f64 = 1e-6;
const ROUNDED: f64 = 1 + 4e-10;
const QUIET: f64 = 1.0 / 8.0;
const FORESEEN: f64 = 1e-9;
const SHORTEST: f64 = 1e-8;
const LEAVE: f64 = 0.25;
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
/** Whether it is asked how the end moves with the start: only then slopes are. */
let carrying: bool = false;
/** Whether the stage just solved was one in closed form. */
let closed: bool = false;
/** Whether potentials that float were not found: the slow and sure way is not known here. */
let lost: bool = false;
/** Kept series of the omega function. */
let fine: usize = 0;
let coarse: usize = 0;
/** Squares of the currents where the step in hand starts. */
let lastSquares: f64 = 0;
/** Records there are, and the one the step in hand starts from. */
let recorded: i32 = 0;
let startRow: usize = 0;
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
// @ts-ignore: decorator
@inline
function wrightOmega(z: f64): f64 {
  let u: f64;
  let to: usize;
  if (z < 64) {
    u = z * 20.0 + 41.0 * 20.0;
    const n = <i32>(u + 0.5);
    u -= <f64>n;
    to = fine + <usize>(n * 48);
  } else if (z < 2048) {
    u = z - 64.0;
    const n = <i32>(u + 0.5);
    u -= <f64>n;
    to = coarse + <usize>(n * 48);
  } else return beyond(z);
  const u2 = u * u;
  return (
    load<f64>(to) +
    load<f64>(to, 8) * u +
    u2 * (load<f64>(to, 16) + load<f64>(to, 24) * u + u2 * (load<f64>(to, 32) + load<f64>(to, 40) * u))
  );
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
