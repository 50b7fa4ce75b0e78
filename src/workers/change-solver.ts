import type { Design, Edit, OutputId } from '@/core/design/design';
import { moreEdits, moreTrier, type MoreWith } from '@/core/judge/more-of';
import { changesOf, changeTrier, type SingleChange } from '@/core/judge/single-change';
import { answer, type Answer } from './answer';
import { lastKept } from './last-kept';

const changes = lastKept(changeTrier);
const more = lastKept(moreTrier);

/** What a solver does for lists of single changes: one thread says what they are, all of the pool simulate some. */
export const changeSolver = {
  /** Every single change any rule offers. */
  changesOf(design: Design): Answer<Edit[]> {
    return answer(() => changesOf(design));
  },
  tryChanges(design: Design, edits: readonly Edit[]): Answer<(SingleChange | null)[]> {
    return answer(() => edits.map(changes(design)));
  },
  /** Every single change that could let an output give more. */
  moreEdits(design: Design, output: OutputId): Answer<Edit[]> {
    return answer(() => moreEdits(design, output));
  },
  tryMore(design: Design, output: OutputId, edits: readonly Edit[]): Answer<(MoreWith | null)[]> {
    return answer(() => edits.map(more(design, output)));
  },
};
