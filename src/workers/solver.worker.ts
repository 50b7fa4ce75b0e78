import type { UnderWay } from '@/core/bench/next-step';
import { differences, type Difference } from '@/core/picture/differences';
import { billDifferences, type BillsCompared } from '@/core/study/bill-differences';
import { twoSides, type OneSide, type Question } from '@/core/study/two-sides';
import { underWay } from '@/core/build/under-way';
import * as Comlink from 'comlink';
import { fittedToBox } from '@/core/bench/fit-box';
import { computedLine, type ComputedLine } from '@/core/bench/load-line';
import { namesOf, practiceChoices, seededPuzzle, setPuzzle, takeReading } from '@/core/bench/practice';
import type { PracticeChoice, PracticeReading, Puzzle } from '@/core/bench/practice-puzzles';
import type { BenchFault } from '@/core/bench/fault-words';
import { mainsForReadings } from '@/core/bench/readings';
import type { TestPoint } from '@/core/bench/test-point';
import { soakOf, type Soak } from '@/core/bench/soak';
import { testPoints } from '@/core/bench/test-points';
import type { Design, LoadRow, Mains } from '@/core/design/design';
import { readPartsCsv, type RowResult } from '@/core/drawer/csv';
import type { ConditionId } from '@/core/circuit/condition';
import { boardOf } from '@/core/board/board-of';
import { etch } from '@/core/board/etch';
import { planBox, smallestBox, type BoxPlan } from '@/core/box/box-plan';
import { strips } from './kept-boards';
import { lastKept } from './last-kept';
import { wireLengths } from '@/core/box/wire-length';
import { wiring, type WireRow } from '@/core/build/wiring';
import { mainsSide } from '@/core/mains-side/mains-side';
import { netlistOf } from '@/core/netlist/netlist-of';
import type { MainsReport } from '@/core/mains-side/report';
import { pictureOf } from '@/core/judge/picture';
import { movedVerdicts, type MovedVerdict } from '@/core/picture/moved-verdicts';
import { summaryOf, type Summary } from '@/core/picture/summary';
import type { Picture } from '@/core/picture/picture';
import { coolerWays, heatView, selfLimit, type CoolerWay, type HeatView } from '@/core/study/heat-report';
import { letsGoAt } from '@/core/study/cascade';
import { planOf } from '@/core/judge/builds/plan';
import { solveBuilds } from '@/core/judge/builds/solve';
import { drawnShares } from '@/core/judge/builds/summary';
import { answer, type Answer } from './answer';
import { batchSolver } from './batch-solver';
import { atWork } from './at-work';
import type { RuleId } from '@/core/judge/rules';
import { designFromReadings } from '@/core/size/from-readings';
import type { BoxReadings } from '@/core/size/box-readings';
import {
  coolingWays,
  designOf,
  regulatorWays,
  technologies,
  type Technology,
  type Way,
} from '@/core/study/regulator-schools';
import { reverseDiodeWays } from '@/core/study/reverse-diode';
import { comparedFigures, type Compared } from '@/core/picture/comparison';
import { schools } from '@/core/study/schools';
import { typicalCost } from '@/core/study/cost';
import { billOf } from '@/core/study/bill';
import type { BillLine } from '@/core/study/bill-sums';
import { mostOf, type Most } from '@/core/study/most';
import { studyDesign } from '@/core/study/study';

export interface SchoolReport extends Way {
  answer: Answer<{ summary: Summary; figures: Compared }>;
}

/** A kept state of a design beside the present one. */
export interface Beside {
  then: { summary: Summary; figures: Compared };
  now: { summary: Summary; figures: Compared };
  moved: MovedVerdict[];
  /** What of the supply is not the same. */
  differs: Difference[];
  bill: BillsCompared;
}

/** The arguments about regulators and cooling, on one design. */
export interface RegulatorSchools {
  regulators: SchoolReport[];
  cooling: SchoolReport[];
  technology: Technology;
}

/** What a parts file would become. */
export interface PartsPreview {
  total: number;
  refused: number;
  errors: string[];
  first: RowResult[];
}

/** A part that is moved changes neither its board nor the smallest box. */
const etched = lastKept(etch);
const sized = lastKept(smallestBox);
const planned = (design: Design) =>
  planBox(design, (of, netlist) => boardOf(of, netlist, { strips, etch: etched }), sized);

function schoolReport(way: Way, variant: Design): SchoolReport {
  return { ...way, answer: answer(() => comparable(pictureOf(variant))) };
}

const comparable = ({ picture, study }: ReturnType<typeof pictureOf>) => ({
  summary: summaryOf(picture),
  figures: comparedFigures(picture, study),
});

/** Which puzzle is wanted: a set one, or whatever a seed puts into one of the school's supplies or the person's own. */
export type PuzzleAsk = { set: string } | { seed: number; own: Design | null };

/** A puzzle with what can be read of it and what could be wrong with it. */
export interface OnTheBench {
  puzzle: Puzzle;
  choices: PracticeChoice[];
  faults: BenchFault[];
}

