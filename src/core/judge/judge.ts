import { wordsOf, type Condition } from '@/core/circuit/condition';
import { outputsOf } from '@/core/design/outputs';
import type { Study } from '@/core/study/study';
import { sidesOf } from './looks';
import type { Finding, Look, Rule } from './rule';
import { RULE_IDS, ruleOf, type RuleId } from './rules';
import { RANK, type State, type Verdict } from './verdict';

/** One finding of a rule: where it was found, and how much is left of its wanted margin. */
export interface Found {
  finding: Finding;
  look: Look;
  /** Null for what happens once. */
  condition: Condition | null;
  left: number;
  state: State;
}

/** Everything one rule finds in a study: in each of its circumstances, on each rail or output. */
export function findingsOf(study: Study, rule: Rule, conditions?: readonly Condition[]): Found[] {
  const { occasion, scope } = rule;
  const all: Found[] = [];
  for (const side of sidesOf(study)) {
    const { id } = side.output;
    if (id !== 'main' && !(scope === 'rail' && id === 'minus') && scope !== 'output') continue;
    if (occasion === 'once') {
      const found = foundIn(side.once, rule, null);
      if (found) all.push(found);
      continue;
    }
    for (const condition of conditions ?? study.conditions) {
      const found = occasion(condition) && foundIn(side.in(condition), rule, condition);
      if (found) all.push(found);
    }
  }
  return all;
}

function foundIn(look: Look, rule: Rule, condition: Condition | null): Found | null {
  const finding = rule.find(look);
  if (!finding) return null;
  const left = marginOf(finding) / Math.max(finding.wanted, 1e-12);
  return { finding, look, condition, left, state: stateOf(left, finding.caution ?? false) };
}

/** Distance to the limit in the figure's unit, negative beyond it. */
export function marginOf({ value, limit, relation }: Pick<Finding, 'value' | 'limit' | 'relation'>): number {
  return relation === 'at most' ? limit - value : value - limit;
}

function stateOf(left: number, caution: boolean): State {
  if (left < 0) return caution ? 'caution' : 'fails';
  return left < 1 - 1e-9 && !caution ? 'tight' : 'holds';
}

const ORDER: Record<State, number> = { fails: 0, tight: 1, caution: 2, holds: 3 };

/** What decides among everything a rule found: what fails before what is tight, a caution before what holds. */
export function deciding(found: readonly Found[]): Found | null {
  let worst: Found | null = null;
  for (const f of found) {
    // Where circumstances say the same, the first of them speaks.
    if (!worst || ORDER[f.state] < ORDER[worst.state] || (f.state === worst.state && f.left < worst.left - 1e-6))
      worst = f;
  }
  return worst;
}

/**
 * Judges a study by every rule that has a meaning for it, the verdict with least left first.
 * @param only rule names to look at, when the others can wait: only what they need is solved
 */
export function judge(study: Study, only: readonly RuleId[] = RULE_IDS): Verdict[] {
  const verdicts: Verdict[] = [];
  for (const id of RULE_IDS) {
    const found = only.includes(id) ? deciding(findingsOf(study, ruleOf(id))) : null;
    if (found) verdicts.push(toldOf({ id, found }));
  }
  // Beyond a point a miss is a miss: then the order of the rules, causes before effects, decides.
  const share = (v: Verdict) => Math.max(v.left, HOPELESS);
  return verdicts.sort((a, b) => RANK[a.state] - RANK[b.state] || share(a) - share(b));
}

/** What a search needs of a judgement: how many verdicts fail, and what has least left, cautions apart. */
export interface Outcome {
  fails: number;
  worst: Decisive | null;
}

/** What decides one rule. Words are found for it where they are wanted (`toldOf`). */
export interface Decisive {
  id: RuleId;
  found: Found;
}

/** As countFails and tightest of judge() say. */
export function outcomeOf(study: Study, only: readonly RuleId[] = RULE_IDS): Outcome {
  let fails = 0;
  let worst: Decisive | null = null;
  for (const id of RULE_IDS) {
    const found = only.includes(id) ? deciding(findingsOf(study, ruleOf(id))) : null;
    if (!found) continue;
    fails += found.state === 'fails' ? 1 : 0;
    if (!found.finding.caution && (!worst || found.left < worst.found.left)) worst = { id, found };
  }
  return { fails, worst };
}

/** What two judgements by different rules come to together. */
export function both(a: Outcome, b: Outcome): Outcome {
  const worst =
    a.worst && b.worst ? (b.worst.found.left < a.worst.found.left ? b.worst : a.worst) : (a.worst ?? b.worst);
  return { fails: a.fails + b.fails, worst };
}

/** A verdict with its words. */
export function toldOf({ id, found: { finding, look, condition, left, state } }: Decisive): Verdict {
  const { design } = look.study;
  const rule: Rule = ruleOf(id);
  const told = finding.tell();
  const name =
    look.output.id === 'main'
      ? null
      : look.output.id === 'minus'
        ? 'Minus rail'
        : outputsOf(design).find((o) => o.id === look.output.id)!.name;
  return {
    id,
    title: told.title ?? rule.title,
    station: told.station ?? rule.station,
    state,
    figure: {
      ...told.figure,
      value: finding.value,
      ...(condition ? { condition: wordsOf(design, condition) } : {}),
    },
    limit: finding.limit,
    limitSource: told.limitSource,
    relation: finding.relation,
    wantedMargin: finding.wanted,
    sentence: name === null ? told.sentence : `${name}: ${lowered(told.sentence)}`,
    reason: told.reason,
    margin: marginOf(finding),
    left,
    caution: finding.caution ?? false,
    at: condition?.id ?? null,
    output: rule.scope === 'supply' ? null : look.output.id,
  };
}

/** A sentence that goes on behind a name; a number or an abbreviation stays as it is. */
function lowered(sentence: string): string {
  return /^[A-Z][a-z]/.test(sentence) ? sentence[0]!.toLowerCase() + sentence.slice(1) : sentence;
}

/** Margins this far beyond the limit, in wanted margins, are not told apart. */
const HOPELESS = -8;

/** How far a design is from passing: each failing verdict counts, and more the further it misses. 0 when all pass. */
export function distress(verdicts: readonly Pick<Verdict, 'state' | 'left'>[]): number {
  return verdicts.reduce((sum, v) => sum + (v.state === 'fails' ? 1 + Math.log1p(-v.left) : 0), 0);
}

export function countFails(verdicts: readonly Verdict[]): number {
  return verdicts.filter((v) => v.state === 'fails').length;
}

/** The verdict with least of its wanted margin left, cautions apart; null where there is none. */
export function tightest(verdicts: readonly Verdict[]): Verdict | null {
  const counting = verdicts.filter((v) => !v.caution);
  return counting.reduce<Verdict | null>((a, b) => (a === null || b.left < a.left ? b : a), null);
}
