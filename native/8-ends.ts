// Currents through an inductance that cease within a step: src/core/solve/turn-off.ts.

/** Port currents where the step in hand starts, A. */
function before(p: i32): f64 {
  return f(startRow, 3 + p);
}

/** How fast a port's current changes as a step begins, A/s, by the derivatives in `slopes`; NaN where it is not told apart. */
function fall(p: i32, slopes: usize): f64 {
  const own = int(windingState, int(windingOf, p));
  const choke = int(chokeState, p);
  let shared = 0;
  for (let n = 0; n < eventful; n++) {
    const q = int(eventPort, n);
    if (q != p && int(inputOf, q) == int(inputOf, p) && before(q) > f(numbers, N_ceasedA)) shared++;
  }
  if (own < 0 && shared > 0) return NaN;
  const steep: f64 = own >= 0 ? f(share, p) * f(slopes, own) : 0;
  if (choke < 0) return steep;
  const through = f(slopes, choke);
  return own < 0 ? through : shared == 1 && !int(alone, p) ? (steep + through) / 2 : steep;
}

/** The longest step from here, s, that does not run into the end of a current. */
function longestToEnd(): f64 {
  let most: f64 = Infinity;
  for (let n = 0; n < eventful; n++) {
    const p = int(eventPort, n);
    const amps = before(p);
    if (amps <= f(numbers, N_ceasedA)) continue;
    const steep = fall(p, lastK);
    if (!(steep < 0)) continue;
    const leave = LEAVE * Math.cbrt(Math.min(1, amps / f(numbers, N_largeA)));
    most = Math.min(most, (-amps / steep) * (1 - leave));
  }
  return most;
}

/** Where in the step of length h just solved a current ceases, s; Infinity when none does. */
function endsWithin(h: f64, landing: bool): f64 {
  let earliest: f64 = Infinity;
  for (let n = 0; n < eventful; n++) {
    const p = int(eventPort, n);
    const amps = before(p);
    if (amps <= f(numbers, N_ceasedA) || f(portA, p) > f(numbers, N_ceasedA)) continue;
    const steep = fall(p, k);
    if (steep != steep) continue;
    const ends: f64 = steep < 0 ? (-amps / steep) * (1 - 1e-3) : Infinity;
    if ((landing || f(portA, p) > 0) && ends > 0.98 * h && ends < 1.5 * h) continue;
    earliest = Math.min(earliest, ends < h ? ends : h / 2);
  }
  return earliest;
}

/** Takes a current that has just ceased out of the states of its inductances. @returns whether there was one */
function cut(): bool {
  let ceased = false;
  for (let n = 0; n < eventful; n++) {
    const p = int(eventPort, n);
    if (!(before(p) > f(numbers, N_ceasedA)) || f(portA, p) > f(numbers, N_ceasedA)) continue;
    ceased = true;
    const own = int(windingState, int(windingOf, p));
    const choke = int(chokeState, p);
    if (own >= 0) put(x, own, 0);
    let through: f64 = 0;
    for (let q = 0; q < ports; q++) {
      if (q == p) continue;
      if (own >= 0 && int(windingOf, q) == int(windingOf, p)) put(x, own, f(x, own) + f(share, q) * f(portA, q));
      if (choke >= 0 && int(inputOf, q) == int(inputOf, p)) through += f(portA, q);
    }
    if (choke >= 0) put(x, choke, through);
  }
  return ceased;
}
