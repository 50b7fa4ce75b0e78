import { quantileSorted } from 'simple-statistics';
import type { Design } from '@/core/design/design';
import type { Plan } from './plan';
import type { Readings } from './figure-surface';
import { Regimes, type Learnt } from './regimes';
import { marginsOf, type Seen, type SolvedBuild } from './solve';
import { drawBuild, placeOf, spreadsOf, type Spread } from './spreads';
import { quadraticTerms, termCount } from './surface';

/** Whose builds they are, and how they are drawn and looked at. */
export interface BatchOf {
  design: Design;
  plan: Plan;
  seed: number;
}

/** Share of a margin's spread, or of its wanted margin, by which what is read may be off. */
const WIDE = 0.075;
const NOTHING = 1e-3;

/** Terms of the surfaces over what spreads at all. */
export const surfaceTerms = (spreads: readonly Spread[]): number =>
  termCount(spreads.filter(({ low, high }) => high > low).length);

/** The circumstances of one build, each as far as it can be read. */
export type ReadBuild = readonly (Readings | undefined)[];

/** The surfaces of every circumstance of a batch. */
export class BatchSurfaces {
  private readonly terms: Float64Array;
  /** What has been found to decide: places and figures in turn. */
  private readonly found: number[] = [];

  private constructor(
    private readonly batch: BatchOf,
    private readonly spreads: readonly Spread[],
    private readonly regimes: readonly (Regimes | null)[],
    /** By how much each figure may be off to be read, in its check's unit. */
    private readonly allowed: Float64Array,
  ) {
    this.terms = new Float64Array(surfaceTerms(spreads));
  }

  /**
   * Learns from what was solved.
   * @param whole builds solved in every circumstance
   * @param parts others, solved in some
   * @returns null where a whole one found no answer: then nothing can be foretold
   */
  static of(batch: BatchOf, whole: readonly SolvedBuild[], parts: readonly SolvedBuild[]): BatchSurfaces | null {
    const { design, plan, seed } = batch;
    const spreads = spreadsOf(design);
    const learnt: Learnt[][] = plan.conditions.map(() => []);
    for (const { build, seen } of [...whole, ...parts]) {
      if (!seen) continue;
      const terms = new Float64Array(surfaceTerms(spreads));
      quadraticTerms(placeOf(spreads, drawBuild(spreads, seed, build)), terms);
      seen.forEach((s, place) => s && learnt[place]!.push({ terms, seen: s }));
    }
    const answered = whole.flatMap(({ seen }) => (seen ? [seen as Seen[]] : []));
    if (answered.length < whole.length) return null;
    const margins = answered.map((seen) => marginsOf(plan, seen));
    const size = answered[0]?.[0]?.margins.length ?? 0;
    const per = size / plan.checks.length;
    const allowed = new Float64Array(size);
    plan.checks.forEach((_, check) => {
      const spread = spreadOf(margins.map((m) => m[check]!));
      for (let n = check * per; n < (check + 1) * per; n++)
        allowed[n] = Math.max(WIDE * spread, NOTHING * wantedOf(answered, n));
    });
    return new BatchSurfaces(
      batch,
      spreads,
      learnt.map((l) => Regimes.of(l)),
      allowed,
    );
  }

  /** Every circumstance of a build as far as it can be read; until the next is read. */
  readAt(build: number): ReadBuild {
    quadraticTerms(placeOf(this.spreads, drawBuild(this.spreads, this.batch.seed, build)), this.terms);
    return this.regimes.map((r) => r?.read(this.terms) ?? undefined);
  }

  /** The circumstances a build has to be solved in: what cannot be read, and what could decide and is not read well enough. */
  unsure(read: ReadBuild): Set<number> {
    const places = new Set<number>();
    for (let place = 0; place < read.length; place++) if (!read[place]) places.add(place);
    for (let check = 0; check < this.batch.plan.checks.length; check++) {
      this.findDeciding(read, check);
      for (let k = 0; k < this.found.length; k += 2) {
        const { margins, marginOff } = read[this.found[k]!]!;
        const figure = this.found[k + 1]!;
        const off = marginOff[figure]!;
        if (Math.abs(margins[figure]!) <= off || off > this.allowed[figure]!) places.add(this.found[k]!);
      }
    }
    return places;
  }

  /** The circumstances that may decide a check. */
  mayDecide(read: ReadBuild, check: number): number[] {
    this.findDeciding(read, check);
    return this.found.filter((_, k) => k % 2 === 0);
  }

  /** The most that a figure of a check was read and may be off, in its unit. */
  within(check: number): number {
    const per = this.allowed.length / this.batch.plan.checks.length;
    let most = 0;
    for (const regimes of this.regimes)
      for (const { figure, off } of regimes?.offs() ?? [])
        if (Math.floor(figure / per) === check && off <= this.allowed[figure]!) most = Math.max(most, off);
    return most;
  }

  /** The figures of a check that may have the least left: no other has less for certain. */
  private findDeciding(read: ReadBuild, check: number): void {
    const per = this.allowed.length / this.batch.plan.checks.length;
    const from = check * per;
    let least = Infinity;
    for (const r of read) {
      if (!r) continue;
      for (let n = from; n < from + per; n++) {
        const most = r.ranks[n]! + r.rankOff[n]!;
        if (most < least) least = most;
      }
    }
    this.found.length = 0;
    for (let place = 0; place < read.length; place++) {
      const r = read[place];
      if (!r) continue;
      for (let n = from; n < from + per; n++) if (r.ranks[n]! - r.rankOff[n]! <= least) this.found.push(place, n);
    }
  }
}

/** What 95 % of the margins lie within. */
function spreadOf(margins: readonly number[]): number {
  const sorted = margins.filter(Number.isFinite).sort((a, b) => a - b);
  return sorted.length === 0 ? 0 : quantileSorted(sorted, 0.975) - quantileSorted(sorted, 0.025);
}

/** The most margin that is wanted of a figure in any circumstance, in its unit. */
function wantedOf(answered: readonly (readonly Seen[])[], figure: number): number {
  let most = 0;
  for (const seen of answered)
    for (const { margins, ranks } of seen) {
      const wanted = margins[figure]! / ranks[figure]!;
      if (Number.isFinite(wanted) && wanted > most) most = wanted;
    }
  return most;
}
