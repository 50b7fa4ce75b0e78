import type { Design } from '@/core/design/design';
import type { Build, Reading, ToleranceSummary } from '@/core/picture/build-summary';
import { BatchSurfaces, surfaceTerms, type BatchOf, type ReadBuild } from './batch-surfaces';
import { planOf, type Plan } from './plan';
import { allPlaces, marginsOf, type Ask, type Seen, type SolvedBuild } from './solve';
import { drawBuild, spreadsOf } from './spreads';
import { summarise } from './summary';

/** Builds solved whole for each term of the surfaces, and at least. */
const PER_TERM = 9;
const LEAST_WHOLE = 200;
/** Below so many times those, all are. */
const WORTH = 1.3;
/** Builds looked at to see how many cannot be read yet, the share of them that is much, and how many then teach the surfaces. */
const LOOKED_AT = 1500;
const MUCH = 0.15;
const TEACHING = 400;
/** Builds at either end of each margin that are solved where that margin is decided: what is least is not read. */
const AT_EITHER_END = 4;

/** The first so many of a number of builds are solved whole. */
export function wholeOf(design: Design, count: number): number {
  const whole = Math.max(LEAST_WHOLE, PER_TERM * surfaceTerms(spreadsOf(design)));
  return count < WORTH * whole ? count : whole;
}

/**
 * Thousands of builds. Some hundred are solved whole. Between those every figure of a circuit changes so smoothly, as long as
 * its regulators stand alike, that a quadratic in the drawn factors is off by a thousandth of its spread: so all others are
 * read off such surfaces, each circumstance by itself. Where what is read could be otherwise (near a limit, near an edge, or
 * where the surfaces are not good enough) that circumstance is solved.
 *
 * It says what is to be solved, in three goes, and is told: whoever solves, and in whatever order, it comes to the same.
 */
export class Batch {
  readonly plan: Plan;
  private readonly of: BatchOf;
  private readonly whole: SolvedBuild[] = [];
  /** Of some more builds what was solved to teach the surfaces; then of all others what cannot be read. */
  private readonly parts: SolvedBuild[] = [];
  private readonly more: SolvedBuild[] = [];
  private taking: SolvedBuild[] = this.whole;
  private surfaces: BatchSurfaces | null = null;
  /** What every build is read to come to in each check, one build after the other. */
  private readonly read: Float64Array;

  constructor(
    private readonly design: Design,
    private readonly seed: number,
    private readonly count: number,
  ) {
    this.plan = planOf(design);
    this.of = { design, plan: this.plan, seed };
    this.read = new Float64Array(count * this.plan.checks.length);
  }

  /** What is asked first: the builds that are solved whole. */
  first(): Ask[] {
    return this.wholeFrom(0, wholeOf(this.design, this.count));
  }

  /** Takes answers to what was asked last, in whatever order. */
  take(answers: readonly SolvedBuild[]): void {
    this.taking.push(...answers);
  }

  /** What is to be solved next, once all that was asked is answered; nothing when that was all. */
  next(): Ask[] {
    if (this.taking === this.more || this.whole.length === this.count) return [];
    inOrder(this.taking);
    if (this.taking === this.whole) {
      this.surfaces = BatchSurfaces.of(this.of, this.whole, []);
      this.taking = this.parts;
      const asks = this.surfaces ? this.teaching(this.surfaces) : [];
      if (asks.length > 0) return asks;
    } else this.surfaces = BatchSurfaces.of(this.of, this.whole, this.parts);
    this.taking = this.more;
    return this.surfaces ? this.unread(this.surfaces) : this.wholeFrom(this.whole.length, this.count);
  }

  /** Every build, solved or read, and how. */
  found(): { builds: Build[]; reading: Reading } {
    const { design, plan, seed, count } = this;
    const spreads = spreadsOf(design);
    const checks = plan.checks.length;
    const circumstances = plan.conditions.length;
    const answers = merged([...this.whole, ...this.parts, ...this.more]);
    let solved = 0;
    const builds = Array.from({ length: count }, (_, build): Build => {
      const factors = drawBuild(spreads, seed, build);
      const answer = answers.get(build);
      if (answer === undefined)
        return { factors, margins: [...this.read.subarray(build * checks, (build + 1) * checks)] };
      if (answer === null) {
        solved += circumstances;
        return { factors, margins: null };
      }
      const found = answer.filter((s) => s).length;
      solved += found;
      const others: ReadBuild = found < circumstances ? this.surfaces!.readAt(build) : [];
      const seen = plan.conditions.map((_, place) => answer[place] ?? others[place]);
      return { factors, margins: marginsOf(plan, seen) };
    });
    const within = plan.checks.map((_, check) => this.surfaces?.within(check) ?? 0);
    return { builds, reading: { circumstances: count * circumstances, solved, within } };
  }

