import type { Design } from '@/core/design/design';
import type { BillLine } from '@/core/study/bill-sums';
import { kitOf } from './kit';

/** A design with its bill, as something to order for. */
export interface ToBuild {
  design: Pick<Design, 'name' | 'build' | 'picked'>;
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
 * What has to be ordered for one design or several together: what they want, less what the drawer has of the parts taken from
 * it, less what came in the parcel; spares where something has to be bought anyway.
 * @param inDrawer how many of a part the drawer has, by its id; a part two designs take is counted once
 */
export function orderOf(
  builds: readonly ToBuild[],
  inDrawer: ReadonlyMap<string, number>,
  spares: boolean,
): OrderLine[] {
  const stock = new Map(inDrawer);
  const lines = new Map<string, OrderLine>();
  for (const { design, bill } of builds) {
    const kit = kitOf(design, bill);
    bill.forEach((b, n) => {
      // What is taken from the drawer is that very part: no other is ordered in its place, only what it lacks.
      const key = b.fromDrawer === null ? `${b.what} | ${b.had}` : `drawer ${b.fromDrawer}`;
      const old = lines.get(key);
      const part = b.fromDrawer === null ? undefined : design.picked.find((p) => p.name === b.fromDrawer);
      const came = Math.min(b.count, kit[n]!.came ?? 0);
      const has = part ? (stock.get(part.partId) ?? 0) : 0;
      const taken = Math.min(has, b.count - came);
      if (part) stock.set(part.partId, has - taken);
      lines.set(key, {
        what: b.fromDrawer ?? b.what,
        had: b.had,
        wanted: [...(old?.wanted ?? []), { design: design.name, references: b.references, count: b.count }],
        count: (old?.count ?? 0) + b.count,
        fromDrawer: (old?.fromDrawer ?? 0) + taken,
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
