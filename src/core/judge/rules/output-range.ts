import type { Edit } from '@/core/design/design';
import { rangeEdit } from '@/core/design/regulator-edit';
import { regulatorModel } from '@/core/parts/regulators';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import type { Rule } from '../rule';
import { chosen, computed } from '@/core/picture/working';

/** Whether knob and divider reach what is wanted of an output that can be set. */
export const outputRange: Rule = {
  title: 'Range of the output',
  station: 'regulator',
  scope: 'output',
  occasion: 'once',
  decides: ['regulator'],
  find({ output }) {
    const { range } = output.demand;
    const made = regulatorModel(output.regulator);
    if (!range || !made) return null;
    const short = Math.max(made.lowestV - range.lowV, range.highV - made.outputV);
    const top = range.highV - made.outputV >= made.lowestV - range.lowV;
    return {
      value: Math.max(0, short),
      limit: 0.02 * range.highV,
      relation: 'at most',
      wanted: 0.02 * range.highV,
      tell: () => ({
        figure: {
          id: 'output-range',
          label: 'Volts wanted that its divider does not reach',
          unit: 'V',
          origin: 'formula',
          expression: 'larger of (lowest it reaches − lowest wanted) and (highest wanted − highest it reaches)',
          inputs: [
            chosen('wanted from', range.lowV, 'V'),
            chosen('to', range.highV, 'V'),
            computed('it reaches from', made.lowestV, 'V'),
            computed('to', made.outputV, 'V'),
          ],
          source: 'Arithmetic of its setting resistors.',
          assumes: ['Resistors and pot at their printed values; a pot may be a fifth off.'],
        },
        limitSource: 'What you want it to be set between; 2 % of the top are let pass.',
        sentence:
          short <= 0
            ? `Reaches ${formatQuantity(made.lowestV, 'V')} to ${formatQuantity(made.outputV, 'V')}.`
            : `${top ? `Ends at ${formatQuantity(made.outputV, 'V')}` : `Begins at ${formatQuantity(made.lowestV, 'V')}`} where ${formatNominal(top ? range.highV : range.lowV, 'V')} is wanted.`,
        reason: 'A knob that ends early is found out when the box is closed.',
      }),
    };
  },
  cures: (design): Edit[] => rangeEdit(design),
};
