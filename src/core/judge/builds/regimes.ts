import { OFF_BY } from '@/core/picture/build-summary';
import { FigureSurface, type Figures, type Readings } from './figure-surface';
import type { Seen } from './solve';
import { fitOver, readSurface, type Surface } from './surface';

/** A circumstance of one solved build, and the terms of its place. */
export interface Learnt {
  terms: Float64Array;
  seen: Seen;
}

/** One build in so many is kept to check the surfaces by that are fitted to the others. */
const CHECKING = 3;
/** Builds needed in a regime for each term of its surfaces. */
const LEAST_PER_TERM = 3;

/** An edge: beyond it for certain from `from` on, on this side of it for certain up to `to`. */
interface Edge {
  surface: Surface;
  from: number;
  to: number;
}

/**
 * What can be read of one circumstance of a build without solving it: first on which side of every edge it lies, then every
 * figure off the surfaces over the builds that lie there as well: among those everything changes smoothly.
 */
export class Regimes {
  private readonly readings: Readings;

  private constructor(
    private readonly edges: readonly Edge[],
    /** The surfaces of each figure that has a meaning, by which edges a build is beyond. */
    private readonly surfaces: ReadonlyMap<number, readonly FigureSurface[]>,
    private readonly figures: readonly number[],
    size: number,
  ) {
    const blank = () => new Float64Array(size).fill(NaN);
    this.readings = { margins: blank(), marginOff: blank(), ranks: blank(), rankOff: blank() };
  }

  /**
   * Learns from builds that were solved.
   * @returns null where nothing can be read: something jumps, or has a meaning in one build and none in another
   */
  static of(learnt: readonly Learnt[]): Regimes | null {
    const [first] = learnt;
    if (!first || learnt.some(({ seen }) => !seen.plain || !sameFigures(seen, first.seen))) return null;
    const fit = fitOver(learnt.map((l) => l.terms));
    if (!fit) return null;
    const edges = first.seen.edges.map((_, e) => edgeOver(learnt, e, fit));
    const figures = [...first.seen.margins.keys()].filter((n) => Number.isFinite(first.seen.margins[n]!));
    const surfaces = new Map<number, FigureSurface[]>();
    for (const [id, alike] of bySide(learnt)) {
      if (alike.length < LEAST_PER_TERM * first.terms.length) continue;
      const found = figuresOver(alike, figures);
      if (found) surfaces.set(id, found);
    }
    return new Regimes(edges, surfaces, figures, first.seen.margins.length);
  }

  /**
   * Every figure as Seen, and by how much it may be off: it holds until the next build is read.
   * @returns null where it is not certain on which side of an edge it lies, or too few builds were solved that lie there
   */
  read(terms: Float64Array): Readings | null {
    let id = 0;
    for (let e = 0; e < this.edges.length; e++) {
      const { surface, from, to } = this.edges[e]!;
      const distance = readSurface(surface, terms);
      if (distance >= from) id += 2 ** e;
      else if (distance > to) return null;
    }
    const surfaces = this.surfaces.get(id);
    if (!surfaces) return null;
    for (let k = 0; k < surfaces.length; k++) surfaces[k]!.read(terms, this.figures[k]!, this.readings);
    return this.readings;
  }

  /** How far each figure may be off, in each part of the builds of each regime. */
  *offs(): Generator<{ figure: number; off: number }> {
    for (const surfaces of this.surfaces.values())
      for (let k = 0; k < surfaces.length; k++)
        for (const off of surfaces[k]!.offs) yield { figure: this.figures[k]!, off };
  }
}

const idOf = (edges: Seen['edges']): number => edges.reduce((id, { beyond }, e) => id + (beyond ? 2 ** e : 0), 0);

/** Builds by the edges they are beyond. */
function bySide(learnt: readonly Learnt[]): ReadonlyMap<number, readonly Learnt[]> {
  const sides = new Map<number, Learnt[]>();
  for (const one of learnt) {
    const id = idOf(one.seen.edges);
    const side = sides.get(id);
    if (side) side.push(one);
    else sides.set(id, [one]);
  }
  return sides;
}

function sameFigures(a: Seen, b: Seen): boolean {
  const meant = (n: number) => Number.isFinite(a.margins[n]!) === Number.isFinite(b.margins[n]!);
  return a.edges.length === b.edges.length && a.margins.every((_, n) => meant(n));
}

/** Where builds pass an edge for certain. It lies at nothing left; where builds say otherwise, by them. */
function edgeOver(learnt: readonly Learnt[], e: number, fit: (values: Float64Array) => Surface): Edge {
  const edges = learnt.map(({ seen }) => seen.edges[e]!);
  const surface = fit(Float64Array.from(edges, ({ distance }) => distance));
  let off = 0;
  let from = 0;
  let to = 0;
  edges.forEach(({ distance, beyond }, k) => {
    off = Math.max(off, OFF_BY * Math.abs(readSurface(surface, learnt[k]!.terms) - distance));
    if (beyond) to = Math.min(to, distance);
    else from = Math.max(from, distance);
  });
  return { surface, from: from + off, to: to - off };
}

/** The surface of each figure over builds that stand alike. */
function figuresOver(alike: readonly Learnt[], figures: readonly number[]): FigureSurface[] | null {
  const fitted = alike.filter((_, n) => n % CHECKING > 0);
  const all = [...fitted, ...alike.filter((_, n) => n % CHECKING === 0)];
  const fit = fitOver(fitted.map((l) => l.terms));
  if (!fit) return null;
  const points = all.map((l) => l.terms);
  return figures.map((n) => {
    const of = (name: keyof Figures) => Float64Array.from(all, ({ seen }) => seen[name][n]!);
    return new FigureSurface({ points, fit }, { values: of('values'), margins: of('margins'), ranks: of('ranks') });
  });
}
