import { placedParts } from '@/core/circuit/filter-of';
import type { Design, Edit } from '@/core/design/design';
import { termsOf } from '@/core/design/source';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { CAPACITOR_VOLTS, stepInList } from '@/core/quantity/preferred';
import { openVoltsOf } from '@/core/study/open-volts';
import { UNLOADED, type Rule } from '../rule';

/** Filter capacitors beside the reservoir, each against its own rating, the closest first. */
export const filterVoltage: Rule = {
  title: 'Filter capacitors, idle',
  station: 'after',
  scope: 'rail',
  occasion: UNLOADED,
  decides: [],
  find({ design, at, output }) {
    const closest = placedParts(design)
      .flatMap(({ part, side, at: place }) => {
        const found = at.solution.elements[output.rail]![place];
        return part.kind === 'capacitor' && found ? [{ maxV: found.maxV, ratedV: part.ratedV, station: side }] : [];
      })
      .sort((a, b) => b.maxV / b.ratedV - a.maxV / a.ratedV)[0];
    if (!closest) return null;
    const { maxV, ratedV, station } = closest;
    return {
      value: maxV,
      limit: ratedV,
      relation: 'at most',
      wanted: 0.15 * ratedV,
      tell: () => ({
        station,
        figure: {
          id: 'filter-voltage',
          label: 'Highest voltage across a filter capacitor',
          unit: 'V',
          origin: 'simulated',
          expression: 'highest voltage of the cycle across it, output unloaded',
          inputs: [openVoltsOf(at, termsOf(design).winding)],
          source: 'Periodic steady state.',
          assumes: [
            'No mains spikes.',
            'A small first capacitor carries nearly all the ripple: a film type, judged by its AC rating too.',
          ],
        },
        limitSource: 'Rated voltage as entered; 15 % kept in hand.',
        sentence: `${formatQuantity(maxV, 'V')} on a ${formatNominal(ratedV, 'V')} capacitor.`,
        reason: 'Without load every capacitor of a filter charges to the peak, however low it stands in use.',
      }),
    };
  },
  cures: (design) => higherRated(design),
};

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
