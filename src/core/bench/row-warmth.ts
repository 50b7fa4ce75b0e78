import type { Design, LoadRow } from '@/core/design/design';
import { READ_AT_C } from '@/core/parts/transformer-source';
import { restingAdjust } from '@/core/study/operating-point';
import { arrived, sinkS, windingS } from '@/core/study/time-constants';

/** Longer than this without a row and the evening is another one: all is cold again, s. */
const ANOTHER_EVENING_S = 4 * 3600;
/** A part without a sink warms in about two minutes, s. */
const BARE_S = 120;
/** A share of a rise that is no longer felt. */
const FORGOTTEN = 1e-4;

/** What the copper comes to in the end at full load, °C: found with everything else, or as chosen. */
export const warmCopperC = (design: Design): number =>
  restingAdjust(design, 'nominal').copperC ?? design.transformer.hotC;

/** Copper that was at `fromC`, after so long at a load, °C. Its rise goes with the square of the load, its pace with the core. */
export function copperAfter(design: Design, fromC: number, loadA: number, seconds: number, endC: number): number {
  const end = READ_AT_C + (endC - READ_AT_C) * (loadA / design.demand.outputA) ** 2;
  return fromC + (end - fromC) * arrived(seconds / 60, windingS(design.transformer.ratedVA));
}

/** The pace of the regulator's metal, s. */
export const metalS = ({ heat }: Pick<Design, 'heat'>): number =>
  heat.sinkKPerW === null ? BARE_S : sinkS(heat.sinkKPerW);

/** So much of the rise the metal has in the end at a load is in it now. */
export interface MetalShare {
  mainsV: number;
  loadA: number;
  share: number;
}

/** How far copper and metal have come. */
export interface Warmth {
  /** What the copper is at, °C; left out where nothing has copper. */
  copperC?: number;
  /** What each load it has carried has left in the metal. */
  metal: readonly MetalShare[];
}

/** Copper and metal of a supply as time goes by under its loads; cold to begin with. */
export class Warming {
  private copperC = READ_AT_C;
  private metal: readonly MetalShare[] = [];
  private readonly endC: number | null;

  constructor(private readonly design: Design) {
    this.endC = design.source.kind === 'mains' ? warmCopperC(design) : null;
  }

  /** So many seconds at a load, A. */
  pass(seconds: number, loadA: number, mainsV: number): void {
    if (this.endC !== null) this.copperC = copperAfter(this.design, this.copperC, loadA, seconds, this.endC);
    const come = arrived(seconds / 60, metalS(this.design));
    const same = (m: MetalShare) => m.loadA === loadA && m.mainsV === mainsV;
    const before = this.metal.find(same)?.share ?? 0;
    this.metal = [
      ...this.metal.filter((m) => !same(m)).map((m) => ({ ...m, share: m.share * (1 - come) })),
      ...(loadA > 0 ? [{ mainsV, loadA, share: before * (1 - come) + come }] : []),
    ].filter((m) => m.share > FORGOTTEN);
  }

  /** Cold again. */
  rest(): void {
    this.copperC = READ_AT_C;
    this.metal = [];
  }

  get state(): Warmth {
    return { metal: this.metal, ...(this.endC === null ? {} : { copperC: this.copperC }) };
  }
}

/**
 * How warm a supply was in every row of a load line: cold before the first, warmed by each load for as long as it is said
 * to have hung on it, cooling between. Null where a row does not say how long.
 */
export function rowWarmth(design: Design): (Warmth | null)[] {
  const rows = design.bench.loadLine;
  if (rows.every((r) => r.loadedS === null)) return rows.map(() => null);
  const at = (row: LoadRow) => Date.parse(row.at) / 1000;
  const found = rows.map((): Warmth | null => null);
  const order = rows.map((_, n) => n).sort((a, b) => at(rows[a]!) - at(rows[b]!) || a - b);
  const warming = new Warming(design);
  let before: number | null = null;
  for (const n of order) {
    const row = rows[n]!;
    const gapS = before === null ? Infinity : at(row) - before;
    before = at(row);
    if (row.loadedS === null) continue;
    // Rows written down together say nothing of the time between them.
    if (gapS > ANOTHER_EVENING_S) warming.rest();
    else if (gapS > row.loadedS) warming.pass(gapS - row.loadedS, 0, row.mainsV);
    warming.pass(row.loadedS, row.loadA, row.mainsV);
    found[n] = warming.state;
  }
  return found;
}
