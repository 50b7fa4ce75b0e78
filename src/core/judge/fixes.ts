import { applyPatch, mergePatches, type Design, type Edit, type Patch } from '@/core/design/design';
import { SolveError } from '@/core/solve/solve-error';
import { typicalCost } from '@/core/study/cost';
import { studyDesign, studyWithHeat, type Study } from '@/core/study/study';
import { countFails, distress, judge } from './judge';
import { exceeds, leastDistress } from './early';
import { curesOf } from './cures-of';
import type { RuleId } from './rules';
import type { Effect, Fix, State, Verdict } from './verdict';

const SHOWN = 3;
/** Most edits a cure of everything may take. */
const LONGEST_CURE = 8;

const BADNESS: Record<State, number> = { holds: 0, caution: 0.5, tight: 1, fails: 2 };

interface Trial {
  edit: Edit;
  design: Design;
  verdicts: Verdict[];
  distress: number;
}

/**
 * Simulates the cures of every verdict that does not hold, and keeps the best three of each. Where no single edit
 * leaves the design without a failure, the worst verdict is also offered a cure of everything, found step by step.
 * A generator, so that a worker can hand over what is done and stop when the design has moved on: yields once per verdict.
 */
export function* simulateFixes(study: Study, verdicts: readonly Verdict[]): Generator<FixBatch> {
  for (const step of fixesByStep(study, verdicts)) if (step) yield step;
}

/** What was found for one verdict. */
export interface FixBatch {
  verdict: RuleId;
  fixes: Fix[];
}

/** The same, which yields null after every simulated edit: one who looks up in between is never kept for longer than that. */
export function* fixesByStep(study: Study, verdicts: readonly Verdict[]): Generator<FixBatch | null> {
  const { design } = study;
  const cost = typicalCost(design);
  const failsNow = countFails(verdicts);
  const seen = new Map<string, Trial | null>();
  /** The study other sinks were last tried on, by what else was edited. */
  let cooled = { key: '{}', study };

  /** Opens the study of an edited design: on another sink the circuit itself need not be solved again. */
  function studyOf(edited: Design, { heat, ...rest }: Patch): Study {
    if (!heat) return studyDesign(edited);
    const key = JSON.stringify(rest);
    if (key !== cooled.key) cooled = { key, study: studyDesign(applyPatch(design, rest)) };
    return studyWithHeat(cooled.study, edited.heat);
  }

  /** What an edit comes to where it was simulated before; a study of it where not. Null where it has no answer. */
  function opened(edit: Edit): { key: string; trial: Trial | null } | { key: string; found: Study } {
    const key = JSON.stringify(edit.patch);
    const trial = seen.get(key);
    return trial !== undefined ? { key, trial } : { key, found: studyOf(applyPatch(design, edit.patch), edit.patch) };
  }

  /** @param most beyond this distress a trial is of no use: it is left as soon as that is seen */
  function* run(edit: Edit, most = Infinity, known = opened(edit)): Generator<null, Trial | null> {
    if ('trial' in known) return known.trial;
    const { key, found } = known;
    let trial: Trial | null = null;
    try {
      if (exceeds(found, most)) {
        yield null;
        return null;
      }
      const after = judge(found);
      trial = { edit, design: found.design, verdicts: after, distress: distress(after) };
    } catch (error) {
      if (!(error instanceof SolveError)) throw error;
    }
    seen.set(key, trial);
    yield null;
    return trial;
  }

  /**
   * The trials of a list of edits that leave less distress than `below`, as far as one of them could be the least of all:
   * those first that look best at the lowest input, so that the others are soon seen through.
   */
  function* leastOf(edits: readonly Edit[], below: number): Generator<null, (Trial | null)[]> {
    const asked: { n: number; edit: Edit; known: ReturnType<typeof opened>; atLeast: number }[] = [];
    for (const [n, edit] of edits.entries()) {
      const known = opened(edit);
      asked.push({ n, edit, known, atLeast: boundOf(known) });
      yield null;
    }
    asked.sort((a, b) => a.atLeast - b.atLeast);
    const trials: (Trial | null)[] = edits.map(() => null);
    let least = below;
    for (const { n, edit, known } of asked) {
      const trial = yield* run(edit, least, known);
      if (trial) least = Math.min(least, trial.distress);
      trials[n] = trial;
    }
    return trials;
  }

  /**
   * Takes the most relieving cure of whatever is worst, again and again, then drops every edit that turns out not to
   * be needed. Null when that does not end without a failure.
   */
  function* cureEverything(): Generator<null, Trial | null> {
    let edits: Edit[] = [];
    let best: Trial = { edit: together(edits), design, verdicts: [...verdicts], distress: distress(verdicts) };
    for (let n = 0; n < LONGEST_CURE && best.distress > 0; n++) {
      const { distress: before, design: at } = best;
      let next: { list: Edit[]; trial: Trial } | undefined;
      // Where nothing relieves the worst alone, what relieves another may open a way.
      for (const failing of best.verdicts.filter((v) => v.state === 'fails')) {
        const lists = curesOf(at, failing.id, failing.output).map((cure) => added(edits, cure));
        const trials = yield* leastOf(lists.map(together), before);
        next = lists
          .map((list, n) => ({ list, trial: trials[n]! }))
          .filter((t): t is { list: Edit[]; trial: Trial } => t.trial !== null && t.trial.distress < before)
          .sort(
            (a, b) => a.trial.distress - b.trial.distress || typicalCost(a.trial.design) - typicalCost(b.trial.design),
          )[0];
        if (next) break;
      }
      if (!next) return null;
      edits = next.list;
      best = next.trial;
    }
    for (const edit of edits) {
      const without = yield* run(together(edits.filter((e) => e !== edit)), 0);
      if (without && without.distress === 0) {
        edits = edits.filter((e) => e !== edit);
        best = without;
      }
    }
    return best.distress === 0 ? best : null;
  }

  for (const verdict of verdicts) {
    if (verdict.state === 'holds') continue;
    const helps = (t: Trial | null): t is Trial => {
      if (!t || countFails(t.verdicts) > failsNow) return false;
      const after = t.verdicts.find((v) => v.id === verdict.id);
      return !after || after.left > verdict.left + 0.02;
    };
    let trials: Trial[] = [];
    for (const cure of curesOf(design, verdict.id, verdict.output)) {
      const trial = yield* run(cure);
      if (helps(trial)) trials.push(trial);
    }
    if (verdict === verdicts[0] && verdict.state === 'fails' && trials.every((t) => t.distress > 0)) {
      const whole = yield* cureEverything();
      if (whole) trials = [whole, ...trials];
    }
    const fixes = trials.map((t): Fix => {
      const after = t.verdicts.find((v) => v.id === verdict.id);
      return {
        edit: t.edit,
        self: {
          verdict: verdict.id,
          title: verdict.title,
          unit: verdict.figure.unit,
          before: verdict.figure.value,
          after: after?.figure.value ?? verdict.figure.value,
          stateBefore: verdict.state,
          stateAfter: after?.state ?? 'holds',
        },
        others: sideEffects(verdicts, t.verdicts, verdict.id),
        failsAfter: countFails(t.verdicts),
        costChangeEur: typicalCost(t.design) - cost,
      };
    });
    const score = (f: Fix, t: Trial) =>
      30 * t.distress +
      10 * BADNESS[f.self.stateAfter] +
      8 * f.others.filter((o) => worsening(o) > 0).length +
      f.costChangeEur;
    const ranked = fixes.map((fix, n) => ({ fix, score: score(fix, trials[n]!) })).sort((a, b) => a.score - b.score);
    yield { verdict: verdict.id, fixes: varied(ranked.map((r) => r.fix)) };
  }
}

