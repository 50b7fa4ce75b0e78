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

/** Where a diode's drive passes what stands across it, within `high` from t: zeroBetween of src/core/solve/zero.ts. */
function startBefore(
  t: f64,
  end: f64,
  atStart: f64,
  atEnd: f64,
  drive: f64,
  stands: f64,
  rises: f64,
  resolution: f64,
): f64 {
  let low: f64 = 0;
  let high = end;
  let atLow = atStart;
  let atHigh = atEnd;
  let last: f64 = Infinity;
  let stayed = 0;
  for (let round = 0; round < 60; round++) {
    const straight = (low * atHigh - high * atLow) / (atHigh - atLow);
    const x = straight > low && straight < high && round < 20 ? straight : (low + high) / 2;
    if (Math.abs(x - last) < resolution) return x;
    last = x;
    const y = drive * emf(t + x) - stands - rises * x;
    if (y == 0) return x;
    if (y > 0) {
      high = x;
      atHigh = y;
      if (stayed == 1) atLow /= 2;
      stayed = 1;
    } else {
      low = x;
      atLow = y;
      if (stayed == -1) atHigh /= 2;
      stayed = -1;
    }
  }
  return last;
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
    const drive = f(uE, p);
    const atStart = drive * emf(t) - stands;
    if (atStart >= 0) continue;
    let high = h;
    let atHigh = drive * emf(t + h) - stands - rises * h;
    if (!(atHigh > 0)) {
      high = h / 2;
      atHigh = drive * emf(t + high) - stands - rises * high;
      if (!(atHigh > 0)) continue;
    }
    earliest = Math.min(earliest, startBefore(t, high, atStart, atHigh, drive, stands, rises, FORESEEN * h));
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