  summary(): ToleranceSummary {
    return summarise(this.of, this.found());
  }

  private wholeFrom(from: number, to: number): Ask[] {
    const places = allPlaces(this.plan);
    return Array.from({ length: to - from }, (_, k) => ({ build: from + k, places }));
  }

  /** Where many builds cannot be read by what is known, some of those, so that the others can. */
  private teaching(surfaces: BatchSurfaces): Ask[] {
    const from = this.whole.length;
    const end = Math.min(this.count, from + LOOKED_AT);
    const asks: Ask[] = [];
    for (let build = from; build < end; build++) {
      const places = [...surfaces.unsure(surfaces.readAt(build))];
      if (places.length > 0) asks.push({ build, places });
    }
    return asks.length > MUCH * (end - from) ? asks.slice(0, TEACHING) : [];
  }

  /** Reads every build that was not solved whole, and asks for what is not sure. */
  private unread(surfaces: BatchSurfaces): Ask[] {
    const { plan, read } = this;
    const checks = plan.checks.length;
    const from = this.whole.length;
    const known = merged(this.parts);
    const unknown = new Set<number>();
    const asks = new Map<number, Set<number>>();
    const ask = (build: number, places: Iterable<number>) => {
      const had = known.get(build);
      if (had === null) return;
      for (const place of places) {
        if (had?.[place]) continue;
        const asked = asks.get(build);
        if (asked) asked.add(place);
        else asks.set(build, new Set([place]));
      }
    };
    for (let build = from; build < this.count; build++) {
      const found = surfaces.readAt(build);
      if (found.includes(undefined)) unknown.add(build);
      ask(build, surfaces.unsure(found));
      read.set(marginsOf(plan, found), build * checks);
    }
    for (let check = 0; check < checks; check++)
      for (const build of this.atTheEnds(check, from, unknown))
        ask(build, surfaces.mayDecide(surfaces.readAt(build), check));
    return [...asks].sort(([a], [b]) => a - b).map(([build, places]) => ({ build, places: [...places] }));
  }

  /** The builds from `from` on that are read to have the least and the most left of a check. */
  private atTheEnds(check: number, from: number, unknown: ReadonlySet<number>): number[] {
    const { read, count, plan } = this;
    const at = (build: number) => read[build * plan.checks.length + check]!;
    const low: number[] = [];
    const high: number[] = [];
    for (let build = from; build < count; build++) {
      keep(low, build, (a, b) => at(a) < at(b));
      // What could not be read may bring it down.
      if (!unknown.has(build)) keep(high, build, (a, b) => at(a) > at(b));
    }
    return [...low, ...high];
  }
}

/** Puts one among the first few of a list. */
function keep(list: number[], one: number, before: (a: number, b: number) => boolean): void {
  if (list.length === AT_EITHER_END && !before(one, list[list.length - 1]!)) return;
  let place = list.length;
  while (place > 0 && before(one, list[place - 1]!)) place--;
  list.splice(place, 0, one);
  if (list.length > AT_EITHER_END) list.pop();
}

/** In the order of the builds, whoever answered first: sums then come out the same. */
function inOrder(answers: SolvedBuild[]): void {
  answers.sort((a, b) => a.build - b.build);
}

/** What was seen of each build, all answers together; null where one of them found none. */
function merged(answers: readonly SolvedBuild[]): ReadonlyMap<number, readonly (Seen | undefined)[] | null> {
  const of = new Map<number, (Seen | undefined)[] | null>();
  for (const { build, seen } of answers) {
    const before = of.get(build);
    if (before === null) continue;
    of.set(build, seen && before ? seen.map((s, place) => s ?? before[place]) : seen);
  }
  return of;
}
