// The currents of all ports at one instant: apart-stage.ts, ports.ts and port-response.ts of src/core/solve.

/** What a port's row in closed form comes to, of what conducts nothing yet. */
// @ts-ignore: decorator
@inline
function ofGiven(p: i32, e: f64): f64 {
  const from = o_row + p * o_rowWidth;
  let sum = f(level, from) * e + f(level, from + 1);
  for (let g = 0; g < states; g++) sum += f(level, from + 2 + g) * f(base, g);
  return sum;
}

/** The same with what conducts. */
// @ts-ignore: decorator
@inline
function ofAll(p: i32, e: f64): f64 {
  const from = o_row + p * o_rowWidth + 2 + states;
  let sum = ofGiven(p, e);
  for (let b = 0; b < count; b++) {
    const q = int(alive, b);
    sum += f(level, from + q) * f(more, q);
  }
  return sum;
}

/** The usual instant, in closed form. */
function solveApart(e: f64, outcomes: i32): bool {
  const d = level;
  for (let a = 0; a < count; a++) {
    const p = int(alive, a);
    const z = ofGiven(p, e);
    if (!(z >= OFF)) return false;
    const w = wrightOmega(z);
    put(more, p, w * f(d, o_perAmp + p));
    if (carrying) put(slope, p, w / ((1 + w) * f(d, o_ohm + p)));
  }
  let next = 0;
  for (let p = 0; p < bends; p++) {
    if (next < count && int(alive, next) == p) {
      next++;
      continue;
    }
    const z = ofAll(p, e);
    if (z > OFF) return false;
    put(waiting, p, z);
    put(portA, p, -f(saturation, p));
  }
  for (let a = 0; a < count; a++) {
    const p = int(alive, a);
    put(portA, p, f(more, p) - f(saturation, p));
  }
  for (let h = bends; h < ports; h++) put(portA, h, ofAll(h, e));
  for (let n = 0; n < outcomes; n++) {
    let sum = f(d, o_rest + n);
    for (let g = 0; g < states; g++) sum += f(d, o_y + n * states + g) * f(base, g);
    for (let a = 0; a < count; a++) {
      const p = int(alive, a);
      sum += f(d, o_yP + n * ports + p) * f(more, p);
    }
    for (let h = bends; h < ports; h++) sum += f(d, o_yP + n * ports + h) * f(portA, h);
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
  for (let j = 0; j < bends; j++) if (j != p) drive -= f(level, o_z + p * ports + j) * f(portA, j);
  return drive;
}

function found(): bool {
  count = 0;
  for (let p = 0; p < bends; p++) {
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
    work += <f64>bends * (<f64>bends + LAW);
    let moved: f64 = 0;
    let conducting = 0;
    let changed = sweep > 0;
    for (let p = 0; p < bends; p++) putInt(was, p, int(live, p));
    for (let turn = 1; turn >= 0; turn--) {
      for (let p = 0; p < bends; p++) {
        if (int(was, p) != turn) continue;
        const amps = own(p, driveOf(p));
        const change = Math.abs(amps - f(portA, p)) * f(level, o_ohm + p);
        if (change > moved) moved = change;
        put(portA, p, amps);
        if (int(live, p) != turn) changed = true;
        conducting += int(live, p);
      }
    }
    if (moved < 1e-11 || bends == 1 || (!changed && conducting < 2)) return found();
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
  for (let j = 0; j < bends; j++) {
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
  for (let p = 0; p < bends; p++) {
    let terms = Math.abs(f(drives, p));
    for (let j = 0; j < bends; j++) terms += Math.abs(f(level, o_z + p * ports + j) * f(portA, j));
    most = Math.max(most, terms / (int(open, p) ? 1 : f(theta, p)));
  }
  return 1e-4 * most;
}

function newton(): bool {
  const d = level;
  let last: f64 = Infinity;
  let damping: f64 = 1;
  for (let iteration = 0; iteration < MOST_NEWTON; iteration++) {
    work += <f64>bends * (<f64>bends + LAW) + elimination(bends);
    let worst: f64 = 0;
    let m = 0;
    for (let p = 0; p < bends; p++) {
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

/** Voltage across a port that carries next to nothing at the stage just solved, V. */
function standsAcross(p: i32): f64 {
  return closed ? (f(waiting, p) - f(level, o_shift + p)) * f(theta, p) : driveOf(p);
}

/** Currents and outcome of the stage in hand, by sweeps or Newton's method. */
function solvePorts(): bool {
  const d = level;
  for (let h = ports - 1; h >= bends; h--) {
    for (let p = 0; p < h; p++) put(drives, p, f(drives, p) - f(d, o_z + p * ports + h) * f(drives, h));
  }
  if (floats) {
    if (!together()) {
      lost = true;
      return false;
    }
  }
  // What conducted together at the last instant most likely still does.
  else if (!(apart ? settle() : (count == 2 && pair()) || newton() || settle())) return false;
  for (let h = bends; h < ports; h++) {
    let drive = f(drives, h);
    for (let j = 0; j < h; j++) drive -= f(d, o_z + h * ports + j) * f(portA, j);
    put(portA, h, drive / f(d, o_ohm + h));
  }
  return true;
}

/** Newton's method on the currents that flow and the floating potentials at once, from where they last stood. */
function together(): bool {
  const d = level;
  const leakS = f(numbers, N_floatLeakS);
  const typical = f(numbers, N_typicalA);
  for (let iteration = 0; iteration < 25; iteration++) {
    work += <f64>bends * (<f64>bends + LAW) + elimination(bends + floats);
    let worst: f64 = 0;
    let m = 0;
    for (let p = 0; p < bends; p++) {
      const w = int(floatOf, p);
      let drive = f(drives, p) + (w < 0 ? 0 : f(floatSign, p) * f(floatV, w));
      for (let j = 0; j < bends; j++) if (j != p) drive -= f(d, o_z + p * ports + j) * f(portA, j);
      put(shifted, p, drive);
      const amps = own(p, drive);
      const miss = amps - f(portA, p);
      if (!int(live, p)) {
        if (Math.abs(miss) * f(d, o_ohm + p) > 1e-9) worst = Math.max(worst, 2);
        put(portA, p, amps);
        continue;
      }
      put(right, m, miss);
      putInt(active, m++, p);
      const weight = (Math.abs(miss) * f(d, o_ohm + p)) / (1e-9 * f(theta, p));
      if (weight > worst) worst = weight;
    }
    const size = m + floats;
    for (let r = 0; r < m; r++) {
      const p = int(active, r);
      for (let c = 0; c < m; c++) {
        put(portMatrix, r * size + c, r == c ? 1 : f(slope, p) * f(d, o_z + p * ports + int(active, c)));
      }
      for (let w = 0; w < floats; w++) {
        put(portMatrix, r * size + m + w, int(floatOf, p) == w ? -f(slope, p) * f(floatSign, p) : 0);
      }
    }
    let balanced = worst < 1;
    for (let w = 0; w < floats; w++) {
      const row = (m + w) * size;
      for (let c = 0; c < size; c++) put(portMatrix, row + c, 0);
      let sum: f64 = 0;
      for (let p = 0; p < bends; p++) {
        if (int(floatOf, p) != w) continue;
        const sign = f(floatSign, p);
        sum += sign * (f(portA, p) + leakS * (f(shifted, p) - f(d, o_z + p * ports + p) * f(portA, p)));
        put(portMatrix, row + m + w, f(portMatrix, row + m + w) + leakS);
        for (let c = 0; c < m; c++) {
          const j = int(active, c);
          const part = sign * ((j == p ? 1 : 0) - leakS * f(d, o_z + p * ports + j));
          put(portMatrix, row + c, f(portMatrix, row + c) + part);
        }
      }
      put(right, m + w, -sum);
      if (!(Math.abs(sum) < 1e-13 * typical)) balanced = false;
    }
    if (balanced) return true;
    if (!solveLinear(portMatrix, size, right)) return false;
    let close = true;
    for (let r = 0; r < m; r++) {
      const p = int(active, r);
      put(portA, p, f(portA, p) + f(right, r));
      if (!(Math.abs(f(right, r)) * f(d, o_ohm + p) < 1e-5 * f(theta, p))) close = false;
    }
    for (let w = 0; w < floats; w++) {
      put(floatV, w, f(floatV, w) + f(right, m + w));
      if (!(Math.abs(f(right, m + w)) < 1e-7 * f(numbers, N_peakV))) close = false;
    }
    if (close) return true;
  }
  return false;
}
