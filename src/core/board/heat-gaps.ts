import type { Heat, OnBoard } from './etched';
import { gapBetween } from './overlaps';

/** What minds heat keeps from what gives it, mm: a can ages, a divider drifts. As builders lay boards out; rule of thumb. */
const HEAT_GAPS: readonly (readonly [gives: Heat, minds: Heat, mm: number])[] = [
  ['sink', 'can', 5],
  ['shunt', 'can', 5],
  ['shunt', 'setting', 10],
];
/** What two of them keep from each other, mm. */
export const heatGapMm = (a: Heat | null, b: Heat | null): number =>
  HEAT_GAPS.find(([gives, minds]) => (a === gives && b === minds) || (b === gives && a === minds))?.[2] ?? 0;

/** Parts that stand nearer to heat than they should, the nearest first. */
export function warmedOf(parts: readonly OnBoard[]): { a: string; b: string; mm: number; wantsMm: number }[] {
  return parts
    .flatMap((a, n) =>
      parts.slice(n + 1).flatMap((b) => {
        const [wantsMm, mm] = [heatGapMm(a.heat, b.heat), gapBetween(a.body, b.body)];
        return mm < wantsMm - 1e-6 ? [{ a: a.ref, b: b.ref, mm, wantsMm }] : [];
      }),
    )
    .sort((p, q) => p.mm - q.mm);
}
