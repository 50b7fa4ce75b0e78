import type { Netlist } from '@/core/netlist/netlist';
import { referencesIn } from '@/core/netlist/references';
import type { BillLine } from '@/core/study/bill-sums';

/** Watts resistors are sold for. */
const SOLD_W = [0.25, 0.5, 1, 2, 3, 5, 7, 10, 15, 25, 50, 100] as const;

/** The watts a resistor is bought for: the next sold that is twice its loss, so that it stays cool enough to touch the board. */
export const soldFor = (lossW: number): number => SOLD_W.find((w) => w >= 2 * lossW) ?? Math.ceil(2 * lossW);

/** What single resistors are to be bought for, in words, by their reference: those whose watts somebody knows. */
export function resistorRatings(
  { parts }: Pick<Netlist, 'parts'>,
  bill: readonly Pick<BillLine, 'references' | 'lossW'>[],
): Map<string, string> {
  const resistors = new Set(parts.filter((p) => p.kind === 'resistor').map((p) => p.ref));
  return new Map(
    bill.flatMap(({ references, lossW }) =>
      lossW === null
        ? []
        : referencesIn(references)
            .filter((ref) => resistors.has(ref))
            .map((ref) => [ref, `${soldFor(lossW)} W`] as const),
    ),
  );
}
