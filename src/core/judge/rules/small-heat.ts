import type { Edit } from '@/core/design/design';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { seriesResistors, windingVolts, zenerWatts } from '../cures';
import type { Rule } from '../rule';
import { simulated } from '@/core/picture/working';

/** Zeners, drivers and error transistors: small parts that burn, each against what it bears. */
export const smallHeat: Rule = {
  title: 'Small parts of the regulator',
  station: 'regulator',
  scope: 'output',
  occasion: (c) => c.output !== 'shorted',
  decides: ['regulator'],
  find({ at }) {
    const judged = at.small.filter((s) => s.bearsW !== null);
    const worst = judged.reduce((a, b) => (b.watts / b.bearsW! > a.watts / a.bearsW! ? b : a), judged[0]!);
    if (!worst) return null;
    return {
      value: worst.watts,
      limit: worst.bearsW!,
      relation: 'at most',
      wanted: 0.3 * worst.bearsW!,
      tell: () => ({
        title: `${worst.label[0]!.toUpperCase()}${worst.label.slice(1)} of the regulator`,
        figure: {
          id: 'small-heat',
          label: `Watts in the ${worst.label}`,
          unit: 'W',
          origin: 'simulated',
          expression: 'mean of its volts × its current over the cycle',
          inputs: at.small.map((s) => simulated(s.label, s.watts, 'W')),
          source: 'Periodic steady state; its current by the volts across its resistor, less what the base takes.',
          assumes: ['In free air on its leads; a third is kept in hand.'],
        },
        limitSource: `The ${worst.label} bears ${formatNominal(worst.bearsW!, 'W')} for long.`,
        sentence: `${formatQuantity(worst.watts, 'W')} in the ${worst.label} of ${formatNominal(worst.bearsW!, 'W')}.`,
        reason: 'It is hottest where the load takes least of its current, and nobody looks at it.',
      }),
    };
  },
  cures: (design): Edit[] => [...zenerWatts(design), ...seriesResistors(design), ...windingVolts(design, [-1, -2])],
};
