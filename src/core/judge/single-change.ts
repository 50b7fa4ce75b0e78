import { applyPatch, type Design, type Edit } from '@/core/design/design';
import { SolveError } from '@/core/solve/solve-error';
import { typicalCost } from '@/core/study/cost';
import { studyDesign } from '@/core/study/study';
import { curesOf } from './cures-of';
import { countFails, distress, judge, tightest } from './judge';

/** One change of one part, simulated. */
export interface SingleChange {
  edit: Edit;
  failsAfter: number;
  /** Least share of the wanted margin over all verdicts that can fail, before and after. */
  worstBefore: number;
  worstAfter: number;
  /** Which verdict is the worst afterwards. */
  worstTitle: string;
  costEur: number;
  /** What it relieves: how far the design is from passing, less what is left of that afterwards. */
  relief: number;
}

/**
 * Every single change any rule offers for what is tight or fails, simulated one after the other: yields after each.
 */
export function* singleChanges(design: Design): Generator<SingleChange> {
  const study = studyDesign(design);
  const verdicts = judge(study);
  const cost = typicalCost(design);
  const before = tightest(verdicts)!;
  const distressed = distress(verdicts);
  const seen = new Set<string>();
  const wanting = verdicts.filter((v) => v.state === 'fails' || v.state === 'tight');
  for (const verdict of wanting.length > 0 ? wanting : [before]) {
    for (const edit of curesOf(design, verdict.id, verdict.output)) {
      const key = JSON.stringify(edit.patch);
      if (seen.has(key)) continue;
      seen.add(key);
      const changed = applyPatch(design, edit.patch);
      try {
        const after = judge(studyDesign(changed));
        const worst = tightest(after)!;
        yield {
          edit,
          failsAfter: countFails(after),
          worstBefore: before.left,
          worstAfter: worst.left,
          worstTitle: worst.title,
          costEur: typicalCost(changed) - cost,
          relief: distressed - distress(after),
        };
      } catch (error) {
        if (!(error instanceof SolveError)) throw error;
      }
    }
  }
}
