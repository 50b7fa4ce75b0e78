import type { Study } from '@/core/study/operating-point';
import { RULES } from './rules';
import type { State, Verdict } from './verdict';

/**
 * Judges a study by every rule that has a meaning for it, the verdict with least left first.
 * @param only rule names to look at, when the others can wait: only what they need is solved
 */
export function judge(study: Study, only?: readonly string[]): Verdict[] {
  const verdicts: Verdict[] = [];
  for (const rule of RULES) {
    if (only && !only.includes(rule.id)) continue;
    const finding = rule.find(study);
    if (!finding) continue;
    const { figure, limit, relation, wantedMargin } = finding;
    const margin = relation === 'at most' ? limit - figure.value : figure.value - limit;
    const left = margin / Math.max(wantedMargin, 1e-12);
    verdicts.push({
      ...finding,
      id: rule.id,
      title: rule.title,
      station: rule.station,
      margin,
      left,
      state: stateOf(left, rule.advisory ?? false),
    });
  }
  const rank: Record<State, number> = { fails: 0, tight: 1, holds: 2 };
  // Beyond a point a miss is a miss: then the order of the rules, causes before effects, decides.
  const share = (v: Verdict) => Math.max(v.left, HOPELESS);
  return verdicts.sort((a, b) => rank[a.state] - rank[b.state] || share(a) - share(b));
}

/** Margins this far beyond the limit, in wanted margins, are not told apart. */
const HOPELESS = -8;

function stateOf(left: number, advisory: boolean): State {
  if (left < 0) return advisory ? 'tight' : 'fails';
  return left < 1 - 1e-9 ? 'tight' : 'holds';
}

/** How far a design is from passing: each failing verdict counts, and more the further it misses. 0 when all pass. */
export function distress(verdicts: readonly Verdict[]): number {
  return verdicts.reduce((sum, v) => sum + (v.state === 'fails' ? 1 + Math.log1p(-v.left) : 0), 0);
}

export function countFails(verdicts: readonly Verdict[]): number {
  return verdicts.filter((v) => v.state === 'fails').length;
}
