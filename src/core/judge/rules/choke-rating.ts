import { wordsOf } from '@/core/circuit/condition';
import { placedParts } from '@/core/circuit/filter-of';
import type { Design, Edit } from '@/core/design/design';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { E12, stepInDecades } from '@/core/quantity/preferred';
import type { Rule } from '../verdict';

/** Each choke of a rail with what it carries, the hardest used first. */
export const chokeRating: Rule = {
  id: 'choke-rating',
  title: 'Choke current',
  station: 'before',
  find({ design, high }) {
    const used = placedParts(design).flatMap(({ part, side, at }) => {
      const carries = high.solution.elements[0]![at];
      return part.kind === 'choke' && carries
        ? [{ part, carries, station: side, share: carries.rmsA / part.ratedA }]
        : [];
    });
    const hardest = used.sort((a, b) => b.share - a.share)[0];
    if (!hardest) return null;
    const { part, carries, station } = hardest;
    return {
      station,
      figure: {
        id: 'choke-rating',
        label: 'RMS current in the choke',
        value: carries.rmsA,
        unit: 'A',
        origin: 'simulated',
        condition: wordsOf(design, 'high'),
        expression: 'root of the mean square over the cycle',
        inputs: [
          { label: 'mean', value: carries.meanA, unit: 'A', origin: 'simulated' },
          { label: 'highest', value: carries.maxA, unit: 'A', origin: 'simulated' },
          { label: 'volts across it, p-p', value: carries.peakToPeakV, unit: 'V', origin: 'simulated' },
        ],
        source: 'Periodic steady state.',
        assumes: ['Its insulation to ground has to stand the full volts of the rail, with a margin.'],
      },
      limit: part.ratedA,
      limitSource: 'Rated current of the choke, as entered.',
      relation: 'at most',
      wantedMargin: 0.1 * part.ratedA,
      sentence: `${formatQuantity(carries.rmsA, 'A')} RMS of ${formatNominal(part.ratedA, 'A')} rated.`,
      reason: 'Beyond its rating a choke runs hot and its core saturates: the inductance you count on is gone.',
    };
  },
  cures: (design) => strongerChoke(design),
};

function strongerChoke(design: Design): Edit[] {
  const stronger = (n: number) => {
    const lift = (list: Design['filter']['before']) =>
      list.map((s) => (s.kind === 'choke' ? { ...s, ratedA: stepInDecades(s.ratedA, E12, n) } : s));
    return { before: lift(design.filter.before), after: lift(design.filter.after) };
  };
  return [1, 3].map((n) => ({ label: `Choke ${n} ${n === 1 ? 'size' : 'sizes'} up`, patch: { filter: stronger(n) } }));
}