/** What an edit leaves of distress at least. */
function boundOf(known: { trial: Trial | null } | { found: Study }): number {
  if ('trial' in known) return known.trial?.distress ?? Infinity;
  try {
    return leastDistress(known.found);
  } catch (error) {
    if (!(error instanceof SolveError)) throw error;
    return Infinity;
  }
}

/** The best few, of different kinds first: three reservoirs in a row are one idea. */
function varied(ranked: Fix[]): Fix[] {
  const kind = (f: Fix) =>
    Object.entries(f.edit.patch)
      .map(
        ([key, value]) =>
          `${key}:${typeof value === 'object' && value !== null ? Object.keys(value).sort().join() : ''}`,
      )
      .sort()
      .join('+');
  const firsts = ranked.filter((f, n) => ranked.findIndex((g) => kind(g) === kind(f)) === n);
  return [...firsts, ...ranked.filter((f) => !firsts.includes(f))].slice(0, SHOWN);
}

/** One more edit; an earlier one that it overrules altogether is forgotten. */
function added(edits: readonly Edit[], edit: Edit): Edit[] {
  return [...edits.filter((e) => !covers(edit, e)), edit];
}

/** Whether every value `earlier` sets is set again by `later`. */
function covers(later: Edit, earlier: Edit): boolean {
  return Object.entries(earlier.patch).every(([key, value]) => {
    const again = (later.patch as Record<string, unknown>)[key];
    if (typeof value !== 'object' || value === null) return again !== undefined;
    return (
      typeof again === 'object' &&
      again !== null &&
      (key === 'regulator' || Object.keys(value).every((k) => k in again))
    );
  });
}

function together(edits: readonly Edit[]): Edit {
  return {
    label: edits.map((e) => e.label).join(' · '),
    patch: edits.reduce((patch, e) => mergePatches(patch, e.patch), {}),
  };
}

/** Verdicts other than `except` that an edit moves into another state, worsened ones first. */
function sideEffects(before: readonly Verdict[], after: readonly Verdict[], except: RuleId): Effect[] {
  const effects: Effect[] = [];
  for (const a of after) {
    const b = before.find((v) => v.id === a.id);
    if (!b || a.id === except || a.state === b.state) continue;
    effects.push({
      verdict: a.id,
      title: a.title,
      before: b.figure.value,
      after: a.figure.value,
      unit: a.figure.unit,
      stateBefore: b.state,
      stateAfter: a.state,
    });
  }
  return effects.sort((x, y) => worsening(y) - worsening(x));
}

function worsening(effect: Effect): number {
  return BADNESS[effect.stateAfter] - BADNESS[effect.stateBefore];
}
