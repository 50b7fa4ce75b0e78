import { reservoirPlace } from '@/core/circuit/filter-of';
import type { Design, FilterStep } from '@/core/design/design';
import { arrangementFacts } from '@/core/design/source';
import { formatNominal } from '@/core/quantity/format';
import type { NetlistBuilder } from './builder';
import { canParts } from './can-parts';
import { GROUND, RAW } from './netlist';

/** Where a rail's filter leads, and where its reservoir stands. */
export interface RailNets {
  reservoir: string;
  end: string;
}

/** The chain of one rail from the rectifier to what it feeds. */
export function filterParts(design: Design, rail: 0 | 1, b: NetlistBuilder): RailNets {
  const { before, after, bleederOhm } = design.filter;
  const { ownCans } = arrangementFacts(design);
  const place = { block: 'filter', rail } as const;
  let at: string = RAW[rail];
  let behind = 1;
  const across = (net: string) => (rail === 0 ? { plus: net, minus: GROUND } : { plus: GROUND, minus: net });
  const step = (part: FilterStep, line: string) => {
    if (part.kind === 'capacitor') {
      const { capacitanceF, ratedV } = part;
      b.add(
        {
          kind: capacitanceF >= 1e-6 ? 'electrolytic' : 'capacitor',
          value: formatNominal(capacitanceF, 'F'),
          rating: formatNominal(ratedV, 'V'),
          what: 'smooths',
          pins: across(at),
          line,
          si: { value: capacitanceF, unit: 'F' },
        },
        place,
      );
      return;
    }
    const next = b.net(`${RAW[rail]} ${++behind}`, 'rail', rail);
    const choke = part.kind === 'choke';
    b.add(
      {
        kind: choke ? 'choke' : 'resistor',
        value: choke ? formatNominal(part.inductanceH, 'H') : formatNominal(part.resistanceOhm, 'ohm'),
        rating: choke ? formatNominal(part.ratedA, 'A') : '',
        what: choke ? (part.swinging ? 'swinging choke' : 'choke') : 'filter resistor',
        pins: { a: at, b: next },
        line,
        si: choke ? { value: part.inductanceH, unit: 'H' } : { value: part.resistanceOhm, unit: 'ohm' },
      },
      place,
    );
    at = next;
  };
  if (!ownCans) before.forEach((part, n) => step(part, `before-${n}`));
  const reservoir = at;
  if (!ownCans && reservoirPlace(design) >= 0) {
    const nets = across(at);
    canParts(design, nets.plus, nets.minus, place, b, rail === 0 ? 'the reservoir' : 'the minus reservoir');
  }
  if (bleederOhm !== null)
    b.add(
      {
        kind: 'resistor',
        value: formatNominal(bleederOhm, 'ohm'),
        what: 'bleeder: empties the reservoir',
        pins: { a: at, b: GROUND },
        line: 'bleeder',
        si: { value: bleederOhm, unit: 'ohm' },
      },
      place,
    );
  after.forEach((part, n) => step(part, `after-${n}`));
  return { reservoir, end: at };
}
