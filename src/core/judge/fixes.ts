import { applyPatch, type Design, type Edit } from '@/core/design/design';
import { SolveError } from '@/core/solve/integrator';
import { typicalCost } from '@/core/study/cost';
import { studyDesign, warmStartFrom, type Study } from '@/core/study/operating-point';
import { countFails, judge } from './judge';
import { RULES } from './rules';
import type { Effect, Fix, State, Verdict } from './verdict';

const SHOWN = 3;

const BADNESS: Record<State, number> = { holds: 0, tight: 1, fails: 2 };

/**
 * Simulates the cures of every verdict that does not hold, and keeps the best three of each. A generator, so that a
 * worker can hand over what is done and stop when the design has moved on: yields once per verdict.
 */
export function* simulateFixes(study: Study, verdicts: readonly Verdict[]): Generator<{ verdict: string; fixes: Fix[] }> {
  const { design } = study;
  const warm = warmStartFrom(study);
  const cost = typicalCost(design);
  const seen = new Map<string, { verdicts: Verdict[]; design: Design } | null>();

  const trial = (edit: Edit) => {
    const key = JSON.stringify(edit.patch);
    let result = seen.get(key);
    if (result === undefined) {
      const edited = applyPatch(design, edit.patch);
      try {
        result = { verdicts: judge(studyDesign(edited, warm)), design: edited };
      } catch (error) {
        if (!(error instanceof SolveError)) throw error;
        result = null;
      }
      seen.set(key, result);
    }
    return result;
  };

  for (const verdict of verdicts) {
    if (verdict.state === 'holds') continue;
    const rule = RULES.find((r) => r.id === verdict.id)!;
    const fixes: Fix[] = [];
    for (const edit of rule.cures(design)) {
      const result = trial(edit);
      if (!result) continue;
      const after = result.verdicts.find((v) => v.id === verdict.id);
      if (after && !(after.left > verdict.left + 0.02)) continue;
      const self: Effect = {
        verdict: verdict.id, title: verdict.title, unit: verdict.figure.unit, before: verdict.figure.value,
        after: after?.figure.value ?? verdict.figure.value, stateBefore: verdict.state, stateAfter: after?.state ?? 'holds',
      };
      fixes.push({
        edit, self, others: sideEffects(verdicts, result.verdicts, verdict.id),
        failsAfter: countFails(result.verdicts), costChangeEur: typicalCost(result.design) - cost,
      });
    }
    yield { verdict: verdict.id, fixes: best(fixes) };
  }
}

/** Verdicts other than `except` that an edit moves into another state, worsened ones first. */
function sideEffects(before: readonly Verdict[], after: readonly Verdict[], except: string): Effect[] {
  const effects: Effect[] = [];
  for (const a of after) {
    const b = before.find((v) => v.id === a.id);
    if (!b || a.id === except || a.state === b.state) continue;
    effects.push({ verdict: a.id, title: a.title, before: b.figure.value, after: a.figure.value, unit: a.figure.unit, stateBefore: b.state, stateAfter: a.state });
  }
  return effects.sort((x, y) => worsening(y) - worsening(x));
}

function worsening(effect: Effect): number {
  return BADNESS[effect.stateAfter] - BADNESS[effect.stateBefore];
}

/** Fewest failures first, then how well the verdict itself ends, then nothing else worsened, then the price. */
function best(fixes: Fix[]): Fix[] {
  const score = (f: Fix) => f.failsAfter * 100 + BADNESS[f.self.stateAfter] * 10 + f.others.filter((o) => worsening(o) > 0).length * 8 + f.costChangeEur;
  return [...fixes].sort((a, b) => score(a) - score(b)).slice(0, SHOWN);
}
