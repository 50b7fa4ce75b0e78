import type { Design, OutputId } from '@/core/design/design';
import { moreEdits, moreTrier, type MoreWith } from '@/core/judge/more-of';
import { changesOf, changeTrier, type SingleChange } from '@/core/judge/single-change';

/** Every single change any rule offers for a design, simulated one after the other. */
export function singleChanges(design: Design): SingleChange[] {
  return changesOf(design).flatMap((edit) => changeTrier(design)(edit) ?? []);
}

/** How much more an output gives with each change there is: null of one without gain. */
export function moreOf(design: Design, output: OutputId): (MoreWith | null)[] {
  return moreEdits(design, output).map(moreTrier(design, output));
}
