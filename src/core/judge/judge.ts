import { isSplit, outputName } from '@/core/design/words';
import { studyOnOutput, studyOnRail, type Study } from '@/core/study/study';
import { RULES } from './rules';
import type { Finding, State, Verdict } from './verdict';

/**
 * Judges a study by every rule that has a meaning for it, the verdict with least left first.
 * @param only rule names to look at, when the others can wait: only what they need is solved
 */
export function judge(study: Study, only?: readonly string[]): Verdict[] {
  const verdicts: Verdict[] = [];
  // Rails that are alike in everything are judged once.
  const unequal = isSplit(study.design) && study.design.demand.negativeA !== null;
  const views: View[] = [
    { study, name: null },
    ...(unequal ? [{ study: studyOnRail(study, 1), name: 'Negative rail' }] : []),
  ];
  const further: View[] = study.design.outputs.map((o, n) => ({
    study: studyOnOutput(study, n),
    name: outputName(o, n),
  }));
  for (const rule of RULES) {
    if (only && !only.includes(rule.id)) continue;
    const found = (OF_ONE_REGULATOR.has(rule.id) ? [...views, ...further] : views).flatMap((view) => {
      const finding = rule.find(view.study);
      return finding ? [{ finding: named(finding, view.name), ...marginOf(finding) }] : [];
    });
    // Of rails and outputs the one with least left speaks; where they say the same, the first.
    const worst = found.slice(1).reduce((a, b) => (b.left < a!.left - 1e-6 ? b : a), found[0]);
    if (!worst) continue;
    verdicts.push({
      ...worst.finding,
      id: rule.id,
      title: worst.finding.title ?? rule.title,
      station: worst.finding.station ?? rule.station,
      margin: worst.margin,
      left: worst.left,
      state: stateOf(worst.left, rule.advisory ?? false),
    });
  }
  const rank: Record<State, number> = { fails: 0, tight: 1, holds: 2 };
  // Beyond a point a miss is a miss: then the order of the rules, causes before effects, decides.
  const share = (v: Verdict) => Math.max(v.left, HOPELESS);
  return verdicts.sort((a, b) => rank[a.state] - rank[b.state] || share(a) - share(b));
}

function marginOf({ figure, limit, relation, wantedMargin }: Finding): { margin: number; left: number } {
  const margin = relation === 'at most' ? limit - figure.value : figure.value - limit;
  return { margin, left: margin / Math.max(wantedMargin, 1e-12) };
}

/** A study seen from one rail or output, and what that is called where it is not the main one. */
interface View {
  study: Study;
  name: string | null;
}

/** Rules that look at one regulator and what hangs on it: each further output is judged by them too. */
const OF_ONE_REGULATOR: ReadonlySet<string> = new Set([
  'headroom',
  'output-ripple',
  'regulator-input',
  'regulator-current',
  'junction',
  'safe-area',
  'short-circuit',
  'sink-touch',
  'minimum-load',
]);

function named(finding: Finding, name: string | null): Finding {
  if (name === null) return finding;
  const [first = '', ...rest] = finding.sentence;
  // A number or an abbreviation stays as it is.
  const words = /^[A-Z][a-z]/.test(finding.sentence) ? first.toLowerCase() + rest.join('') : finding.sentence;
  return { ...finding, sentence: `${name}: ${words}` };
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
