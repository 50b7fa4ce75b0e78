import { once } from '@/core/quantity/once';
import { diodeCount, diodesOf, type Arrangement, type Cell, type Loop } from './arrangement';

/** What follows from the loops of an arrangement. Volts are multiples of one winding's open-circuit peak. */
export interface ArrangementFacts {
  /** Whether each rail is charged in both half waves. */
  fullWave: readonly boolean[];
  /** Most diodes one charging current passes through. */
  diodesInPath: number;
  /** Volts each cell stands at without load, and the first rail. */
  cellPeaks: readonly number[];
  railPeaks: number;
  /** Volts of the first rail over those of the can that stands highest. */
  railPerCan: number;
  /** Most reverse volts across one diode without load. */
  reversePeaks: number;
  /** Mean current of the busiest diode as a multiple of a rail's direct current. */
  diodeShare: number;
  /** Diode drops each rail's direct current passes, all its ways together. */
  drops: readonly number[];
  /** Diodes whose cathodes are joined, one number for each place a cathode stands at. */
  cathodes: readonly number[];
  /** Ready-made bridges of four that would carry it, with no diode idle; none where it is not made of such. */
  bridges: number;
  /** Whether two windings carry current at the same instant: their ampere-turns then add in the primary. */
  together: boolean;
  /** Direct current left in the core as a multiple of each rail's, by the balance of charge. */
  bias: readonly number[];
  /** The cells of each rail: the one its filter is, -1 for none, those stacked at its head from the top, and its pumps. */
  cellsOf: readonly { head: number; stack: readonly number[]; pumps: readonly number[] }[];
  /** Capacitors stacked at the head of the first rail, 1 where a filter of any kind may begin there. */
  stacked: number;
  /** Capacitors of its own beyond one on each rail: stacked ones and pumps. */
  ownCans: boolean;
  /** Capacitors with the reservoir's values, over all rails. */
  cans: number;
}

export const factsOf: (arrangement: Arrangement) => ArrangementFacts = once(derive);

function derive(arrangement: Arrangement): ArrangementFacts {
  const { loops, cells, ratios, direct = false } = arrangement;
  const polarity = (loop: Loop) => loop.sign * ratios[loop.winding]!;
  /** Whether a cell belongs to a rail's head. */
  const heads = (cell: number, rail: number) => {
    const c = cells[cell]!;
    return c.at === 'rail' ? c.rail === rail : c.at === 'stack' && rail === 0;
  };
  const charging = (rail: number) => loops.filter((l) => l.cells.some((p) => p.sign > 0 && heads(p.cell, rail)));
  const fullWave = Array.from({ length: arrangement.rails }, (_, rail) => {
    const signs = new Set(charging(rail).map(polarity));
    // A direct source has no half waves: it charges all the time.
    return signs.size === 2 || direct;
  });
  const cellPeaks = idleVolts(arrangement);
  const reverse = loops.map((loop) => (1 + behind(loop, cellPeaks)) / diodesOf(loop).length);
  const means = Array.from({ length: arrangement.rails }, (_, rail) =>
    meanCurrents(arrangement, (cell) => (heads(cell, rail) ? 1 : 0)),
  );
  const cathodes = cathodesOf(loops);
  // Each bridge joins two cathodes at its plus.
  const pairs = cathodes.filter((joined) => joined === 2).length;
  const stack = cells.filter((c) => c.at === 'stack').length;
  const pumps = cells.filter((c) => c.at === 'pump').length;
  const numbers = (of: (cell: Cell) => boolean) => cells.flatMap((cell, n) => (of(cell) ? [n] : []));
  const cellsOf = Array.from({ length: arrangement.rails }, (_, rail) => ({
    head: cells.findIndex((c) => c.at === 'rail' && c.rail === rail),
    stack: numbers((c) => c.at === 'stack' && rail === 0),
    pumps: numbers((c) => c.at === 'pump' && rail === 0),
  }));
  const railPeaks = cells.reduce((sum, c, n) => (c.at === 'pump' || !heads(n, 0) ? sum : sum + cellPeaks[n]!), 0);
  return {
    fullWave,
    diodesInPath: Math.max(...loops.map((l) => diodesOf(l).length)),
    cellPeaks,
    railPeaks,
    railPerCan: railPeaks / Math.max(...cellPeaks),
    reversePeaks: Math.max(...reverse),
    diodeShare: Math.max(...means.flat()),
    drops: means.map((mean) => rounded(loops.reduce((sum, l, n) => sum + mean[n]! * diodesOf(l).length, 0))),
    cathodes,
    bridges: diodeCount(arrangement) === 4 * pairs ? pairs : 0,
    together: loops.some((a) => loops.some((b) => a.winding !== b.winding && polarity(a) === polarity(b))),
    bias: means.map((mean) => (direct ? 0 : rounded(loops.reduce((sum, l, n) => sum + polarity(l) * mean[n]!, 0)))),
    cellsOf,
    stacked: Math.max(1, stack),
    ownCans: stack + pumps > 0,
    cans: (stack > 0 ? stack : arrangement.rails) + pumps,
  };
}

/** The last diode on the way from a winding to a cell has its cathode on the cell; any other stands alone. */
function cathodesOf(loops: readonly Loop[]): number[] {
  const places = new Map<string, Set<number>>();
  for (const loop of loops) {
    const towards = loop.sign > 0 || loop.returnDiodes !== undefined;
    for (const d of diodesOf(loop)) {
      const joined = towards && d === loop.diodes.at(-1);
      const place = joined ? `cell ${loop.cells[0]!.cell}` : `diode ${d}`;
      places.set(place, (places.get(place) ?? new Set()).add(d));
    }
  }
  return [...places.values()].map((diodes) => diodes.size);
}

/** Volts a loop has to overcome, at the volts its cells stand at. */
function behind(loop: Loop, volts: readonly number[]): number {
  return loop.cells.reduce((sum, { cell, sign }) => sum + sign * volts[cell]!, 0);
}

/** Volts of the cells once nothing flows: every loop has charged what it is there to charge to all it can. */
function idleVolts({ loops, cells }: Arrangement): number[] {
  const volts = cells.map(() => 0);
  for (let round = 0; round < 100; round++) {
    let moved = 0;
    for (const loop of loops) {
      const excess = 1 - behind(loop, volts);
      if (excess <= 1e-9) continue;
      volts[loop.cells[0]!.cell]! += excess;
      moved = Math.max(moved, excess);
    }
    if (moved === 0) break;
  }
  return volts;
}

/**
 * Mean current of each loop, that every cell takes in what is drawn from it: where several loops could share, they share
 * alike (the least squares answer, found by projecting on one cell after the other).
 */
function meanCurrents({ loops, cells }: Arrangement, drawn: (cell: number) => number): number[] {
  const amps = loops.map(() => 0);
  for (let round = 0; round < 400; round++) {
    cells.forEach((_, cell) => {
      const signs = loops.map((l) => l.cells.find((p) => p.cell === cell)?.sign ?? 0);
      const taken = signs.reduce<number>((sum, s, n) => sum + s * amps[n]!, 0);
      const paths = signs.filter((s) => s !== 0).length;
      signs.forEach((s, n) => (amps[n]! += (s * (drawn(cell) - taken)) / paths));
    });
  }
  return amps;
}

const rounded = (x: number) => Math.round(1e6 * x) / 1e6 || 0;
