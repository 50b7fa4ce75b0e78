import { dcSourceOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { formatQuantity } from '@/core/quantity/format';
import { copperHeat } from '@/core/study/copper-heat';
import { NO_REST_C } from '@/core/study/warmth';
import { transformerSize } from '../cures';
import type { Rule } from '../verdict';

/** Copper that gets warmer loses more and gets warmer still: whether that comes to an end, and where. */
export const windingHeat: Rule = {
  id: 'winding-heat',
  title: 'Winding temperature',
  station: 'winding',
  advisory: true,
  find({ design, high }) {
    if (dcSourceOf(design)) return null;
    const heat = copperHeat(design, high, high.warmth.copperC);
    const limit = 105;
    const settles = heat.settles && heat.copperC < NO_REST_C;
    const value = settles ? heat.copperC : NO_REST_C;
    return {
      figure: {
        id: 'winding-heat',
        label: 'Winding, in the end',
        value,
        unit: '°C',
        origin: 'formula',
        condition: wordsOf(design, 'high'),
        expression: 'air + (iron + copper loss at that temperature) × winding to air',
        inputs: [
          { label: 'air', value: heat.airC, unit: '°C', origin: 'formula' },
          { label: 'copper loss at 20 °C', value: heat.coldW, unit: 'W', origin: 'simulated' },
          { label: 'iron', value: heat.ironW, unit: 'W', origin: 'typical' },
          { label: 'winding to air', value: heat.kPerW, unit: 'K/W', origin: 'typical' },
        ],
        source:
          'Resistance of copper grows by 0.393 % a kelvin; the winding’s thermal resistance is that at which its rated load makes 60 K.',
        assumes: [
          design.heat.together
            ? 'Solved together with the circuit, round by round; the thermal resistance is good to ±30 %.'
            : 'The current stays as it was simulated; ±30 %.',
          ...(settles ? [] : [`It has no end; ${NO_REST_C} °C only stands for that.`]),
        ],
      },
      limit,
      limitSource: 'Insulation class A, 105 °C, as ordinary transformers are wound.',
      relation: 'at most',
      wantedMargin: 15,
      sentence: settles
        ? `${formatQuantity(heat.copperC, '°C')} in the end; ${formatQuantity(high.warmth.copperC, '°C')} is what its warm copper was taken at.`
        : 'It does not come to rest: warmer copper loses more than the winding gets rid of.',
      reason: 'Insulation ages twice as fast for every 8 to 10 K, and a shorted turn is the end of it.',
    };
  },
  cures: (design) => transformerSize(design, [1, 2, 3]),
};
