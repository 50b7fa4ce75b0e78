import { applyPatch, type Design, type Edit, type Patch } from '@/core/design/design';
import { SolveError } from '@/core/solve/integrator';
import { typicalCost } from '@/core/study/cost';
import { studyDesign, warmStartFrom, type Study } from '@/core/study/operating-point';
import { countFails, distress, judge } from './judge';
import { RULES } from './rules';
import type { Effect, Fix, State, Verdict } from './verdict';

const SHOWN = 3;
/** How many of the best single edits are tried together with a second one where none alone is enough. */
const PAIRED = 3;

const BADNESS: Record<State, number> = { holds: 0, tight: 1, fails: 2 };

interface Trial {
  edit: Edit;
  design: Design;
  verdicts: Verdict[];
  distress: number;
}

/**
 * Simulates the cures of every verdict that does not hold, and keeps the best three of each. Where no single edit is
 * enough, pairs are tried. A generator, so that a worker can hand over what is done and stop when the design has moved
 * on: yields once per verdict.
 */
export function* simulateFixes(study: Study, verdicts: readonly Verdict[]): Generator<{ verdict: string; fixes: Fix[] }> {
  const { design } = study;
  const warm = warmStartFrom(study);
  const cost = typicalCost(design);
  const failsNow = countFails(verdicts);
  const seen = new Map<string, Trial | null>();

  const run = (edit: Edit): Trial | null => {
    const key = JSON.stringify(edit.patch);
    let trial = seen.get(key);
    if (trial === undefined) {
      const edited = applyPatch(design, edit.patch);
      try {
        const after = judge(studyDesign(edited, warm));
        trial = { edit, design: edited, verdicts: after, distress: distress(after) };
      } catch (error) {
        if (!(error instanceof SolveError)) throw error;
        trial = null;
      }
      seen.set(key, trial);
    }
    return trial;
  };

  for (const verdict of verdicts) {
    if (verdict.state === 'holds') continue;
    const cures = (of: Design) => RULES.find((r) => r.id === verdict.id)!.cures(of);
    const stateIn = (t: Trial) => t.verdicts.find((v) => v.id === verdict.id)?.state ?? 'holds';
    const helps = (t: Trial | null): t is Trial => {
      if (!t || countFails(t.verdicts) > failsNow) return false;
      const after = t.verdicts.find((v) => v.id === verdict.id);
      return !after || after.left > verdict.left + 0.02;
    };
    let trials = cures(design).map(run).filter(helps);
    if (verdict.state === 'fails' && trials.every((t) => stateIn(t) === 'fails')) {
      const firsts = [...trials].sort((a, b) => a.distress - b.distress).slice(0, PAIRED);
      const pairs = firsts.flatMap((first) => cures(first.design)
        .filter((second) => !sameGroup(first.edit.patch, second.patch))
        .map((second) => run(joined(first.edit, second))));
      trials = [...trials, ...pairs.filter(helps)];
    }
    const fixes = trials.map((t): Fix => {
      const after = t.verdicts.find((v) => v.id === verdict.id);
      return {
        edit: t.edit,
        self: {
          verdict: verdict.id, title: verdict.title, unit: verdict.figure.unit, before: verdict.figure.value,
          after: after?.figure.value ?? verdict.figure.value, stateBefore: verdict.state, stateAfter: after?.state ?? 'holds',
        },
        others: sideEffects(verdicts, t.verdicts, verdict.id),
        failsAfter: countFails(t.verdicts),
        costChangeEur: typicalCost(t.design) - cost,
      };
    });
    const score = (f: Fix, t: Trial) => 30 * t.distress + 10 * BADNESS[f.self.stateAfter] + 8 * f.others.filter((o) => worsening(o) > 0).length + f.costChangeEur;
    const ranked = fixes.map((fix, n) => ({ fix, score: score(fix, trials[n]!) })).sort((a, b) => a.score - b.score);
    yield { verdict: verdict.id, fixes: ranked.slice(0, SHOWN).map((r) => r.fix) };
  }
}

function sameGroup(a: Patch, b: Patch): boolean {
  return Object.keys(a).some((key) => key in b);
}

function joined(a: Edit, b: Edit): Edit {
  return { label: `${a.label} and ${b.label[0]!.toLowerCase()}${b.label.slice(1)}`, patch: { ...a.patch, ...b.patch } };
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
