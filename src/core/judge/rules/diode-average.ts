import { arrangementKind, hasDiodes } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import type { Rule } from '../verdict';

export const diodeAverage: Rule = {
  id: 'diode-average',
  title: 'Diode mean current',
  station: 'rectifier',
  find({ design, high }) {
    if (!hasDiodes(design)) return null;
    const fullWave = ['centre-tap', 'bridge', 'split-bridge', 'two-bridges'].includes(arrangementKind(design));
    const diode = diodeOf(design.rectifier);
    const meanA = Math.max(...high.solution.diodes.map((d) => d.meanA));
    return {
      figure: {
        id: 'diode-average',
        label: 'Mean current of one diode',
        value: meanA,
        unit: 'A',
        origin: 'simulated',
        condition: wordsOf(design, 'high'),
        expression: 'mean of the diode current over the cycle',
        inputs: [
          { label: 'load current', value: high.rail.loadMeanA, unit: 'A', origin: 'simulated' },
          {
            label: 'loss in one diode',
            value: Math.max(...high.solution.diodes.map((d) => d.meanW)),
            unit: 'W',
            origin: 'simulated',
          },
        ],
        source: 'Periodic steady state.',
        assumes: ['The rating holds with the leads or the case cooled as its data sheet asks.'],
        estimate: {
          label: fullWave ? 'half the load current' : 'the load current',
          value: high.rail.loadMeanA / (fullWave ? 2 : 1),
          expression: fullWave ? 'I/2' : 'I',
        },
      },
      limit: diode.averageA,
      limitSource: `Mean forward current of the class: ${diode.name}.`,
      relation: 'at most',
      wantedMargin: 0.2 * diode.averageA,
      sentence: `${formatQuantity(meanA, 'A')} of ${formatNominal(diode.averageA, 'A')} each.`,
      reason: 'Mean current times about a volt is what the little body has to get rid of.',
    };
  },
  cures: (design) => otherDiodes(design),
};
