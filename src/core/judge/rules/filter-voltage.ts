import { termsOf } from '@/core/design/source';
import { openVoltsOf } from '@/core/study/open-volts';
import { wordsOf } from '@/core/circuit/condition';
import { placedParts } from '@/core/circuit/filter-of';
import type { Design, Edit } from '@/core/design/design';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { CAPACITOR_VOLTS, stepInList } from '@/core/quantity/preferred';
import type { OperatingPoint } from '@/core/study/operating-point';
import type { Rule } from '../verdict';

/** Filter capacitors beside the reservoir, each against its own rating, the closest first. */
export const filterVoltage: Rule = {
  id: 'filter-voltage',
  title: 'Filter capacitors, idle',
  station: 'after',
  find({ design, idle }) {
    const closest = capacitors(design, idle).sort((a, b) => b.maxV / b.ratedV - a.maxV / a.ratedV)[0];
    if (!closest) return null;
    const { maxV, ratedV, station } = closest;
    return {
      station,
      figure: {
        id: 'filter-voltage',
        label: 'Highest voltage across a filter capacitor',
        value: maxV,
        unit: 'V',
        origin: 'simulated',
        condition: wordsOf(design, 'idle'),
        expression: 'highest voltage of the cycle across it, output unloaded',
        inputs: [openVoltsOf(idle, termsOf(design).winding)],
        source: 'Periodic steady state.',
        assumes: [
          'No mains spikes.',
          'A small first capacitor carries nearly all the ripple: a film type, judged by its AC rating too.',
        ],
      },
      limit: ratedV,
      limitSource: 'Rated voltage as entered; 15 % kept in hand.',
      relation: 'at most',
      wantedMargin: 0.15 * ratedV,
      sentence: `${formatQuantity(maxV, 'V')} on a ${formatNominal(ratedV, 'V')} capacitor.`,
      reason: 'Without load every capacitor of a filter charges to the peak, however low it stands in use.',
    };
  },
  cures: (design) => higherRated(design),
};

/** The capacitors of the positive rail's filter with the highest voltage across each. */
function capacitors(
  design: Design,
  point: OperatingPoint,
): { maxV: number; ratedV: number; station: 'before' | 'after' }[] {
  return placedParts(design).flatMap(({ part, side, at }) => {
    const found = point.solution.elements[0]![at];
    return part.kind === 'capacitor' && found ? [{ maxV: found.maxV, ratedV: part.ratedV, station: side }] : [];
  });
}

function higherRated(design: Design): Edit[] {
  return [1, 2, 4].map((n) => {
    const lift = (list: Design['filter']['before']) =>
      list.map((s) => (s.kind === 'capacitor' ? { ...s, ratedV: stepInList(s.ratedV, CAPACITOR_VOLTS, n) } : s));
    return {
      label: `Filter capacitors ${n === 1 ? 'a step' : `${n} steps`} up in volts`,
      patch: { filter: { before: lift(design.filter.before), after: lift(design.filter.after) } },
    };
  });
}
