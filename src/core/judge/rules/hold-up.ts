import { dcSourceOf } from '@/core/design/source';
import { bankF } from '@/core/design/bank';
import { regulatorModel } from '@/core/parts/regulators';
import { formatQuantity } from '@/core/quantity/format';
import { neededV } from '@/core/study/operating-point';
import { biggerReservoir, windingVolts } from '../cures';
import type { Rule } from '../verdict';

/** Whether half a cycle of missing mains passes unnoticed. A caution: nobody promised it would. */
export const holdUp: Rule = {
  id: 'hold-up',
  title: 'Half a cycle of mains missing',
  station: 'reservoir',
  advisory: true,
  find(study) {
    const { design } = study;
    const needed = neededV(design);
    const model = regulatorModel(design.regulator);
    if (needed === null || !model || dcSourceOf(design) || design.reservoir.capacitanceF <= 0) return null;
    const { minV, beforeMinV } = study.missed;
    const value = minV - needed;
    const charge =
      beforeMinV - (study.nominal.rail.loadMeanA * 0.5) / design.mains.frequencyHz / bankF(design.reservoir);
    return {
      figure: {
        id: 'hold-up',
        label: 'Left above what the regulator needs when half a cycle is missing',
        value,
        unit: 'V',
        origin: 'simulated',
        condition: 'nominal line, full load, half a cycle missing',
        expression: 'lowest regulator input of the dip − (output + dropout)',
        inputs: [
          { label: 'lowest', value: minV, unit: 'V', origin: 'simulated' },
          { label: 'valley before', value: beforeMinV, unit: 'V', origin: 'simulated' },
          { label: 'needed', value: needed, unit: 'V', origin: 'formula' },
          {
            label: 'dropout',
            value: needed - model.outputV,
            unit: 'V',
            origin: 'typical',
          },
        ],
        source: 'Transient with the mains gone for half a cycle from its zero crossing, back in phase.',
        assumes: [
          'A new can at its printed value.',
          'The charge school: a linear regulator takes in what it gives out.',
        ],
        estimate: {
          label: 'valley less I·t/C',
          value: charge - needed,
          expression: 'valley − I/(2·f·C) − (output + dropout)',
        },
      },
      limit: 0,
      limitSource: 'Below zero the output sags while the mains is away.',
      relation: 'at least',
      wantedMargin: 0.5,
      sentence:
        value >= 0
          ? `The output holds with ${formatQuantity(value, 'V', 2)} to spare.`
          : `The output sags: ${formatQuantity(-value, 'V', 2)} short for a moment.`,
      reason: 'Half a cycle goes missing every few days on a country line; a clock or a logger may mind.',
    };
  },
  cures: (design) => [...biggerReservoir(design, [1, 2, 3, 4]), ...windingVolts(design, [1, 2])],
};
