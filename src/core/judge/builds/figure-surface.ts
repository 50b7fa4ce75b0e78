import { OFF_BY } from '@/core/picture/build-summary';
import { readSurface, type Surface } from './surface';

/** Solved builds that surfaces are made of: the first of them are fitted to, the others check. */
export interface Lesson {
  /** Terms of each build's place. */
  points: readonly Float64Array[];
  fit: (values: Float64Array) => Surface;
}

/** One figure in every build of a lesson. */
export interface Figures {
  values: Float64Array;
  margins: Float64Array;
  ranks: Float64Array;
}

/** Where a figure that was read is put down, and by how much it may be off. */
export interface Readings {
  margins: Float64Array;
  marginOff: Float64Array;
  ranks: Float64Array;
  rankOff: Float64Array;
}

/** What a surface may be off by is told by the builds that come to about the same: so many parts they fall into. */
const PARTS = 10;
/** Shares of a number that make no difference. */
const SAME = 1e-9;

/** One quantity as a surface of itself or of its inverse, and how far it may be off. */
interface Quantity {
  surface: Surface;
  /** Where the surface is that of the figure's inverse: what the figure's margin is made of. */
  inverse: Limit | null;
  /** By how much it may be off where it is less than each of `to`, and beyond the last. */
  to: number[];
  by: number[];
}

/** A limit that is the same in every build: a figure has to stay below it, 1, or above it, -1. */
interface Limit {
  at: number;
  side: 1 | -1;
}

/** One figure's margin and rank, read off surfaces. */
export class FigureSurface {
  private readonly margin: Quantity;
  /** The rank where it is no fixed share of the margin, and that share where it is. */
  private readonly rank: Quantity | number;

  constructor(lesson: Lesson, { values, margins, ranks }: Figures) {
    const plain = quantityOf(lesson, margins, margins, null);
    const limit = values.every((v) => v > 0) ? limitOf(values, margins) : null;
    // A share of something that dwindles runs off like one over it: then that is what changes evenly.
    const inverse =
      limit &&
      quantityOf(
        lesson,
        values.map((v) => 1 / v),
        margins,
        limit,
      );
    this.margin = inverse && sum(inverse.by) < sum(plain.by) ? inverse : plain;
    const share = shareOf(ranks, margins);
    this.rank = share ?? quantityOf(lesson, ranks, ranks, null);
  }

  /** By how much a margin may be off at worst, in each part of the builds. */
  get offs(): readonly number[] {
    return this.margin.by;
  }

  read(terms: Float64Array, n: number, into: Readings): void {
    const said = saidBy(this.margin, terms);
    // Beyond where an inverse has a meaning it says nothing at all.
    const margin = Number.isFinite(said) ? said : 0;
    const off = Number.isFinite(said) ? offAt(this.margin, said) : Infinity;
    into.margins[n] = margin;
    into.marginOff[n] = off;
    if (typeof this.rank === 'number') {
      into.ranks[n] = this.rank * margin;
      into.rankOff[n] = this.rank * off;
      return;
    }
    const rank = saidBy(this.rank, terms);
    into.ranks[n] = rank;
    into.rankOff[n] = offAt(this.rank, rank);
  }
}

/** @param real what the quantity was in every build; `made` is what the surface is of */
function quantityOf({ points, fit }: Lesson, made: Float64Array, real: Float64Array, inverse: Limit | null): Quantity {
  const quantity: Quantity = { surface: fit(made), inverse, to: [], by: [] };
  const said = points
    .map((terms, k) => {
      const read = saidBy(quantity, terms);
      return { read, off: Math.abs(read - real[k]!) };
    })
    .sort((a, b) => a.read - b.read);
  const parts = Array.from({ length: PARTS }, (_, part) =>
    said.slice(Math.floor((part * said.length) / PARTS), Math.floor(((part + 1) * said.length) / PARTS)),
  );
  const worst = parts.map((part) => Math.max(...part.map((one) => one.off)));
  quantity.to = parts.slice(1).map((part) => part[0]!.read);
  quantity.by = worst.map((w, n) => OFF_BY * Math.max(worst[n - 1] ?? 0, w, worst[n + 1] ?? 0));
  return quantity;
}

/** What a quantity is at a place; not a number where its inverse would be nothing or less. */
function saidBy({ surface, inverse }: Quantity, terms: Float64Array): number {
  const read = readSurface(surface, terms);
  if (!inverse) return read;
  return read > 0 ? inverse.side * (inverse.at - 1 / read) : NaN;
}

function offAt({ to, by }: Quantity, read: number): number {
  let part = 0;
  while (part < to.length && read >= to[part]!) part++;
  return by[part]!;
}

const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);

function limitOf(values: Float64Array, margins: Float64Array): Limit | null {
  for (const side of [1, -1] as const) {
    const at = values[0]! + side * margins[0]!;
    if (values.every((v, k) => Math.abs(v + side * margins[k]! - at) <= SAME * Math.abs(at))) return { at, side };
  }
  return null;
}

/** The share of its margin that a rank is in every build; null where it is not the same in all. */
function shareOf(ranks: Float64Array, margins: Float64Array): number | null {
  let most = 0;
  margins.forEach((m, k) => Math.abs(m) > Math.abs(margins[most]!) && (most = k));
  const share = ranks[most]! / margins[most]!;
  const same = ranks.every((r, k) => Math.abs(r - share * margins[k]!) <= SAME * Math.abs(ranks[most]!));
  return same && Number.isFinite(share) ? share : null;
}
