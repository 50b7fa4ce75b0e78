import { SATURATED_SHARE } from './network';

/** Flux of a choke that keeps a tenth of its inductance and loses the rest with current, Vs. */
export function fluxAt(inductanceH: number, halfAtA: number, currentA: number): number {
  if (halfAtA === Infinity) return inductanceH * currentA;
  return (
    SATURATED_SHARE * inductanceH * currentA +
    (1 - SATURATED_SHARE) * inductanceH * halfAtA * Math.atan(currentA / halfAtA)
  );
}

/** Differential inductance at a current, H. */
export function inductanceAt(inductanceH: number, halfAtA: number, currentA: number): number {
  if (halfAtA === Infinity) return inductanceH;
  const x = currentA / halfAtA;
  return inductanceH * (SATURATED_SHARE + (1 - SATURATED_SHARE) / (1 + x * x));
}
