import { applyPatch, type Design, type Edit, type OutputId } from '@/core/design/design';
import { outputsOf } from '@/core/design/outputs';
import { typicalCost } from '@/core/study/cost';
import { mostOfOne, type Most } from '@/core/study/most';
import { studyDesign } from '@/core/study/study';
import { orUnsolved } from '@/core/solve/solve-error';
import { curesOf, touchesFixed, withinBorders } from './cures-of';
import { biggerReservoir, fullWave, otherDiodes, transformerSize, windingVolts } from './cures';
import { outcomeOf } from './judge';
import type { RuleId } from './rules';

/** What one output gives at the most after one change of one part. */
export interface MoreWith {
  edit: Edit;
  most: Most;
  /** More than it gives now, A. */
  gainA: number;
  costEur: number;
  /** Verdicts that fail after the change, at the load the design has; null where it has no answer there. */
  fails: number | null;
}

/** Rules whose cures let an output give more at the lowest input. */
const LETTING_GO: readonly RuleId[] = ['headroom', 'output-window', 'regulator-current'];
/** Less than this share of what it gives now is no gain worth a change. */
const WORTH = 0.01;

/** Changes of one part that could let an output give more, whether its verdicts ask for them or not. */
export function moreEdits(design: Design, output: OutputId): Edit[] {
  const edits = [
    ...LETTING_GO.flatMap((id) => curesOf(design, id, output)),
    ...[
      ...windingVolts(design, [1, 2]),
      ...transformerSize(design, [1, 2]),
      ...biggerReservoir(design, [1, 2]),
      ...otherDiodes(design),
      ...fullWave(design),
    ].filter((e) => !touchesFixed(design, e.patch) && withinBorders(design, e.patch)),
  ];
  return [...new Map(edits.map((e) => [JSON.stringify(e.patch), e])).values()];
}

/** What simulates how much more an output gives with a single change; null of one that gains nothing worth it. */
export function moreTrier(design: Design, output: OutputId): (edit: Edit) => MoreWith | null {
  const now = most(design, output);
  const cost = typicalCost(design);
  return (edit) => {
    const changed = applyPatch(design, edit.patch);
    const after = most(changed, output);
    const gainA = (after?.amps ?? 0) - (now?.amps ?? 0);
    if (!after || gainA <= WORTH * (now?.amps ?? 0)) return null;
    return { edit, most: after, gainA, costEur: typicalCost(changed) - cost, fails: failsOf(changed) };
  };
}

const failsOf = (design: Design): number | null => orUnsolved(() => outcomeOf(studyDesign(design)).fails);

const most = (design: Design, id: OutputId) => {
  const output = outputsOf(design).find((o) => o.id === id);
  return output ? mostOfOne(design, output) : undefined;
};
