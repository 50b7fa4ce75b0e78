import type { Design, LoadRow } from '@/core/design/design';
import { READ_AT_C } from '@/core/parts/transformer-source';
import { restingAdjust } from '@/core/study/operating-point';
import { arrived, sinkS, windingS } from '@/core/study/time-constants';

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

/** How far copper and metal had come when a row was read. */
export interface RowWarmth {
  /** What the copper was at, °C; null where nothing has copper. */
  copperC: number | null;
  /** Share of its rise the regulator's metal had made, 0 to 1. */
  metal: number;
}

/** A part without a sink warms in about two minutes, s. */
export const BARE_S = 120;

/** The pace of the regulator's metal, s. */
export const metalS = ({ heat }: Pick<Design, 'heat'>): number =>
  heat.sinkKPerW === null ? BARE_S : sinkS(heat.sinkKPerW);

/** The share of its rise metal has made after so long with a load or without. */
export const metalAfter = (design: Design, from: number, loadA: number, seconds: number): number =>
  from + ((loadA > 0 ? 1 : 0) - from) * arrived(seconds / 60, metalS(design));

/**
 * How warm a supply was in every row of a load line: cold before the first, warmed by each load for as long as it is said
 * to have hung on it, cooling between. Null where a row does not say how long.
 */
export function rowWarmth(design: Design): (RowWarmth | null)[] {
  const rows = design.bench.loadLine;
  if (rows.every((r) => r.loadedS === null)) return rows.map(() => null);
  const wound = design.source.kind === 'mains';
  const endC = wound ? warmCopperC(design) : READ_AT_C;
  const at = (row: LoadRow) => Date.parse(row.at) / 1000;
  const found = rows.map((): RowWarmth | null => null);
  const order = rows.map((_, n) => n).sort((a, b) => at(rows[a]!) - at(rows[b]!) || a - b);
  const cold = { copperC: READ_AT_C, metal: 0 };
  let now = cold;
  const pass = (loadA: number, seconds: number) => {
    now = {
      copperC: copperAfter(design, now.copperC, loadA, seconds, endC),
      metal: metalAfter(design, now.metal, loadA, seconds),
    };
  };
  let before: number | null = null;
  for (const n of order) {
    const row = rows[n]!;
    const gapS = before === null ? Infinity : at(row) - before;
    before = at(row);
    if (row.loadedS === null) continue;
    // Rows written down together say nothing of the time between them.
    if (gapS > ANOTHER_EVENING_S) now = cold;
    else if (gapS > row.loadedS) pass(0, gapS - row.loadedS);
    pass(row.loadA, row.loadedS);
    found[n] = { copperC: wound ? now.copperC : null, metal: now.metal };
  }
  return found;
}
