import { placedParts } from '@/core/circuit/filter-of';
import type { Design, Edit } from '@/core/design/design';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { E12, stepInDecades } from '@/core/quantity/preferred';
import { LASTING, type Rule } from '../rule';
import { simulated } from '@/core/picture/working';

/** Each choke of a rail with what it carries, the hardest used first. */
export const chokeRating: Rule = {
  title: 'Choke current',
  station: 'before',
  scope: 'rail',
  occasion: LASTING,
  decides: ['choke'],
  find({ design, at, output }) {
    const hardest = placedParts(design)
      .flatMap(({ part, side, at: place }) => {
        const carries = at.solution.elements[output.rail]![place];
        return part.kind === 'choke' && carries
          ? [{ part, carries, station: side, share: carries.rmsA / part.ratedA }]
          : [];
      })
      .sort((a, b) => b.share - a.share)[0];
    if (!hardest) return null;
    const { part, carries, station } = hardest;
    return {
      value: carries.rmsA,
      limit: part.ratedA,
      relation: 'at most',
      wanted: 0.1 * part.ratedA,
      tell: () => ({
        station,
        figure: {
          id: 'choke-rating',
          label: 'RMS current in the choke',
          unit: 'A',
          origin: 'simulated',
          expression: 'root of the mean square over the cycle',
          inputs: [
            simulated('mean', carries.meanA, 'A'),
            simulated('highest', carries.maxA, 'A'),
            simulated('volts across it, p-p', carries.peakToPeakV, 'V'),
          ],
          source: 'Periodic steady state.',
          assumes: ['Its insulation to ground has to stand the full volts of the rail, with a margin.'],
        },
        limitSource: 'Rated current of the choke, as entered.',
        sentence: `${formatQuantity(carries.rmsA, 'A')} RMS of ${formatNominal(part.ratedA, 'A')} rated.`,
        reason: 'Beyond its rating a choke runs hot and its core saturates: the inductance you count on is gone.',
      }),
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
