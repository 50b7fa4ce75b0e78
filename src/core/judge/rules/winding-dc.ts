import { modelOf } from '@/core/circuit/feed';
import type { Edit } from '@/core/design/design';
import { arrangementFacts } from '@/core/design/source';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { balancedKinds, transformerSize } from '../cures';
import { FULL, type Rule } from '../rule';
import { computed, simulated } from '@/core/picture/working';

/** Share of the rated RMS current that may flow as direct current before a core is biased noticeably. */
const ALLOWED = 0.05;

/** What the half waves do not balance stays in the core as direct ampere-turns. */
export const windingDc: Rule = {
  title: 'Direct current in the core',
  station: 'winding',
  scope: 'supply',
  occasion: FULL,
  decides: [],
  find({ study: { design }, at }) {
    const { bias } = arrangementFacts(design);
    if (bias.every((b) => b === 0)) return null;
    const value = Math.abs(at.solution.primary.meanA);
    const { ratedA } = modelOf(design);
    const limit = ALLOWED * ratedA;
    return {
      value,
      limit,
      relation: 'at most',
      wanted: 0.3 * limit,
      tell: () => {
        const amps = at.rails.map((p) => p.rail.loadMeanA);
        return {
          figure: {
            id: 'winding-dc',
            label: 'Mean of all winding currents together',
            unit: 'A',
            origin: 'simulated',
            expression: 'mean of the ampere-turns over the cycle, as a current in the winding',
            inputs: [
              ...amps.map((a, r) =>
                simulated(amps.length > 1 ? (r === 0 ? 'plus rail' : 'minus rail') : 'rail', a, 'A'),
              ),
              computed('rated current', ratedA, 'A'),
            ],
            source: 'Periodic steady state.',
            assumes: ['No gap in the core; a toroid is upset by far less.'],
            estimate: {
              label: 'by the balance of charge',
              value: Math.abs(bias.reduce((sum, b, r) => sum + b * amps[r]!, 0)),
              expression: bias.length > 1 ? 'I(+) − I(−)' : 'I',
            },
          },
          limitSource: `A few per cent of the rated RMS current; ${formatNominal(100 * ALLOWED, '%')} of ${formatNominal(Number(ratedA.toPrecision(3)), 'A')} taken.`,
          sentence: `${formatQuantity(value, 'A')} direct current in the core, ${formatQuantity(limit, 'A')} put up with.`,
          reason: 'It pushes the core towards saturation on one side: more magnetising current, more hum, more heat.',
        };
      },
    };
  },
  cures: (design): Edit[] => [...balancedKinds(design), ...transformerSize(design, [2, 4])],
};
