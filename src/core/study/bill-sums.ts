import type { Figure } from './figure';
import type { PartRole } from '@/core/design/kinds';

/** One line of the bill of materials. */
export interface BillLine {
  /** References on the drawing: T1, D1-D4, C1. */
  references: string;
  what: string;
  count: number;
  /** What it has to bear, and what the part chosen bears. */
  needed: string;
  /** The figures those words are made of, with their workings; none where only words are said. */
  bears: readonly Figure[];
  had: string;
  /** Watts one of it makes, where those alone say what to buy; null elsewhere. */
  lossW: number | null;
  /** What a part of the drawer is taken as to stand here; null where none is. */
  role: PartRole | null;
  /** The part from the drawer, when one was taken and its values still stand. */
  fromDrawer: string | null;
  priceEachEur: number;
  /** Whether the price is a rule of thumb. */
  typicalPrice: boolean;
}

/** What has to be paid for the lines that do not come out of the drawer, and what all of it is worth. */
export function billSums(lines: readonly BillLine[]): { toBuyEur: number; allEur: number } {
  const sum = (list: readonly BillLine[]) => list.reduce((total, l) => total + l.count * l.priceEachEur, 0);
  return { toBuyEur: sum(lines.filter((l) => l.fromDrawer === null)), allEur: sum(lines) };
}
