// One step of the method, its records, and how its end moves with its start: step.ts and carry.ts of src/core/solve.

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
  for (let p = 0; p < bends; p++) sum += f(portA, p) * f(portA, p);
  return sum;
}

function derive(t: f64, carry: bool): bool {
  const h = INSTANT * f(numbers, N_periodS) * GAMMA;
  setStep(LEVELS, h);
  const e = emf(t);
  // A current that does not fit its diodes relaxes within nanoseconds; what counts is the derivative after that.
  for (let round = inductive ? 0 : 1; round < 2; round++) {
    for (let n = 0; n < states; n++) put(base, n, f(x, n));
    if (!solveStage(e)) return false;
    if (carry) carryInstant(h);
    for (let n = 0; n < states; n++) {
      const slope = f(outcome, n) / h;
      put(k, n, slope);
      put(lastK, n, slope);
      if (inductive) put(x, n, f(stageX, n));
    }
  }
  lastSquares = sumOfSquares();
  startRow = lastRow;
  write(startRow, t, e, 0);
  return true;
}

/** How what an instant leaves moves with the start. */
function carryInstant(h: f64): void {
  sense(0);
  for (let c = 0; c < states; c++) {
    for (let n = 0; n < states; n++) put(dBase, n, f(transition, n * states + c));
    for (let n = 0; n < states; n++) {
      let change: f64 = 0;
      for (let m = 0; m < states; m++) change += f(sensitivity, n * states + m) * f(dBase, m);
      put(lastDK, c * states + n, change / h);
      if (inductive) put(transition, n * states + c, f(dBase, n) + change);
    }
  }
}

function takeStages(t: f64, h: f64, record: bool, carry: bool): bool {
  const perGammaH = 1 / (GAMMA * h);
  const sheet = at(records, recorded * stride);
  for (let n = 0; n < states; n++) put(k, n, f(lastK, n));
  put(squares, 0, lastSquares);
  for (let s = 1; s < STAGES; s++) {
    for (let n = 0; n < states; n++) put(base, n, f(x, n) + carried(s, h, k, states, n));
    const ts = t + instant(s) * h;
    const e = emf(ts);
    if (!solveStage(e)) return false;
    for (let n = 0; n < states; n++) put(k, s * states + n, f(outcome, n) * perGammaH);
    put(squares, s, sumOfSquares());
    if (joining && (s & 1) == 1) tell(s >> 1);
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
        let change: f64 = 0;
        for (let m = 0; m < states; m++) change += f(sensitivity, map + n * states + m) * f(dBase, m);
        put(dK, map + column + n, change * perGammaH);
        put(dEnd, column + n, f(dBase, n) + change);
      }
    }
  }
  copy(lastDK, at(dK, LAST * size), size);
  for (let c = 0; c < states; c++) {
    for (let n = 0; n < states; n++) put(transition, n * states + c, f(dEnd, c * states + n));
  }
}

/** Keeps what the step just accepted wrote behind the records there are. */
function keep(h: f64): void {
  const sheet = at(records, recorded * stride);
  copy(sheet, startRow, stride);
  put(sheet, 1, h * B1);
  put(sheet, 2 * stride + 1, 0);
  put(sheet, stride + 1, h * B3);
  put(sheet, 3 * stride + 1, h * B4);
  put(sheet, 4 * stride + 1, h * B5);
  put(sheet, 5 * stride + 1, h * B6);
  recorded += STAGES;
}

/** What the step left is where the next begins. */
function goOn(record: bool): void {
  if (record) startRow = at(records, (recorded - 1) * stride);
  else if (eventful) copy(at(lastRow, 3), portA, ports);
}
