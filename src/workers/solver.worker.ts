import * as Comlink from 'comlink';
import { mainsForReadings, testPoints, type TestPoint } from '@/core/bench/test-points';
import type { Ask, Design, Mains, PartRole, Patch } from '@/core/design/design';
import { readPartsCsv, type RowResult } from '@/core/drawer/csv';
import type { Part } from '@/core/drawer/part';
import { windingCount } from '@/core/design/words';
import { simulateFixes } from '@/core/judge/fixes';
import { mainsSide, type MainsReport } from '@/core/mains-side/mains-side';
import { pictureOf, summaryOf, type Picture, type Summary } from '@/core/judge/picture';
import type { Fix } from '@/core/judge/verdict';
import { picking, type Candidate } from '@/core/size/picking';
import { sizing, type SizingAsk, type SizingProgress } from '@/core/size/sizing';
import { proposing, type Proposal, type SearchProgress } from '@/core/size/propose';
import { SolveError } from '@/core/solve/solve-error';
import { scopeTraces, type ScopeBand, type ScopeRun, type Traces } from '@/core/study/traces';
import { solveVariations } from '@/core/study/variation';
import { schools, type School } from '@/core/study/schools';
import { billOf, type BillLine } from '@/core/study/bill';
import { studyDesign, warmStartFrom, type WarmStart } from '@/core/study/operating-point';

export interface SchoolReport extends Omit<School, 'design'> {
  patch: Patch;
  answer: Answer<{
    summary: Summary;
    outputV: number;
    railV: number;
    /** From low line loaded to high line idle, per cent. */
    risesPct: number;
    windingA: number;
    pulseA: number;
    rippleV: number;
    costEur: number;
    fails: number;
  }>;
}

/** What a parts file would become. */
export type PartsPreview =
  { ok: false; error: string } | { ok: true; total: number; refused: number; errors: string[]; first: RowResult[] };

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
  /** The three schools of feeding the reservoir, each solved on this design's own values. */
  schools(design: Design): SchoolReport[] {
    return schools(design).map(({ design: variant, ...school }) => ({
      ...school,
      patch: { filter: variant.filter },
      answer: answer(() => {
        const { picture } = pictureOf(variant);
        const { low, nominal, idle } = picture.points;
        return {
          summary: summaryOf(picture),
          outputV: nominal.outputMeanV,
          railV: nominal.rail.meanV,
          risesPct: 100 * (idle.rail.meanV / low.rail.meanV - 1),
          windingA: Math.max(...nominal.solution.windings.slice(0, windingCount(design)).map((w) => w.rmsA)),
          pulseA: Math.max(...nominal.solution.windings.slice(0, windingCount(design)).map((w) => w.peakA)),
          rippleV: nominal.rail.ripplePeakToPeakV,
          costEur: picture.costEur,
          fails: picture.fails,
        };
      }),
    }));
  },
  variations: solveVariations,
  scope(design: Design, run: ScopeRun, band: ScopeBand): Answer<Traces> {
    return answer(() => scopeTraces(design, run, band));
  },
  mainsSide(design: Design): Answer<MainsReport> {
    return answer(() => mainsSide(studyDesign(design)));
  },
  bill(design: Design): Answer<BillLine[]> {
    return answer(() => billOf(studyDesign(design)));
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
  /** Tries parts in a design one after another; a newer search or stopSearch ends it. */
  async pick(
    job: number,
    design: Design,
    role: PartRole,
    parts: Part[],
    onFound: (found: Candidate[], tried: number) => void,
  ): Promise<boolean> {
    newestSearch = job;
    let batch: Candidate[] = [];
    let tried = 0;
    let since = performance.now();
    for (const candidate of picking(design, role, parts)) {
      tried++;
      if (candidate) batch.push(candidate);
      if (performance.now() - since < 80) continue;
      onFound(batch, tried);
      batch = [];
      await breathe();
      if (newestSearch !== job) return false;
      since = performance.now();
    }
    onFound(batch, tried);
    return true;
  },
  /** Sizes whole sets; a newer search or stopSearch ends it. */
  async size(
    job: number,
    design: Design,
    parts: Part[],
    ask: SizingAsk,
    onProgress: (progress: SizingProgress) => void,
  ): Promise<boolean> {
    newestSearch = job;
    let found: SizingProgress['found'] = [];
    let since = performance.now();
    let last = { simulated: 0, studies: 0 };
    for (const progress of sizing(design, parts, ask)) {
      found.push(...progress.found);
      last = progress;
      if (performance.now() - since < 100) continue;
      onProgress({ simulated: last.simulated, studies: last.studies, found });
      found = [];
      await breathe();
      if (newestSearch !== job) return false;
      since = performance.now();
    }
    onProgress({ simulated: last.simulated, studies: last.studies, found });
    return true;
  },
  /** Reads a parts file for its preview: what rows become, which are refused and why. */
  readParts(text: string): PartsPreview {
    const read = readPartsCsv(text);
    if (!read.ok) return { ok: false, error: read.error };
    const refused = read.rows.flatMap((r) => ('error' in r ? [r.error] : []));
    return {
      ok: true,
      total: read.rows.length,
      refused: refused.length,
      errors: refused.slice(0, 200),
      first: read.rows.slice(0, 100),
    };
  },
};

export type Solver = typeof solver;

Comlink.expose(solver);
