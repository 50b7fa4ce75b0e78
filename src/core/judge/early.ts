import { CONDITIONS, type Condition } from '@/core/circuit/condition';
import type { Study } from '@/core/study/study';
import { deciding, distress, findingsOf } from './judge';
import { earlyGroups, RULE_IDS, ruleOf, type RuleId } from './rules';

/** What a search gives a design up for: the rule, and what is left of its wanted margin. */
export interface EarlyFailure {
  id: RuleId;
  title: string;
  sentence: string;
  left: number;
}

/** The first of some rules that fails in some circumstances; only those are solved. Null where none does. */
export function failedAt(study: Study, rules: readonly RuleId[], at: readonly Condition[]): EarlyFailure | null {
  for (const id of rules) {
    const rule = ruleOf(id);
    const { occasion } = rule;
    const occasions = occasion === 'once' ? [] : at.filter(occasion);
    const worst = deciding(findingsOf(study, rule, occasions));
    if (worst?.state !== 'fails') continue;
    const told = worst.finding.tell();
    return { id, title: told.title ?? rule.title, sentence: told.sentence, left: worst.left };
  }
  return null;
}

/** One circumstance for each group of early rules: full load at the lowest input, no load and lasting load at the highest. */
const EARLY_AT: readonly Condition[] = [CONDITIONS.low, CONDITIONS.idle, CONDITIONS.high];

const GROUPS = earlyGroups();

/** Why a search need not look further at a design: each group asked in one circumstance alone. Null where nothing says so. */
export function givenUpFor(study: Study): EarlyFailure | null {
  for (let n = 0; n < GROUPS.length; n++) {
    const found = failedAt(study, GROUPS[n]!, [EARLY_AT[Math.min(n, EARLY_AT.length - 1)]!]);
    if (found) return found;
  }
  return null;
}

/** Every rule, those first that fail soonest. */
const SOONEST: readonly RuleId[] = [...new Set([...GROUPS.flat(), ...RULE_IDS])];

/** Two searches for one point differ by their last digits: less than this apart is no difference in distress. */
const ALIKE = 1e-3;

/**
 * How far some rules alone say a design is from passing (as distress() counts), in some circumstances alone: the whole
 * judgement never says less, as what is found in one circumstance is never taken back by another.
 * @param enough nobody asks how much more than this it is
 */
function distressAt(
  study: Study,
  rules: readonly RuleId[],
  at: readonly Condition[] | undefined,
  enough: number,
): number {
  let sum = 0;
  for (const id of rules) {
    const { occasion } = ruleOf(id);
    if (at && occasion === 'once') continue;
    const worst = deciding(findingsOf(study, ruleOf(id), at));
    if (worst) sum += distress([worst]);
    if (sum > enough) break;
  }
  return sum;
}

/** How far a design is from passing at least, as far as its lowest input says: one circumstance is solved. */
export function leastDistress(study: Study): number {
  return distressAt(study, SOONEST, [CONDITIONS.low], Infinity);
}

/**
 * Whether a design is further from passing than `most` (as distress() counts). Most designs are seen through in one or two
 * circumstances.
 * @param but rules that do not count
 */
export function exceeds(study: Study, most: number, but: readonly RuleId[] = []): boolean {
  if (most === Infinity) return false;
  const rules = SOONEST.filter((id) => !but.includes(id));
  return [[CONDITIONS.low], [CONDITIONS.low, CONDITIONS.idle], undefined].some(
    (at) => distressAt(study, rules, at, most + ALIKE) > most + ALIKE,
  );
}
