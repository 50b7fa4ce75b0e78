import * as Comlink from 'comlink';
import { mainsForReadings, testPoints, type TestPoint } from '@/core/bench/test-points';
import type { Ask, Design, Mains } from '@/core/design/design';
import { simulateFixes } from '@/core/judge/fixes';
import { pictureOf, summaryOf, type Picture, type Summary } from '@/core/judge/picture';
import type { Fix } from '@/core/judge/verdict';
import { proposing, type Proposal, type SearchProgress } from '@/core/size/propose';
import { SolveError } from '@/core/solve/solve-error';
import { warmStartFrom, type WarmStart } from '@/core/study/operating-point';

export type Answer<T> = { ok: true; value: T } | { ok: false; error: string };

let warm: WarmStart = {};
let newestFixJob = 0;
let newestSearch = 0;

function answer<T>(work: () => T): Answer<T> {
  try {
    return { ok: true, value: work() };
  } catch (error) {
    if (error instanceof SolveError) return { ok: false, error: error.message };
    throw error;
  }
}

const breathe = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

const solver = {
  /** Solves and judges, starting from the last design's cycle. */
  evaluate(design: Design): Answer<Picture> {
    return answer(() => {
      const { picture, study } = pictureOf(design, warm);
      warm = warmStartFrom(study);
      return picture;
    });
  },
  /** Simulates the fixes of every verdict that does not hold; a newer call ends an older one. */
  async fixes(job: number, design: Design, onBatch: (verdict: string, fixes: Fix[]) => void): Promise<void> {
    newestFixJob = job;
    const start = answer(() => pictureOf(design));
    if (!start.ok) return;
    for (const batch of simulateFixes(start.value.study, start.value.picture.verdicts)) {
      onBatch(batch.verdict, batch.fixes);
      await breathe();
      if (newestFixJob !== job) return;
    }
  },
  bench(design: Design): Answer<TestPoint[]> {
    return answer(() => testPoints(design, mainsForReadings(design)));
  },
  /** Searches a supply for a load, telling its progress; null when a newer search or stopSearch ended it. */
  async propose(
    job: number,
    name: string,
    demand: Ask,
    mains: Mains,
    onProgress: (progress: SearchProgress) => void,
  ): Promise<Answer<Proposal & { summary: Summary }> | null> {
    newestSearch = job;
    const search = proposing(name, demand, mains);
    for (;;) {
      const step = answer(() => search.next());
      if (!step.ok) return step;
      if (step.value.done) {
        const proposal = step.value.value;
        return answer(() => ({ ...proposal, summary: summaryOf(pictureOf(proposal.design).picture) }));
      }
      onProgress(step.value.value);
      await breathe();
      if (newestSearch !== job) return null;
    }
  },
  stopSearch(): void {
    newestSearch = 0;
  },
};

export type Solver = typeof solver;

Comlink.expose(solver);
