import { dcSourceOf } from '@/core/design/source';
import { sourceLimitA } from '@/core/parts/dc-source';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import type { Rule } from '../rule';
import { simulated } from '@/core/picture/working';

/** What is drawn from an adapter against what its plate, or its own limit, allows. */
export const sourceCurrent: Rule = {
  title: 'Current of the adapter',
  station: 'mains',
  scope: 'supply',
  occasion: (c) => c.load !== 'none' && c.output !== 'shorted',
  decides: ['transformer'],
  find({ study: { design }, at }) {
    const dc = dcSourceOf(design);
    const limit = dc && sourceLimitA(dc);
    if (!dc || dc.kind !== 'adapter' || !limit) return null;
    const value = at.solution.windings[0]!.rmsA;
    return {
      value,
      limit,
      relation: 'at most',
      wanted: 0.15 * limit,
      tell: () => ({
        figure: {
          id: 'source-current',
          label: 'Current drawn from the adapter',
          unit: 'A',
          origin: 'simulated',
          expression: 'root of the mean square of the current in its lead',
          inputs: [simulated('load current', at.rail.loadMeanA, 'A')],
          source: 'Periodic steady state.',
          assumes:
            dc.limitA === null
              ? []
              : ['It cuts off sharply there; the start into an empty reservoir rides on its limit.'],
        },
        limitSource:
          dc.limitA === null
            ? `Its plate: ${formatNominal(dc.ratedV, 'V')} at ${formatNominal(dc.ratedA, 'A')}.`
            : `Where it cuts off, ${formatNominal(dc.limitA, 'A')}.`,
        sentence: `${formatQuantity(value, 'A')} of the ${formatNominal(limit, 'A')} it gives.`,
        reason:
          dc.limitA === null
            ? 'A small adapter has no fuse but its own heat, and its volts sag with every ampere over its plate.'
            : 'Beyond its limit a regulated adapter switches off or hiccups: the supply then comes and goes.',
      }),
    };
  },
  cures: (design) => {
    const dc = dcSourceOf(design);
    if (dc?.kind !== 'adapter') return [];
    return [1.5, 2, 3].map((times) => {
      const ratedA = Number((dc.ratedA * times).toPrecision(2));
      return {
        label: `Adapter for ${formatNominal(ratedA, 'A')}`,
        patch: { source: { ...dc, ratedA, limitA: dc.limitA === null ? null : Number((1.2 * ratedA).toPrecision(2)) } },
      };
    });
  },
};
