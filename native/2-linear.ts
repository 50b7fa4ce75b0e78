// Linear equations, as src/core/solve/dense.ts solves them.

/** The row from c on whose entry in column c is the largest. */
function pivotOf(a: usize, n: i32, c: i32): i32 {
  let pivot = c;
  for (let r = c + 1; r < n; r++) if (Math.abs(f(a, r * n + c)) > Math.abs(f(a, pivot * n + c))) pivot = r;
  return pivot;
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
    const pivot = pivotOf(a, n, c);
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
    const pivot = pivotOf(a, n, c);
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
