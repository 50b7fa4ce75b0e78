import { applyPatch, type Design, type Edit } from '@/core/design/design';
import { orUnsolved } from '@/core/solve/solve-error';
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

/** Every single change any rule offers for what is tight or fails; for the tightest where nothing is. */
export function changesOf(design: Design): Edit[] {
  const verdicts = judge(studyDesign(design));
  const wanting = verdicts.filter((v) => v.state === 'fails' || v.state === 'tight');
  const asking = wanting.length > 0 ? wanting : [tightest(verdicts)!];
  const edits = asking.flatMap((v) => curesOf(design, v.id, v.output));
  return [...new Map(edits.map((e) => [JSON.stringify(e.patch), e])).values()];
}

/** What simulates single changes of a design, each alone; null of one without an answer. */
export function changeTrier(design: Design): (edit: Edit) => SingleChange | null {
  const verdicts = judge(studyDesign(design));
  const cost = typicalCost(design);
  const before = tightest(verdicts)!;
  const distressed = distress(verdicts);
  return (edit) => {
    const changed = applyPatch(design, edit.patch);
    const after = orUnsolved(() => judge(studyDesign(changed)));
    if (!after) return null;
    const worst = tightest(after)!;
    return {
      edit,
      failsAfter: countFails(after),
      worstBefore: before.left,
      worstAfter: worst.left,
      worstTitle: worst.title,
      costEur: typicalCost(changed) - cost,
      relief: distressed - distress(after),
    };
  };
}
