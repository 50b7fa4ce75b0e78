import { termsOf } from '@/core/design/source';
import { openVoltsOf } from '@/core/study/open-volts';
import { wordsOf } from '@/core/circuit/condition';
import { regulatorModel } from '@/core/parts/regulators';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { transformerSize, windingVolts } from '../cures';
import type { Rule } from '../verdict';

export const regulatorInput: Rule = {
  id: 'regulator-input',
  title: 'Regulator input, idle',
  station: 'regulator',
  find({ design, idle }) {
    const model = regulatorModel(design.regulator);
    if (!model) return null;
    const say = termsOf(design);
    const ahead = aheadModel(design.preRegulator);
    // Behind a pre-regulator the part sees what that holds; the raw rail stands at the first of the two.
    const behind = ahead && idle.ahead ? Math.min(idle.ahead.holdsV, idle.rail.maxV) : idle.rail.maxV;
    const first = ahead && ahead.inputMaxV - idle.rail.maxV < model.inputMaxV - behind;
    const limit = first ? ahead.inputMaxV : model.inputMaxV;
    const value = first ? idle.rail.maxV : behind;
    return {
      figure: {
        id: 'regulator-input',
        label: `Regulator input at ${say.high}, no load`,
        value,
        unit: 'V',
        origin: 'simulated',
        condition: wordsOf(design, 'idle'),
        expression: 'highest reservoir voltage of the cycle, output unloaded',
        inputs: [
          openVoltsOf(idle, say.winding),
          { label: 'quiescent current', value: model.quiescentA, unit: 'A', origin: 'typical' },
        ],
        source: 'Periodic steady state with only the quiescent current drawn.',
        assumes: [`The ${say.winding} stands at its open-circuit voltage.`, 'No spikes.'],
      },
      limit,
      limitSource: first ? ahead.inputLimitSource : model.inputLimitSource,
      relation: 'at most',
      wantedMargin: 0.05 * limit,
      sentence: `${formatQuantity(value, 'V')} of ${formatNominal(limit, 'V')} allowed at the input.`,
      reason:
        'Over its input maximum a regulator breaks down, and what it breaks into is usually a short to the output.',
    };
  },
  cures: (design) => [...windingVolts(design, [-1, -2, -3]), ...transformerSize(design, [1, 2, 3])],
};
