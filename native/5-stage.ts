// One implicit stage: src/core/solve/stage.ts.

function pass(e: f64, outcomes: i32): bool {
  work += <f64>(ports * states + outcomes * (states + ports)) + LAW;
  const d = level;
  closed = floats == 0 && apart && solveApart(e, outcomes);
  if (!closed) {
    for (let p = 0; p < ports; p++) {
      let sum = f(uE, p) * e + f(d, o_uC + p);
      for (let g = 0; g < states; g++) sum += f(d, o_u + p * states + g) * f(base, g);
      put(drives, p, sum);
    }
    if (!solvePorts()) return false;
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

/** d(x - base)/d(base) of the stage just solved, into the map of stage s. */
function sense(s: i32): void {
  const d = level;
  const out = at(sensitivity, s * states * states);
  for (let n = 0; n < states * states; n++) put(out, n, f(d, o_y + n));
  if (floats == 0 && count == 0) return;
  if (floats == 0 && count == 1) {
    const p = int(alive, 0);
    for (let n = 0; n < states; n++) {
      const part = f(d, o_yP + n * ports + p) * f(slope, p);
      for (let c = 0; c < states; c++)
        put(out, n * states + c, f(out, n * states + c) + part * f(d, o_u + p * states + c));
    }
    return;
  }
  respond();
  for (let p = 0; p < bends; p++) {
    for (let c = 0; c < states; c++) {
      let sum: f64 = 0;
      for (let j = 0; j < bends; j++) sum += f(response, p * ports + j) * f(d, o_u + j * states + c);
      put(dPort, p * states + c, sum);
    }
  }
  for (let n = 0; n < states; n++) {
    for (let p = 0; p < bends; p++) {
      const part = f(d, o_yP + n * ports + p);
      if (part == 0) continue;
      for (let c = 0; c < states; c++)
        put(out, n * states + c, f(out, n * states + c) + part * f(dPort, p * states + c));
    }
  }
}

/** d(i)/d(u) where several conduct. */
function respond(): void {
  const d = level;
  if (floats == 0 && count == 2) {
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
  const size = bends + floats;
  for (let n = 0; n < size * size; n++) put(portMatrix, n, 0);
  for (let k = 0; k < bends; k++) {
    const row = k * size;
    for (let j = 0; j < bends; j++) put(portMatrix, row + j, j == k ? 1 : f(slope, k) * f(d, o_z + k * ports + j));
    const w = int(floatOf, k);
    if (w < 0) continue;
    const under = (bends + w) * size;
    put(portMatrix, row + bends + w, -f(slope, k) * f(floatSign, k));
    put(portMatrix, under + k, f(floatSign, k));
    put(portMatrix, under + bends + w, f(portMatrix, under + bends + w) + f(numbers, N_floatLeakS));
  }
  if (!invert(portMatrix, size, portInverse)) {
    for (let n = 0; n < ports * ports; n++) put(response, n, 0);
    return;
  }
  for (let k = 0; k < bends; k++) {
    for (let j = 0; j < bends; j++) put(response, k * ports + j, f(portInverse, k * size + j) * f(slope, j));
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
  to = copy(to, loadA, rails);
  copy(to, floatV, floats);
}
