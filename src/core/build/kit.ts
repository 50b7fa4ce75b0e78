import type { Design } from '@/core/design/design';
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

/** The bill with what came of each line: what is missing, what is left over. */
export function kitOf({ build }: Pick<Design, 'build'>, bill: readonly BillLine[]): KitLine[] {
  const counted = new Map(build.kit.map((k) => [k.line, k.came]));
  return bill.map((b) => {
    const line = `${b.references} ${b.what}`.trim().slice(0, 200);
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
}
