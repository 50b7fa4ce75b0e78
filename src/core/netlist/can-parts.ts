import { balanceOhmOf, canCount } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import { formatNominal } from '@/core/quantity/format';
import type { NetlistBuilder, Place } from './builder';

/** The reservoir's cans at one place: side by side, or pairs of two in series with a resistor across each. */
export function canParts(
  { reservoir }: Design,
  plus: string,
  minus: string,
  place: Place,
  b: NetlistBuilder,
  name: string,
): void {
  const can = (from: string, to: string) =>
    b.add(
      {
        kind: 'electrolytic',
        value: reservoir.capacitanceF > 0 ? formatNominal(reservoir.capacitanceF, 'F') : 'not chosen',
        rating: formatNominal(reservoir.ratedV, 'V'),
        what: 'reservoir',
        pins: { plus: from, minus: to },
        line: 'reservoir',
        si: reservoir.capacitanceF > 0 ? { value: reservoir.capacitanceF, unit: 'F' } : null,
      },
      place,
    );
  const balance = balanceOhmOf(reservoir);
  const pairs = Array.from(
    { length: reservoir.cans },
    (_, n) => `middle of ${name}${reservoir.cans > 1 ? `, ${n + 1}` : ''}`,
  );
  const paired = canCount(reservoir) > reservoir.cans;
  if (paired) for (const middle of pairs) b.net(middle, 'inside', place.rail, { alike: `middle of ${name}` });
  for (const middle of pairs) {
    if (!paired) can(plus, minus);
    else {
      can(plus, middle);
      can(middle, minus);
    }
  }
  if (balance === null) return;
  for (const middle of pairs)
    for (const [from, to] of [
      [plus, middle],
      [middle, minus],
    ] as const)
      b.add(
        {
          kind: 'resistor',
          value: formatNominal(balance, 'ohm'),
          what: 'keeps the cans’ shares alike',
          pins: { a: from, b: to },
          line: 'balance',
          si: { value: balance, unit: 'ohm' },
        },
        place,
      );
}
