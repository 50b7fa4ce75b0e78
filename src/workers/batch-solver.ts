import type { Design } from '@/core/design/design';
import { Batch } from '@/core/judge/builds/batch';
import type { Plan } from '@/core/judge/builds/plan';
import type { Ask, SolvedBuild } from '@/core/judge/builds/solve';
import type { ToleranceSummary } from '@/core/picture/build-summary';
import { answer, type Answer } from './answer';

/** The builds this thread draws; another batch takes its place. */
let drawing: { id: number; batch: Batch } | null = null;

function told<T>(id: number, work: (batch: Batch) => T): Answer<T> {
  if (drawing?.id !== id) return { ok: false, error: 'these builds are no longer being drawn. Draw them again.' };
  const { batch } = drawing;
  return answer(() => work(batch));
}

/** What a solver does for many builds: one thread draws them and reads what can be read, all of the pool solve. */
export const batchSolver = {
  /** Begins to draw: what is looked at in each build, and what is to be solved first. */
  beginBatch(id: number, design: Design, seed: number, count: number): Answer<{ plan: Plan; asks: Ask[] }> {
    return answer(() => {
      const batch = new Batch(design, seed, count);
      drawing = { id, batch };
      return { plan: batch.plan, asks: batch.first() };
    });
  },
  /** Takes what was solved. */
  takeAnswers(id: number, answers: readonly SolvedBuild[]): Answer<void> {
    return told(id, (batch) => batch.take(answers));
  },
  /** What is to be solved next; nothing when that was all. */
  nextAsks(id: number): Answer<Ask[]> {
    return told(id, (batch) => batch.next());
  },
  /** What all builds come to, check by check. */
  summariseBatch(id: number): Answer<ToleranceSummary> {
    return told(id, (batch) => batch.summary());
  },
};
