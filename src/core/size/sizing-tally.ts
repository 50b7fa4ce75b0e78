import type { SizedSet, SizingProgress } from './sized-set';

/** Most studies (transformer, rectifier, reservoir and regulator at every corner) one search may make. */
export const MOST_STUDIES = 2000;

/** Sinks shown behind one circuit: the smallest that hold. */
export const SINKS_EACH = 4;

/** What came of looking at one circuit. */
export interface CircuitFound {
  /** Its place in the plan. */
  n: number;
  kin: string;
  /** False where one of its kin had failed already, for another reason than its rectifier. */
  lookedAt: boolean;
  /** Whether it failed so itself. */
  failsAsKin: boolean;
  /** Whether it has no cycle that repeats itself. */
  unsolved: boolean;
  /** Whole sets looked at. */
  simulated: number;
  found: SizedSet[];
  /** Whether sinks larger than those shown were not looked at. */
  largerSinks: boolean;
}

/**
 * Adds up what a search finds, in the order of its plan whoever found what first: a search over several threads comes to
 * the same sets, and says the same about what it left out, as one by itself.
 */
export class SizingTally {
  private readonly waiting = new Map<number, CircuitFound>();
  private readonly failed = new Set<string>();
  private next = 0;
  private simulated = 0;
  private studies = 0;
  private skipped = 0;
  private unsolved = 0;
  private largerSinks = false;
  private full = false;

  /** @param circuits how many the plan has; @param leftOut what is not among them, and why */
  constructor(
    private readonly circuits: number,
    private readonly leftOut: readonly string[],
  ) {}

  /** Whether nothing that is still found counts. */
  get over(): boolean {
    return this.full || this.next === this.circuits;
  }

  /** Kin that need not be looked at any more. */
  get failedKin(): ReadonlySet<string> {
    return this.failed;
  }

  /** Takes what was found, in any order, and answers what of it is next in the plan's. */
  take(results: readonly CircuitFound[]): SizingProgress {
    for (const result of results) this.waiting.set(result.n, result);
    const found: SizedSet[] = [];
    for (let one = this.waiting.get(this.next); one && !this.full; one = this.waiting.get(this.next)) {
      if (this.failed.has(one.kin)) this.skipped++;
      else if (this.studies === MOST_STUDIES) {
        this.full = true;
        break;
      } else {
        this.studies++;
        this.simulated += one.simulated;
        if (one.unsolved) this.unsolved++;
        if (one.failsAsKin) this.failed.add(one.kin);
        if (one.largerSinks) this.largerSinks = true;
        found.push(...one.found);
      }
      this.waiting.delete(this.next++);
    }
    return { simulated: this.simulated, studies: this.studies, found, leftOut: this.saidSoFar() };
  }

  private saidSoFar(): string[] {
    const said = [...this.leftOut];
    const rest = `${this.circuits - this.next} of ${this.circuits} circuits`;
    if (this.full) said.push(`${rest}, the least promising: a search ends after ${MOST_STUDIES}.`);
    else if (!this.over) said.push(`${rest}, the least promising: it did not come to them.`);
    if (this.largerSinks)
      said.push(`Sinks larger than the ${SINKS_EACH} smallest that hold behind the same circuit: cooler, and dearer.`);
    if (this.unsolved > 0) said.push(`${this.unsolved} circuits that could not be solved.`);
    if (this.skipped > 0)
      said.push(
        `${this.skipped} circuits that differ from one that failed in the rectifier alone: it failed for another reason.`,
      );
    return said;
  }
}