const solver = {
  /** A supply with something hidden in it, and what can be read of it; null where no puzzle has that name. */
  practice(ask: PuzzleAsk): Answer<OnTheBench | null> {
    return answer(() => {
      const puzzle = 'set' in ask ? setPuzzle(ask.set) : seededPuzzle(ask.seed, ask.own);
      return puzzle && { puzzle, choices: practiceChoices(puzzle.design), faults: namesOf(puzzle.design) };
    });
  },
  /** Where the metal ends, by the temperatures read so far. */
  soak(design: Design): Answer<Soak | string> {
    return answer(() => soakOf(design));
  },
  /** One reading of it. */
  practiceReading(puzzle: Puzzle, id: string, nth: number): Answer<PracticeReading> {
    return answer(() => takeReading(puzzle, id, nth));
  },
  /** Solves and judges. */
  evaluate(design: Design): Answer<Picture> {
    return answer(() => pictureOf(design).picture);
  },
  /** The three schools of feeding the reservoir, each solved on this design's own values. */
  schools(design: Design): Answer<SchoolReport[]> {
    return answer(() =>
      schools(design).map(({ design: variant, shape, name, creed }) =>
        schoolReport({ id: shape, name, creed, patch: { filter: variant.filter } }, variant),
      ),
    );
  },
  /** An earlier state of a design beside the present one, and the verdicts that stand differently in it. */
  beside(now: Design, then: Design): Answer<Beside> {
    return answer(() => {
      const [before, after] = [pictureOf(then), pictureOf(now)];
      return {
        then: comparable(before),
        now: comparable(after),
        moved: movedVerdicts(before.picture.verdicts, after.picture.verdicts),
        differs: differences(then, now),
        bill: billDifferences(billOf(before.study), billOf(after.study)),
      };
    });
  },
  /** No diode, Schottky, silicon in the lead of a DC source. */
  reverseDiodes(design: Design): Answer<SchoolReport[]> {
    return answer(() => reverseDiodeWays(design).map((way) => schoolReport(way, designOf(design, way))));
  },
  /** Ready-made, discrete and op-amp regulators, then passive and blown cooling, and what a converter would do. */
  regulatorSchools(design: Design): Answer<RegulatorSchools> {
    return answer(() => {
      const report = (way: Way) => schoolReport(way, designOf(design, way));
      return {
        regulators: regulatorWays(design).map(report),
        cooling: coolingWays(design).map(report),
        technology: technologies(design, typicalCost(design)),
      };
    });
  },
  /** The heat of one corner, steady or after some minutes; null where the corner has no meaning. */
  heat(design: Design, corner: ConditionId, minutes: number | null): Answer<HeatView | null> {
    return answer(() => heatView(design, corner, minutes));
  },
  /** At which load the first of two in cascade lets go, A. */
  letsGo(design: Design): Answer<number | null> {
    return answer(() => letsGoAt(design));
  },
  /** At which current it limits itself, and what would make it cooler. */
  cooler(design: Design): Answer<{ limit: ReturnType<typeof selfLimit>; ways: CoolerWay[] }> {
    return answer(() => ({ limit: selfLimit(design), ways: coolerWays(design) }));
  },
  ...atWork,
  ...batchSolver,
  /** Share of so many builds that hold each verdict. */
  sharesOf(design: Design, builds: number): Answer<Partial<Record<RuleId, number>>> {
    return answer(() => {
      const plan = planOf(design);
      return drawnShares(plan, solveBuilds(design, plan, 1, 0, builds));
    });
  },
  /** A first design that behaves as an existing box was read. */
  fromReadings(readings: BoxReadings, mains: Mains, more: readonly LoadRow[], at: string): Answer<Design> {
    return answer(() => fittedToBox(designFromReadings(readings, mains), readings, more, at));
  },
  /** The most each output gives at the lowest input. */
  most(design: Design): Answer<Most[]> {
    return answer(() => mostOf(design));
  },
  mainsSide(design: Design): Answer<MainsReport> {
    return answer(() => mainsSide(studyDesign(design)));
  },
  /** Every wire that is no track of a board. */
  wires(design: Design): Answer<WireRow[]> {
    return answer(() => {
      const study = studyDesign(design);
      const { placed, inside } = planned(design);
      return wiring(study, netlistOf(design), mainsSide(study), wireLengths(placed, inside));
    });
  },
  /** Where everything goes in its box, and the smallest standard one. */
  box(design: Design): Answer<BoxPlan> {
    return answer(() => planned(design));
  },
  bill(design: Design): Answer<BillLine[]> {
    return answer(() => billOf(studyDesign(design)));
  },
  /** Both answers to a question builders disagree about. */
  twoSides(design: Design, question: Question): Answer<OneSide[]> {
    return answer(() => twoSides(design, question));
  },
  /** How far its parts are. */
  underWay(design: Design): Answer<UnderWay | null> {
    return answer(() => underWay(studyDesign(design)));
  },
  /** The load line readings are held against. */
  computedLine(design: Design): Answer<ComputedLine> {
    return answer(() => computedLine(design));
  },
  bench(design: Design): Answer<TestPoint[]> {
    return answer(() => testPoints(design, mainsForReadings(design)));
  },
  /** Reads a parts file for its preview: what rows become, which are refused and why. */
  readParts(text: string): Answer<PartsPreview> {
    const read = readPartsCsv(text);
    if (!read.ok) return { ok: false, error: read.error };
    const refused = read.rows.flatMap((r) => ('error' in r ? [r.error] : []));
    return {
      ok: true,
      value: {
        total: read.rows.length,
        refused: refused.length,
        errors: refused.slice(0, 200),
        first: read.rows.slice(0, 100),
      },
    };
  },
};

export type Solver = typeof solver;

Comlink.expose(solver);
