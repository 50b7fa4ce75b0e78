// What is foreseen of the next pulse: src/core/solve/turn-on.ts.

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

/** The waiting diode looked at: its share of the EMF, what stands across it, V, how fast that rises, V/s, and from when on. */
let drivenBy: f64 = 0;
let standsV: f64 = 0;
let risesVPerS: f64 = 0;
let seenFrom: f64 = 0;

/** How far its drive is past what stands across it, so long after that, V. */
function driveOver(dt: f64): f64 {
  return drivenBy * emf(seenFrom + dt) - standsV - risesVPerS * dt;
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
    drivenBy = f(uE, p);
    standsV = stands;
    risesVPerS = rises;
    seenFrom = t;
    const atStart = driveOver(0);
    if (atStart >= 0) continue;
    let high = h;
    let atHigh = driveOver(high);
    if (!(atHigh > 0)) {
      high = h / 2;
      atHigh = driveOver(high);
      if (!(atHigh > 0)) continue;
    }
    earliest = Math.min(earliest, zeroBetween(driveOver, 0, high, atStart, atHigh, FORESEEN * h));
  }
  return earliest;
}

/** Notes what stands across the waiting diodes at one of the told stages. */
function tell(which: i32): void {
  for (let w = 0; w < watched; w++) {
    const p = int(watchedPort, w);
    put(waitingV, 3 * w + which, f(portA, p) > f(numbers, N_quietA) ? NaN : standsAcross(p));
  }
}

function forget(): void {
  for (let n = 0; n < 3 * watched; n++) put(waitingV, n, NaN);
}

/** Time until the next diode joins those that conduct, s, if that lies within h; else Infinity. */
function joinsWithin(h: f64, last: f64): f64 {
  const at0 = instant(1);
  const at1 = instant(3);
  const at2 = instant(5);
  let earliest: f64 = Infinity;
  for (let w = 0; w < watched; w++) {
    const a = f(waitingV, 3 * w);
    const b = f(waitingV, 3 * w + 1);
    const c = f(waitingV, 3 * w + 2);
    const over = c - f(onV, int(watchedPort, w));
    if (!(over < 0)) continue;
    const steep = (c - b) / (at2 - at1);
    const bend = (steep - (b - a) / (at1 - at0)) / (at2 - at0);
    const rise = steep + bend * (at2 - at1);
    const root = rise * rise - 4 * bend * over;
    if (!(root >= 0)) continue;
    const when = (-2 * over) / (rise + Math.sqrt(root));
    if (when > 0 && when * last < Math.min(h, earliest)) earliest = when * last;
  }
  return earliest;
}
