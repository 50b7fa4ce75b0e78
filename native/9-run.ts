// One run: src/core/solve/integrator.ts.

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
  lost = false;
  carrying = carry;
  for (let p = 0; p < ports; p++) {
    putInt(live, p, 0);
    put(portA, p, 0);
  }
  if (fresh) for (let r = 0; r < rails; r++) takeSegment(r, int(pieces, r) - 1);
  const periodS = f(numbers, N_periodS);
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
  let forced: f64 = 0;
  let usual = wanted;
  let calm = 9;
  if (!derive(t, carry) || lost) return -1;
  let quiet = quietNow(Infinity);
  if (quiet) wanted = QUIET * periodS;
  let starting = false;
  let afterStart = false;
  let joins = false;
  let lastH: f64 = 0;
  if (joining) forget();
  for (let s = 0; s < stopCount; s++) {
    const stop = f(stops, s);
    while (t < stop) {
      if (++steps > MOST_STEPS) return -2;
      work += stepWork;
      if (work > MOST_WORK) return -3;
      const left = stop - t;
      let index = 0;
      while (index < LEVELS - 1 && f(gridH, index) > ROUNDED * wanted) index++;
      let h = f(gridH, index);
      if (forced > 0 && forced < left) {
        h = forced;
        index = -1;
      } else if (left < (calm > 0 ? 1.3 : 1) * h) {
        h = left;
        index = -1;
      }
      const landing = forced > 0;
      forced = 0;
      if (quiet && !landing) {
        const ends = startsWithin(t, h);
        if (ends > 1e-4 * h && ends < h) {
          h = ends;
          index = -1;
          starting = true;
        }
        quiet = false;
      } else if (joining && !landing && lastH > 0) {
        const ends = joinsWithin(h, lastH);
        if (ends > 1e-3 * h && ends < h) {
          h = ends;
          index = -1;
          joins = true;
        }
      }
      let capped = false;
      if (eventful && !landing) {
        const most = longestToEnd();
        if (most < h && most > SHORTEST * periodS) {
          h = most;
          index = -1;
          capped = true;
        }
      }
      if (record && recorded + STAGES > capacity) return -6;
      setStep(index, GAMMA * h);
      const solved = takeStages(t, h, record, carry);
      if (lost) return -8;
      const error = solved ? errorOf(h) : 1e3;
      if (error != error) return -4;
      if (error > 1 && h > SHORTEST * periodS) {
        wanted = h * Math.max(0.15, 0.9 * Math.sqrt(1 / Math.sqrt(error)));
        calm = 0;
        joins = false;
        continue;
      }
      if (!solved) return -5;
      if (eventful) {
        const ends = endsWithin(h, landing);
        if (ends > SHORTEST * periodS && ends < 0.999 * h) {
          forced = ends;
          joins = false;
          continue;
        }
      }
      if (carry) carryStep(h);
      if (record) keep(h);
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
      const ceased = eventful ? cut() : false;
      if (!ceased) goOn(record);
      else if (!derive(t, carry)) return -7;
      quiet = quietNow(h);
      wanted =
        h *
        Math.min(++calm > 3 || quiet ? 4 : 1.42, Math.max(0.2, 0.9 * Math.sqrt(1 / Math.sqrt(Math.max(error, 1e-9)))));
      if (starting) wanted = Math.min(wanted, first * tolerated);
      else if (afterStart) first = wanted / tolerated / 1.2;
      if (joins) wanted = Math.min(wanted, first * tolerated);
      afterStart = starting;
      starting = false;
      joins = false;
      lastH = ceased ? 0 : h;
      if (ceased) wanted = Math.max(Math.max(wanted, usual), quiet ? QUIET * periodS : 0);
      else if (!landing && !capped && index >= 0) usual = Math.max(h, 0.8 * usual);
    }
  }
  put(numbers, N_first, first);
  put(numbers, N_flowed, flowed);
  put(numbers, N_work, work);
  return <f64>steps * 65536 + <f64>recorded;
}
