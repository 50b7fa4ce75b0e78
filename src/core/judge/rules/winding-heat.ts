import { dcSourceOf } from '@/core/design/source';
import { formatQuantity } from '@/core/quantity/format';
import { copperHeat } from '@/core/study/copper-heat';
import { NO_REST_C, WINDING_MAX_C } from '@/core/study/warmth';
import { transformerSize } from '../cures';
import { absurdHeat, heatWords } from '../heat-words';
import { LASTING, type Rule } from '../rule';
import { computed, simulated, typical } from '@/core/picture/working';

/** Copper that gets warmer loses more and gets warmer still: whether that comes to an end, and where. */
export const windingHeat: Rule = {
  title: 'Winding temperature',
  station: 'winding',
  scope: 'supply',
  occasion: LASTING,
  decides: ['transformer'],
  find({ study: { design }, at }) {
    if (dcSourceOf(design)) return null;
    const heat = copperHeat(design, at, at.warmth.copperC);
    const settles = heat.settles && heat.copperC < NO_REST_C;
    return {
      value: settles ? heat.copperC : NO_REST_C,
      limit: WINDING_MAX_C,
      relation: 'at most',
      wanted: 10,
      tell: () => ({
        figure: {
          id: 'winding-heat',
          label: 'Winding, in the end',
          unit: '°C',
          origin: 'formula',
          ...(settles ? absurdHeat(heat.copperC) : { words: 'no rest' }),
          expression: 'air + (iron + copper loss at that temperature) × winding to air',
          inputs: [
            computed('air', heat.airC, '°C'),
            simulated('copper loss at 20 °C', heat.coldW, 'W'),
            typical('iron', heat.ironW, 'W'),
            typical('winding to air', heat.kPerW, 'K/W'),
          ],
          source:
            'Resistance of copper grows by 0.393 % a kelvin; the winding’s thermal resistance is that at which its rated load makes 60 K.',
          assumes: [
            design.heat.together
              ? 'Solved together with the circuit, round by round; the thermal resistance is good to ±30 %.'
              : 'The current stays as it was simulated; ±30 %.',
          ],
        },
        limitSource: 'Insulation class A, 105 °C, as ordinary transformers are wound.',
        sentence: settles
          ? `${heatWords(heat.copperC)} in the end; ${formatQuantity(at.warmth.copperC, '°C')} is what its warm copper was taken at.`
          : 'It does not come to rest: warmer copper loses more than the winding gets rid of.',
        reason: 'Insulation ages twice as fast for every 8 to 10 K, and a shorted turn is the end of it.',
      }),
    };
  },
  cures: (design) => transformerSize(design, [1, 2, 3]),
};
