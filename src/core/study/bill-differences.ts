import { billSums, type BillLine } from './bill-sums';

/** A line that two bills do not share, or not alike. */
export interface BillDifference {
  what: string;
  /** How many, and what all of them cost, EUR; 0 where the bill has none. */
  before: { count: number; eur: number };
  after: { count: number; eur: number };
}

export interface BillsCompared {
  lines: BillDifference[];
  beforeEur: number;
  afterEur: number;
}

/** What one bill has that another has not, or has more of: by what a part is, wherever on the drawing it stands. */
export function billDifferences(before: readonly BillLine[], after: readonly BillLine[]): BillsCompared {
  const sums = (lines: readonly BillLine[]) => {
    const by = new Map<string, { count: number; eur: number }>();
    for (const { what, count, priceEachEur } of lines) {
      const old = by.get(what) ?? { count: 0, eur: 0 };
      by.set(what, { count: old.count + count, eur: old.eur + count * priceEachEur });
    }
    return by;
  };
  const [was, is] = [sums(before), sums(after)];
  const none = { count: 0, eur: 0 };
  const names = [...new Set([...was.keys(), ...is.keys()])];
  return {
    lines: names
      .map((what) => ({ what, before: was.get(what) ?? none, after: is.get(what) ?? none }))
      .filter((l) => l.before.count !== l.after.count),
    beforeEur: billSums(before).allEur,
    afterEur: billSums(after).allEur,
  };
}
