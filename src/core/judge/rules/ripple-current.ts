import { dcSourceOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { typicalRippleRating } from '@/core/parts/capacitor';
import { formatQuantity } from '@/core/quantity/format';
import { betterGrade, biggerReservoir, reservoirVolts } from '../cures';
import type { Rule } from '../verdict';

export const rippleCurrent: Rule = {
  id: 'ripple-current',
  title: 'Reservoir ripple current',
  station: 'reservoir',
  find({ design, high }) {
    const capacitor = high.can;
    if (!capacitor) return null;
    const { capacitanceF, ratedV, rippleA } = design.reservoir;
    const { cans } = design.reservoir;
    const rating = cans * (rippleA ?? typicalRippleRating(capacitanceF, ratedV));
    return {
      figure: {
        id: 'ripple-current',
        label: 'Ripple current in the reservoir',
        value: capacitor.rmsA,
        unit: 'A',
        origin: 'simulated',
        condition: wordsOf(design, 'high'),
        expression: 'RMS of (rectifier current − load current) over the cycle',
        inputs: [
          { label: 'load current', value: high.rail.loadMeanA, unit: 'A', origin: 'simulated' },
          {
            label: 'rectifier current, RMS',
            value: Math.sqrt(capacitor.rmsA ** 2 + high.rail.loadMeanA ** 2),
            unit: 'A',
            origin: 'simulated',
          },
        ],
        source: 'Periodic steady state.',
        assumes: [
          'A new can at its printed value.',
          'All harmonics counted as if at 100/120 Hz, where the rating holds; higher ones heat a little less.',
        ],
        ...(dcSourceOf(design)
          ? {}
          : {
              estimate: {
                label: '1.4 times the load current',
                value: 1.4 * high.rail.loadMeanA,
                expression: '1.2 to 1.6 times the direct current',
              },
            }),
      },
      limit: rating,
      limitSource:
        rippleA === null
          ? 'Typical 100/120 Hz rating for a general-purpose can of this size (±25 %).'
          : 'Ripple rating as entered.',
      relation: 'at most',
      wantedMargin: 0.1 * rating,
      sentence: `${formatQuantity(capacitor.rmsA, 'A')} RMS of ${formatQuantity(rating, 'A')} allowed.`,
      reason: 'Ripple current heats the can from inside; ten kelvin more halve its life.',
    };
  },
  cures: (design) => [...betterGrade(design), ...biggerReservoir(design, [1, 2, 3]), ...reservoirVolts(design, [1, 2])],
};
