import type { Design } from '@/core/design/design';
import { TICK_MAX } from '@/core/design/how-many';
import type { BillLine } from '@/core/study/bill-sums';

/** A line of the bill when the parcel is opened. */
export interface KitLine {
  /** What it is known by from one count to the next. */
  line: string;
  references: string;
  what: string;
  wanted: number;
  /** Counted; null where nobody has counted it. */
  came: number | null;
  missing: number;
  over: number;
  /** What is asked about it; null where the count is right or not taken. */
  question: string | null;
}

const ORDINALS = ['', 'first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'];

/** The bill with what came of each line: what is missing, what is left over; and what was counted and is wanted no more. */
export function kitOf({ build }: Pick<Design, 'build'>, bill: readonly BillLine[]): KitLine[] {
  const counted = new Map(build.kit.map((k) => [k.line, k.came]));
  const lines = bill.map((b): KitLine => {
    const line = `${b.references} ${b.what}`.trim().slice(0, TICK_MAX);
    const came = counted.get(line) ?? null;
    const missing = came === null ? 0 : Math.max(0, b.count - came);
    const over = came === null ? 0 : Math.max(0, came - b.count);
    return {
      line,
      references: b.references,
      what: b.what,
      wanted: b.count,
      came,
      missing,
      over,
      question:
        missing > 0
          ? `${missing} missing`
          : over > 0
            ? `${ORDINALS[b.count + 1] ?? `number ${b.count + 1}`} ${b.what.split(',')[0]}: spare?`
            : null,
    };
  });
  const known = new Set(lines.map((l) => l.line));
  const unwanted = build.kit.filter((k) => !known.has(k.line) && k.came > 0);
  return [
    ...lines,
    ...unwanted.map(({ line, came }): KitLine => ({
      line,
      references: '',
      what: line,
      wanted: 0,
      came,
      missing: 0,
      over: came,
      question: 'counted, and no longer on the bill: spare?',
    })),
  ];
}
