import { termsOf } from '@/core/design/source';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { openVoltsOf } from '@/core/study/open-volts';
import { opampRail, transformerSize, windingVolts, zenerAhead } from '../cures';
import { UNLOADED, type Rule } from '../rule';
import { simulated, typical } from '@/core/picture/working';

export const regulatorInput: Rule = {
  title: 'Regulator input, idle',
  station: 'regulator',
  scope: 'output',
  occasion: UNLOADED,
  decides: ['transformer', 'regulator'],
  early: 2,
  find({ design, model, at }) {
    if (!model) return null;
    const ahead = aheadModel(design.preRegulator);
    // Behind a pre-regulator the part sees what that holds; the raw rail stands at the first of the two.
    const behind = ahead && at.ahead ? Math.min(at.ahead.holdsV, at.rail.maxV) : at.rail.maxV;
    const first = ahead && ahead.inputMaxV - at.rail.maxV < model.inputMaxV - behind;
    const limit = first ? ahead.inputMaxV : model.inputMaxV;
    const value = first ? at.rail.maxV : behind;
    const held = value < at.rail.maxV;
    return {
      value,
      limit,
      relation: 'at most',
      wanted: 0.05 * limit,
      tell: () => {
        const say = termsOf(design);
        return {
          figure: {
            id: 'regulator-input',
            label: 'Regulator input, no load',
            unit: 'V',
            origin: 'simulated',
            expression: held
              ? 'what the pre-regulator holds it at, output unloaded'
              : 'highest reservoir voltage of the cycle, output unloaded',
            inputs: [
              openVoltsOf(at, say.winding),
              ...(held ? [simulated('highest reservoir voltage', at.rail.maxV, 'V')] : []),
              typical('quiescent current', model.quiescentA, 'A'),
            ],
            source: 'Periodic steady state with only the quiescent current drawn.',
            assumes: [`The ${say.winding} stands at its open-circuit voltage.`, 'No spikes.'],
          },
          limitSource: first ? ahead.inputLimitSource : model.inputLimitSource,
          sentence: `${formatQuantity(value, 'V')} of ${formatNominal(limit, 'V')} allowed at the input.`,
          reason:
            'Over its input maximum a regulator breaks down, and what it breaks into is usually a short to the output.',
        };
      },
    };
  },
  cures: (design) => [
    ...opampRail(design),
    ...zenerAhead(design),
    ...windingVolts(design, [-1, -2, -3]),
    ...transformerSize(design, [1, 2, 3]),
  ],
};
