import type { FactorId } from '@/core/bench/factors';
import { findingFault } from '@/core/bench/find-fault';
import { fittingDesign } from '@/core/bench/fit-design';
import { finderPath } from '@/core/bench/practice';
import type { Puzzle } from '@/core/bench/practice-puzzles';
import { reportingBoard } from '@/core/board/board-report';
import {
  laidOut,
  type Ask as Demand,
  type Design,
  type Edit,
  type Mains,
  type OutputId,
  type Patch,
} from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import type { Part } from '@/core/drawer/part';
import type { Plan } from '@/core/judge/builds/plan';
import { solveAsk, type Ask } from '@/core/judge/builds/solve';
import { solvingCorners } from '@/core/judge/corners';
import { fixesByStep } from '@/core/judge/fixes';
import { moreEdits, moreTrier } from '@/core/judge/more-of';
import { judge } from '@/core/judge/judge';
import { pictureOf } from '@/core/judge/picture';
import { changesOf, changeTrier } from '@/core/judge/single-change';
import { summaryOf } from '@/core/picture/summary';
import type { Try } from '@/core/size/candidate';
import { tryPart } from '@/core/size/picking';
import { proposing } from '@/core/size/propose';
import { rehearsing } from '@/core/size/rehearsing';
import type { SizingAsk } from '@/core/size/sized-set';
import { lookAt } from '@/core/size/sizing';
import { planned, planSizing } from '@/core/size/sizing-plan';
import type { ScopeBand, ScopeRun } from '@/core/study/scope-shapes';
import { studyDesign } from '@/core/study/study';
import { tracing } from '@/core/study/traces';
import { solvingVariations, type Variation } from '@/core/study/variation';
import { strips, tracks } from './kept-boards';

/** Of work whose items come in pieces: it is kept open for the next. */
const IN_PIECES = { keepsOpen: true } as const;

/** Goes through items one by one, each by itself. */
const each = <Item, Part>(one: (item: Item) => Part) => ({
  ...IN_PIECES,
  *steps(items: readonly Item[]): Generator<Part, void> {
    for (const item of items) yield one(item);
  },
});

/**
 * All work of many steps, by its name. What it is about opens it, once on each thread that takes part; it then goes through
 * items, step by step. Items hang on nothing that was found of others, and any thread takes any of them; where every step hangs on
 * the last there are none, and one thread goes through it all. `survey` says what there is to go through, `line` of which
 * works a newer takes the place of an older one, `ends` what it ends besides.
 */
export const LONG_WORK = {
  /** Variations of one design, each beginning at those of the piece that lie nearest. */
  variations: (design: Design) => ({
    ...IN_PIECES,
    steps: (items: readonly Variation[]) => solvingVariations(design, items),
  }),
  /** What is asked of builds, whoever draws them. */
  builds({ design, plan, seed }: { design: Design; plan: Plan; seed: number }) {
    // As it came it lies in memory in another way than what a search of the same thread makes of it.
    const own = laidOut(design);
    return each((ask: Ask) => solveAsk(own, plan, seed, ask));
  },
  /** A design with each of some parts taken. */
  parts: ({ design, role }: { design: Design; role: PartRole }) => each((one: Try) => tryPart(design, role, one)),
  /** Every single change any rule offers. */
  changes: (design: Design) => ({ ...each(changeTrier(design)), survey: (): Edit[] => changesOf(design) }),
  /** Every single change that could let an output give more. */
  more: ({ design, output }: { design: Design; output: OutputId }) => ({
    ...each(moreTrier(design, output)),
    survey: (): Edit[] => moreEdits(design, output),
  }),
  /** Circuits of a search for whole sets, by their numbers. */
  circuits({ design, parts, ask }: { design: Design; parts: readonly Part[]; ask: SizingAsk }) {
    const plan = planSizing(design, parts, ask);
    return {
      ...IN_PIECES,
      ends: 'rehearsal' as const,
      *steps(ns: readonly number[], failedKin: readonly string[]) {
        const failed = new Set(failedKin);
        for (const n of ns) {
          const found = lookAt(plan, n, failed);
          if (found.failsAsKin) failed.add(found.kin);
          yield found;
        }
      },
      survey: () => planned(plan),
    };
  },
  /** Warms a thread up for such a search. */
  rehearsal: (design: Design) => ({ line: 'rehearsal' as const, steps: () => rehearsing(design) }),
  /** What cures every verdict that does not hold. */
  fixes: (design: Design) => ({
    line: 'fixes' as const,
    *steps() {
      const study = studyDesign(design);
      yield* fixesByStep(study, judge(study));
    },
  }),
  /** What may be wrong with the built supply; a sentence where too little was read. */
  faults: (design: Design) => ({ line: 'search' as const, steps: () => findingFault(design) }),
  /** How the fault finder itself goes through a puzzle. */
  finder: (puzzle: Puzzle) => ({ line: 'search' as const, steps: () => finderPath(puzzle) }),
  /** The board it is built on, found again from its copper, and what that has to bear. */
  board: (design: Design) => ({
    line: 'search' as const,
    steps: () => reportingBoard(design, { strips, etching: tracks }),
  }),
  /** Every verdict in every circumstance. */
  corners: (design: Design) => ({ steps: () => solvingCorners(design) }),
  /** What a probe would show in one run. */
  scope: ({ design, run, band }: { design: Design; run: ScopeRun; band: ScopeBand }) => ({
    steps: () => tracing(design, run, band),
  }),
  /** The design fitted to all that was read of it; a sentence where there is too little. */
  fit: ({ design, moving }: { design: Design; moving: readonly FactorId[] }) => ({
    steps: () => fittingDesign(design, moving),
  }),
  /** A supply for a load. */
  proposal: ({ name, demand, mains, feed }: { name: string; demand: Demand; mains: Mains; feed: Patch | null }) => ({
    line: 'search' as const,
    *steps() {
      const proposal = yield* proposing(name, demand, mains, feed);
      return { ...proposal, summary: summaryOf(pictureOf(proposal.design).picture) };
    },
  }),
};

type LongWork = typeof LONG_WORK;
export type Kind = keyof LongWork;
type Opened<K extends Kind> = ReturnType<LongWork[K]>;
type Steps<K extends Kind> = Opened<K>['steps'];

/** What opens it. */
export type AboutOf<K extends Kind> = Parameters<LongWork[K]>[0];
export type ItemOf<K extends Kind> =
  Parameters<Steps<K>> extends [readonly (infer Item)[], ...unknown[]] ? Item : never;
/** What of all that was found until then each piece is told. */
export type ToldOf<K extends Kind> = Parameters<Steps<K>> extends [unknown, infer Told] ? Told : undefined;
/** What each step comes to. */
export type PartOf<K extends Kind> =
  ReturnType<Steps<K>> extends Generator<infer Part, unknown, unknown> ? Part : never;
/** What it comes to at its end. */
export type EndOf<K extends Kind> = ReturnType<Steps<K>> extends Generator<unknown, infer End, unknown> ? End : never;
export type SurveyOf<K extends Kind> = Opened<K> extends { survey(): infer Survey } ? Survey : never;
