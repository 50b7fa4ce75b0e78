// One step's linear part eliminated, as src/core/solve/level.ts does, and what follows of it for ports (port-law.ts,
// apart-stage.ts).

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
  for (let h = ports - 1; h >= bends; h--) {
    const ohm = f(d, o_z + h * ports + h) + f(series, h);
    put(d, o_ohm + h, ohm);
    for (let k = 0; k < h; k++) {
      const part = f(d, o_z + k * ports + h) / ohm;
      for (let j = 0; j < h; j++) {
        put(d, o_z + k * ports + j, f(d, o_z + k * ports + j) - part * f(d, o_z + h * ports + j));
      }
      // The column is done with: what it passes on of the eliminated drive stands there from now on.
      put(d, o_z + k * ports + h, part);
    }
  }
  for (let k = 0; k < bends; k++) {
    const ohm = Math.max(1e-6, f(d, o_z + k * ports + k) + f(series, k));
    put(d, o_ohm + k, ohm);
    let leak: f64 = 0;
    for (let j = 0; j < bends; j++) if (j != k) leak += f(d, o_z + k * ports + j) * f(saturation, j);
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
    put(d, to, f(uE, k));
    put(d, to + 1, f(d, o_uC + k));
    for (let g = 0; g < states; g++) put(d, to + 2 + g, f(d, o_u + k * states + g));
  }
  // Loads of alternating current pass on their drive as they were eliminated.
  for (let h = ports - 1; h >= bends; h--) {
    for (let k = 0; k < h; k++) {
      const part = f(d, o_z + k * ports + h);
      for (let c = 0; c < 2 + states; c++)
        takeOff(d, o_row + k * o_rowWidth + c, part * f(d, o_row + h * o_rowWidth + c));
    }
  }
  for (let k = 0; k < bends; k++) {
    const to = o_row + k * o_rowWidth;
    const per: f64 = int(open, k) ? 0 : 1 / f(theta, k);
    put(d, to + 1, int(open, k) ? -Infinity : (f(d, to + 1) + f(d, o_leak + k)) * per + f(d, o_shift + k));
    put(d, to, f(d, to) * per);
    for (let g = 0; g < states; g++) put(d, to + 2 + g, f(d, to + 2 + g) * per);
    for (let j = 0; j < bends; j++) put(d, to + 2 + states + j, -f(d, o_z + k * ports + j) * per);
  }
  for (let h = bends; h < ports; h++) {
    const to = o_row + h * o_rowWidth;
    for (let j = 0; j < bends; j++) {
      const ohm = f(d, o_z + h * ports + j);
      put(d, to + 2 + states + j, -ohm);
      put(d, to + 1, f(d, to + 1) + ohm * f(saturation, j));
    }
    for (let j = bends; j < h; j++) {
      const ohm = f(d, o_z + h * ports + j);
      for (let c = 0; c < o_rowWidth; c++) takeOff(d, to + c, ohm * f(d, o_row + j * o_rowWidth + c));
    }
    for (let c = 0; c < o_rowWidth; c++) put(d, to + c, f(d, to + c) / f(d, o_ohm + h));
  }
  for (let n = 0; n < states + rails; n++) {
    let sum = f(d, o_yC + n);
    for (let p = 0; p < bends; p++) sum -= f(d, o_yP + n * ports + p) * f(saturation, p);
    put(d, o_rest + n, sum);
  }
}

function takeOff(d: usize, n: i32, v: f64): void {
  put(d, n, f(d, n) - v);
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
        const next = load<u32>(table + ((<usize>S_slotNext) << 2));
        if (next + <u32>(o_length << 3) <= <u32>slotEnd) {
          there = <usize>next;
          putInt(table, S_slotNext, next + (o_length << 3));
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
