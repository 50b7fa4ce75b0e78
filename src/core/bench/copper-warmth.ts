import type { Design, LoadRow } from '@/core/design/design';
import { READ_AT_C } from '@/core/parts/transformer-source';
import { restingAdjust } from '@/core/study/operating-point';
import { arrived, windingS } from '@/core/study/time-constants';

/** Longer than this without a row and the evening is another one: the copper is cold again, s. */
const ANOTHER_EVENING_S = 4 * 3600;

/** What the copper comes to in the end at full load, °C: found with everything else, or as chosen. */
export const warmCopperC = (design: Design): number =>
  restingAdjust(design, 'nominal').copperC ?? design.transformer.hotC;

/** Copper that was at `fromC`, after so long at a load, °C. Its rise goes with the square of the load, its pace with the core. */
export function copperAfter(design: Design, fromC: number, loadA: number, seconds: number, endC: number): number {
  const end = READ_AT_C + (endC - READ_AT_C) * (loadA / design.demand.outputA) ** 2;
  return fromC + (end - fromC) * arrived(seconds / 60, windingS(design.transformer.ratedVA));
}

/**
 * What the copper was at in every row of a load line, °C: cold before the first, warmed by each load for as long as it is
 * said to have hung on it, cooling between. Null where a row does not say how long, or nothing has copper.
 */
export function rowCopperC(design: Design): (number | null)[] {
  const rows = design.bench.loadLine;
  if (design.source.kind !== 'mains' || rows.every((r) => r.loadedS === null)) return rows.map(() => null);
  const endC = warmCopperC(design);
  const at = (row: LoadRow) => Date.parse(row.at) / 1000;
  const found = rows.map((): number | null => null);
  const order = rows.map((_, n) => n).sort((a, b) => at(rows[a]!) - at(rows[b]!) || a - b);
  let beforeC = READ_AT_C;
  let before: number | null = null;
  for (const n of order) {
    const row = rows[n]!;
    const gapS = before === null ? Infinity : at(row) - before;
    before = at(row);
    if (row.loadedS === null) continue;
    // Rows written down together say nothing of the time between them.
    if (gapS > ANOTHER_EVENING_S) beforeC = READ_AT_C;
    else if (gapS > row.loadedS) beforeC = copperAfter(design, beforeC, 0, gapS - row.loadedS, endC);
    beforeC = copperAfter(design, beforeC, row.loadA, row.loadedS, endC);
    found[n] = beforeC;
  }
  return found;
}
