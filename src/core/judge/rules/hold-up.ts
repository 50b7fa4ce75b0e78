import { bankF } from '@/core/design/bank';
import { dcSourceOf } from '@/core/design/source';
import { formatQuantity } from '@/core/quantity/format';
import { neededOf } from '@/core/study/output-point';
import { biggerReservoir, windingVolts } from '../cures';
import type { Rule } from '../rule';
import { computed, simulated, typical } from '@/core/picture/working';

/** Whether half a cycle of missing mains passes unnoticed. A caution: nobody promised it would. */
export const holdUp: Rule = {
  title: 'Half a cycle of mains missing',
  station: 'reservoir',
  scope: 'output',
  occasion: 'once',
  decides: [],
  find({ design, study, output, model }) {
    const needed = neededOf(study.design, output);
    if (needed === null || !model || dcSourceOf(design) || design.reservoir.capacitanceF <= 0) return null;
    // The run looks at the plus rail.
    if (output.rail !== 0) return null;
    const { minV, beforeMinV } = study.missed;
    const value = minV - needed;
    return {
      value,
      limit: 0,
      relation: 'at least',
      wanted: 0.5,
      caution: true,
      tell: () => ({
        figure: {
          id: 'hold-up',
          label: 'Left above what the regulator needs when half a cycle is missing',
          unit: 'V',
          origin: 'simulated',
          condition: 'nominal line, full load, half a cycle missing',
          expression: 'lowest regulator input of the dip − (output + dropout)',
          inputs: [
            simulated('lowest', minV, 'V'),
            simulated('valley before', beforeMinV, 'V'),
            computed('needed', needed, 'V'),
            typical('dropout', needed - model.outputV, 'V'),
          ],
          source: 'Transient with the mains gone for half a cycle from its zero crossing, back in phase.',
          assumes: [
            'A new can at its printed value.',
            'The charge school: a linear regulator takes in what it gives out.',
          ],
          estimate: {
            label: 'valley less I·t/C',
            value:
              beforeMinV -
              (study.nominal.rail.loadMeanA * 0.5) / design.mains.frequencyHz / bankF(design.reservoir) -
              needed,
            expression: 'valley − I/(2·f·C) − (output + dropout)',
          },
        },
        limitSource: 'Below zero the output sags while the mains is away.',
        sentence:
          value >= 0
            ? `The output holds with ${formatQuantity(value, 'V')} to spare.`
            : `The output sags: ${formatQuantity(-value, 'V')} short for a moment.`,
        reason: 'Half a cycle goes missing every few days on a country line; a clock or a logger may mind.',
      }),
    };
  },
  cures: (design) => [...biggerReservoir(design, [1, 2, 3, 4]), ...windingVolts(design, [1, 2])],
};
