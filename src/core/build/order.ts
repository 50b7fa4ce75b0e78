import type { Design } from '@/core/design/design';
import type { BillLine } from '@/core/study/bill-sums';
import { isAlready } from '@/core/drawer/fit';
import type { Part } from '@/core/drawer/part';
import { kitOf } from './kit';

/** A design with its bill, as something to order for. */
export interface ToBuild {
  design: Design;
  bill: readonly BillLine[];
}

/** One line of an order: what several designs want of one part. */
export interface OrderLine {
  what: string;
  /** What the part bears. */
  had: string;
  /** Which designs want how many, and where they stand in them. */
  wanted: readonly { design: string; references: string; count: number }[];
  count: number;
  /** Of those, how many the drawer has, and how many came already. */
  fromDrawer: number;
  came: number;
  spares: number;
  order: number;
  priceEachEur: number;
  typicalPrice: boolean;
}

/** Parts this cheap are ordered a fifth over, and no less than two, EUR; up to the next price, one over. Rules of thumb. */
const SMALL_EUR = 0.3;
const MIDDLE_EUR = 3;
const SPARE_SHARE = 0.2;
const LEAST_SPARES = 2;

/** How many of a part are bought over: what is cheap is lost, burnt and measured to death. Rule of thumb. */
export function sparesFor(count: number, priceEachEur: number): number {
  if (count === 0) return 0;
  if (priceEachEur < SMALL_EUR) return Math.max(LEAST_SPARES, Math.ceil(SPARE_SHARE * count));
  return priceEachEur < MIDDLE_EUR ? 1 : 0;
}

/**
 * What has to be ordered for one design or several together: what they want, less what the drawer has of just that, less what
 * came in the parcel; spares where something has to be bought anyway. What the drawer has is given out once.
 */
export function orderOf(builds: readonly ToBuild[], drawer: readonly Part[], spares: boolean): OrderLine[] {
  const stock = new Map(drawer.map((p) => [p.id, p.count]));
  const lines = new Map<string, OrderLine>();
  for (const { design, bill } of builds) {
    const kit = kitOf(design, bill);
    bill.forEach((b, n) => {
      // What is taken from the drawer is that very part: no other is ordered in its place, only what it lacks.
      const key = b.fromDrawer === null ? `${b.what} | ${b.had}` : `drawer ${b.fromDrawer}`;
      const old = lines.get(key);
      const came = Math.min(b.count, kit[n]!.came ?? 0);
      let lacks = b.count - came;
      for (const id of idsFor(design, b, drawer)) {
        const taken = Math.min(stock.get(id) ?? 0, lacks);
        stock.set(id, (stock.get(id) ?? 0) - taken);
        lacks -= taken;
      }
      lines.set(key, {
        what: b.fromDrawer ?? b.what,
        had: b.had,
        wanted: [...(old?.wanted ?? []), { design: design.name, references: b.references, count: b.count }],
        count: (old?.count ?? 0) + b.count,
        fromDrawer: (old?.fromDrawer ?? 0) + b.count - came - lacks,
        came: (old?.came ?? 0) + came,
        spares: 0,
        order: 0,
        priceEachEur: b.priceEachEur,
        typicalPrice: b.typicalPrice,
      });
    });
  }
  return [...lines.values()].map((l) => {
    const lacking = l.count - l.fromDrawer - l.came;
    const over = spares ? sparesFor(lacking, l.priceEachEur) : 0;
    return { ...l, spares: over, order: lacking + over };
  });
}

/** What an order comes to, EUR. */
export const orderEur = (lines: readonly OrderLine[]): number =>
  lines.reduce((sum, l) => sum + l.order * l.priceEachEur, 0);

/** Which parts of the drawer stand for a line of the bill: the one that was taken, or those it would change nothing to take. */
function idsFor(design: Design, { role, fromDrawer }: BillLine, drawer: readonly Part[]): string[] {
  if (fromDrawer !== null) return design.picked.filter((p) => p.name === fromDrawer).map((p) => p.partId);
  if (role === null) return [];
  return drawer.filter((p) => p.count > 0 && isAlready(p, design, role)).map((p) => p.id);
}
