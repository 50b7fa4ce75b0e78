import { arrangementFacts, hasDiodes } from '@/core/design/source';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import { LASTING, type Rule } from '../rule';
import { simulated } from '@/core/picture/working';

export const diodeAverage: Rule = {
  title: 'Diode mean current',
  station: 'rectifier',
  scope: 'supply',
  occasion: LASTING,
  decides: ['rectifier'],
  find({ study: { design }, at }) {
    if (!hasDiodes(design)) return null;
    const diode = diodeOf(design.rectifier);
    const meanA = Math.max(...at.solution.diodes.map((d) => d.meanA));
    return {
      value: meanA,
      limit: diode.averageA,
      relation: 'at most',
      wanted: 0.2 * diode.averageA,
      tell: () => {
        const share = arrangementFacts(design).diodeShare;
        const railA = Math.max(...at.rails.map((p) => p.rail.loadMeanA));
        return {
          figure: {
            id: 'diode-average',
            label: 'Mean current of one diode',
            unit: 'A',
            origin: 'simulated',
            expression: 'mean of the diode current over the cycle',
            inputs: [
              simulated('rail current', railA, 'A'),
              simulated('loss in one diode', Math.max(...at.solution.diodes.map((d) => d.meanW)), 'W'),
            ],
            source: 'Periodic steady state.',
            assumes: ['The rating holds with the leads or the case cooled as its data sheet asks.'],
            estimate: {
              label: share === 0.5 ? 'half the load current' : 'the load current',
              value: share * railA,
              expression: share === 0.5 ? 'I/2' : 'I',
            },
          },
          limitSource: `Mean forward current of the class: ${diode.name}.`,
          sentence: `${formatQuantity(meanA, 'A')} of ${formatNominal(diode.averageA, 'A')} each.`,
          reason: 'Mean current times about a volt is what the little body has to get rid of.',
        };
      },
    };
  },
  cures: (design) => otherDiodes(design),
};
