import { atOnce } from '@/core/quantity/at-once';
import { wordsOf, type Condition, type ConditionId } from '@/core/circuit/condition';
import type { Design } from '@/core/design/design';
import type { Unit } from '@/core/quantity/parse';
import type { Figure } from '@/core/study/figure';
import { studyDesign } from '@/core/study/study';
import { deciding, findingsOf, judge } from './judge';
import { ruleOf, type RuleId } from './rules';
import type { State, Verdict } from './verdict';

/** One circumstance of the grid: all of them together are those a design is judged in, no more and no fewer. */
export interface Cell {
  id: ConditionId;
  mains: Condition['mains'];
  load: Condition['load'];
  /** In words: 'low line, full load, aged reservoir'. */
  words: string;
  /** Besides its input: 'full load, aged reservoir'. */
  state: string;
}

export interface GridRow {
  id: RuleId;
  title: string;
  unit: Unit;
  limit: number;
  relation: Verdict['relation'];
  /** Figure and share of the wanted margin in each cell; null where the rule has no meaning. */
  values: ({ value: number; left: number; state: State; figure: Figure } | null)[];
  /** Index of the cell that decides: the one the verdict speaks of. */
  worst: number;
}

/** A verdict of an event, or of a chosen part, rather than of a lasting circumstance. */
export interface EventRow {
  id: RuleId;
  title: string;
  condition: string;
  sentence: string;
  state: State;
}

export interface Grid {
  cells: Cell[];
  rows: GridRow[];
  events: EventRow[];
}

/** Every verdict in every circumstance, in one go. */
export const cornerGrid = (design: Design): Grid => atOnce(solvingCorners(design));

/**
 * Every verdict in every circumstance, a step for each that is solved: the same findings the judge chooses from, all of them shown.
 * @throws SolveError naming the circumstance that does not converge
 */
export function* solvingCorners(design: Design): Generator<ConditionId, Grid> {
  const study = studyDesign(design);
  const { conditions } = study;
  for (const condition of conditions) {
    study.at(condition);
    yield condition.id;
  }
  const rows: GridRow[] = [];
  const events: EventRow[] = [];
  for (const verdict of judge(study)) {
    if (verdict.at === null) {
      const { id, title, figure, sentence, state } = verdict;
      events.push({ id, title, condition: figure.condition ?? '', sentence, state });
      continue;
    }
    const found = findingsOf(study, ruleOf(verdict.id));
    const values = conditions.map((c) => {
      const worst = deciding(found.filter((f) => f.condition?.id === c.id));
      if (!worst) return null;
      const { value } = worst.finding;
      const figure = { ...worst.finding.tell().figure, value, condition: wordsOf(design, c) };
      return { value, left: worst.left, state: worst.state, figure };
    });
    rows.push({
      id: verdict.id,
      title: verdict.title,
      unit: verdict.figure.unit,
      limit: verdict.limit,
      relation: verdict.relation,
      values,
      worst: conditions.findIndex((c) => c.id === verdict.at),
    });
  }
  const cells = conditions.map((c): Cell => {
    const { id, mains, load, state } = c;
    return { id, mains, load, state, words: wordsOf(design, c) };
  });
  return { cells, rows, events };
}
