/** Linear algebra on the tiny dense matrices of one circuit, row by row in flat arrays. */

/**
 * Inverts `a` (n x n) into `out` by Gauss-Jordan elimination with partial pivoting; `a` is destroyed.
 * @returns false when the matrix is singular
 */
export function invert(a: Float64Array, n: number, out: Float64Array): boolean {
  if (n === 1) {
    out[0] = 1 / a[0]!;
    return a[0] !== 0;
  }
  out.fill(0, 0, n * n);
  for (let k = 0; k < n; k++) out[k * n + k] = 1;
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r * n + c]!) > Math.abs(a[pivot * n + c]!)) pivot = r;
    const p = a[pivot * n + c]!;
    if (p === 0 || p !== p) return false;
    if (pivot !== c) {
      for (let k = 0; k < n; k++) {
        const x = a[c * n + k]!;
        a[c * n + k] = a[pivot * n + k]!;
        a[pivot * n + k] = x;
        const y = out[c * n + k]!;
        out[c * n + k] = out[pivot * n + k]!;
        out[pivot * n + k] = y;
      }
    }
    for (let k = 0; k < n; k++) {
      a[c * n + k]! /= p;
      out[c * n + k]! /= p;
    }
    for (let r = 0; r < n; r++) {
      const f = a[r * n + c]!;
      if (r === c || f === 0) continue;
      for (let k = 0; k < n; k++) {
        a[r * n + k]! -= f * a[c * n + k]!;
        out[r * n + k]! -= f * out[c * n + k]!;
      }
    }
  }
  return true;
}

/**
 * Solves a*x = b (n x n) in place: `a` is destroyed, `b` becomes x.
 * @returns false when the matrix is singular
 */
export function solveLinear(a: Float64Array, n: number, b: Float64Array): boolean {
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r * n + c]!) > Math.abs(a[pivot * n + c]!)) pivot = r;
    const p = a[pivot * n + c]!;
    if (p === 0 || p !== p) return false;
    if (pivot !== c) {
      for (let k = c; k < n; k++) {
        const x = a[c * n + k]!;
        a[c * n + k] = a[pivot * n + k]!;
        a[pivot * n + k] = x;
      }
      const y = b[c]!;
      b[c] = b[pivot]!;
      b[pivot] = y;
    }
    for (let r = c + 1; r < n; r++) {
      const f = a[r * n + c]! / p;
      if (f === 0) continue;
      for (let k = c; k < n; k++) a[r * n + k]! -= f * a[c * n + k]!;
      b[r]! -= f * b[c]!;
    }
  }
  for (let r = n - 1; r >= 0; r--) {
    let sum = b[r]!;
    for (let k = r + 1; k < n; k++) sum -= a[r * n + k]! * b[k]!;
    b[r] = sum / a[r * n + r]!;
  }
  return true;
}
