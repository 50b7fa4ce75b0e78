import { CONDITIONS, type Condition, wordsOf } from '@/core/circuit/condition';
import type { Design } from '@/core/design/design';
import type { Unit } from '@/core/quantity/parse';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign, studySeen } from '@/core/study/study';
import { judge } from './judge';
import type { State, Verdict } from './verdict';

const MAINS = ['low', 'nominal', 'high'] as const;
const LOADS = ['none', 'lasting', 'full'] as const;
const AGES = ['new', 'aged'] as const;

/** One circumstance of the grid. */
export interface Cell {
  mains: (typeof MAINS)[number];
  load: (typeof LOADS)[number];
  /** New parts and cold copper, or the end of their life and warm copper. */
  age: (typeof AGES)[number];
}

export interface GridRow {
  id: string;
  title: string;
  unit: Unit;
  limit: number;
  relation: Verdict['relation'];
  /** Figure and share of the wanted margin in each cell; null where it has no meaning. */
  values: ({ value: number; left: number; state: State } | null)[];
  /** Index of the cell that decides. */
  worst: number;
}

/** A verdict of an event rather than of a lasting circumstance. */
export interface EventRow {
  id: string;
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

export const CELLS: readonly Cell[] = MAINS.flatMap((mains) =>
  LOADS.flatMap((load) => AGES.map((age): Cell => ({ mains, load, age }))),
);

/** A cell besides its input, in words: 'full load, aged and warm'. */
function cellState({ load, age }: Cell): string {
  const drawn = load === 'none' ? 'no load' : load === 'lasting' ? 'lasting load' : 'full load';
  return `${drawn}, ${age === 'new' ? 'new and cold' : 'aged and warm'}`;
}

/** A cell in words: 'low line, full load, aged and warm'. */
export function cellWords(design: Pick<Design, 'source'>, cell: Cell): string {
  return wordsOf(design, conditionOf(cell));
}

function conditionOf(cell: Cell): Condition {
  const { mains, load, age } = cell;
  const id = load === 'none' ? 'idle' : mains;
  return {
    ...CONDITIONS[id],
    state: cellState(cell),
    mains,
    load,
    copper: age === 'new' ? 'cold' : 'hot',
    capacitor: age,
  };
}

/** Rules about an event or about a chosen part, which no lasting circumstance changes. */
const EVENTS = new Set([
  'diode-surge',
  'surge-heating',
  'hold-up',
  'lost-load',
  'short-circuit',
  'choke-idle',
  'regulator-current',
  'minimum-load',
  'filter-resonance',
]);

/**
 * Every verdict in every circumstance: each cell of the grid is solved, and each rule looks at it as if there were no
 * other. Events keep the circumstances of their own.
 * @throws SolveError naming the cell that does not converge
 */
export function cornerGrid(design: Design): Grid {
  const base = studyDesign(design);
  const whole = judge(base);
  const lowest = base.lowest;
  const warm = base.nominal.solution.state;
  const judged = CELLS.map((cell) => {
    const point = operatingPoint(design, conditionOf(cell), warm);
    return new Map(
      judge(studySeen(base, (seen) => (seen.condition === 'shorted' ? seen : point))).map((v) => [v.id, v]),
    );
  });
  const rows: GridRow[] = [];
  const events: EventRow[] = [];
  for (const verdict of whole) {
    if (EVENTS.has(verdict.id)) {
      events.push({
        id: verdict.id,
        title: verdict.title,
        condition: verdict.figure.condition ?? '',
        sentence: verdict.sentence,
        state: verdict.state,
      });
      continue;
    }
    const values = judged.map((cell) => {
      const found = cell.get(verdict.id);
      return found ? { value: found.figure.value, left: found.left, state: found.state } : null;
    });
    let worst = 0;
    values.forEach((v, n) => {
      // Where circumstances tie, the harder one, which comes later, is named.
      if (v && (!values[worst] || v.left <= values[worst]!.left + 1e-9)) worst = n;
    });
    rows.push({
      id: verdict.id,
      title: verdict.title,
      unit: verdict.figure.unit,
      limit: verdict.limit,
      relation: verdict.relation,
      values,
      worst,
    });
  }
  if (lowest?.heat) {
    const junction = whole.find((v) => v.id === 'junction');
    if (junction && junction.figure.condition === wordsOf(design, 'lowest')) {
      events.unshift({
        id: 'junction',
        title: `${junction.title}, lowest output`,
        condition: junction.figure.condition,
        sentence: junction.sentence,
        state: junction.state,
      });
    }
  }
  return { cells: [...CELLS], rows, events };
}
