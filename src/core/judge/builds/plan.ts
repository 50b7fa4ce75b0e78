import type { Condition, ConditionId } from '@/core/circuit/condition';
import type { Adjust } from '@/core/circuit/network-of';
import type { Design } from '@/core/design/design';
import type { Check } from '@/core/picture/build-summary';
import { studyDesign } from '@/core/study/study';
import { deciding, findingsOf, judge } from '../judge';
import { ruleOf } from '../rules';

/** What is looked at in every build: which rules, in which circumstances. */
export interface Plan {
  checks: Check[];
  conditions: Condition[];
  /** What copper and diodes come to in each, where they are solved together; found once, with the parts as printed. */
  resting: Partial<Record<ConditionId, Adjust>>;
}

/** Circumstances this close to the deciding one, in wanted margins, may decide in another build. */
const NEAR = 0.15;

/**
 * Every rule that can fail and hangs on a circumstance, with each circumstance that decides one of them in the design as
 * printed, or nearly. A rule then looks at all of those. What happens once (first surge, lost load) is not drawn.
 */
export function planOf(design: Design): Plan {
  const study = studyDesign(design);
  const ids = new Set<ConditionId>();
  const checks: Check[] = [];
  for (const { id, title, figure, caution, at } of judge(study)) {
    if (caution || at === null) continue;
    checks.push({ id, title, unit: figure.unit });
    const found = findingsOf(study, ruleOf(id));
    const worst = deciding(found)!;
    for (const f of found) if (f.left <= worst.left + NEAR) ids.add(f.condition!.id);
  }
  const conditions = study.conditions.filter((c) => ids.has(c.id));
  const resting = design.heat.together ? Object.fromEntries(conditions.map((c) => [c.id, study.at(c).warmth])) : {};
  return { checks, conditions, resting };
}
