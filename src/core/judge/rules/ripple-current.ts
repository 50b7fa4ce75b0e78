import { dcSourceOf } from '@/core/design/source';
import { typicalRippleRating } from '@/core/parts/capacitor';
import { formatQuantity } from '@/core/quantity/format';
import { betterGrade, biggerReservoir, reservoirVolts } from '../cures';
import { LASTING, type Rule } from '../rule';
import { simulated } from '@/core/picture/working';

export const rippleCurrent: Rule = {
  title: 'Reservoir ripple current',
  station: 'reservoir',
  scope: 'rail',
  occasion: LASTING,
  decides: ['reservoir'],
  early: 3,
  find({ design, at }) {
    if (!at.can) return null;
    const value = at.can.rmsA;
    const { capacitanceF, ratedV, rippleA, cans } = design.reservoir;
    const limit = cans * (rippleA ?? typicalRippleRating(capacitanceF, ratedV));
    return {
      value,
      limit,
      relation: 'at most',
      wanted: 0.1 * limit,
      tell: () => ({
        figure: {
          id: 'ripple-current',
          label: 'Ripple current in the reservoir',
          unit: 'A',
          origin: 'simulated',
          expression: 'RMS of (rectifier current − load current) over the cycle',
          inputs: [
            simulated('load current', at.rail.loadMeanA, 'A'),
            simulated('rectifier current, RMS', Math.hypot(value, at.rail.loadMeanA), 'A'),
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
                  value: 1.4 * at.rail.loadMeanA,
                  expression: '1.2 to 1.6 times the direct current',
                },
              }),
        },
        limitSource:
          rippleA === null
            ? 'Typical 100/120 Hz rating for a general-purpose can of this size (±25 %).'
            : 'Ripple rating as entered.',
        sentence: `${formatQuantity(value, 'A')} RMS of ${formatQuantity(limit, 'A')} allowed.`,
        reason: 'Ripple current heats the can from inside; ten kelvin more halve its life.',
      }),
    };
  },
  cures: (design) => [...betterGrade(design), ...biggerReservoir(design, [1, 2, 3]), ...reservoirVolts(design, [1, 2])],
};
