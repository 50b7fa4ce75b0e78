import type { Edit } from '@/core/design/design';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { boxKPerW, insideAir } from '@/core/study/heat';
import { lossesOf } from '@/core/study/losses';
import { absurdHeat, heatWords } from '../heat-words';
import { LASTING, type Rule } from '../rule';
import { chosen, computed, simulated, typical } from '@/core/picture/working';

/** Air in which electrolytics and transformer insulation still last, °C. */
const AIR_LIMIT_C = 70;

/** What the box makes of all the watts: the air its capacitors and its transformer live in. */
export const insideAirRule: Rule = {
  title: 'Air inside the box',
  station: 'regulator',
  scope: 'supply',
  occasion: LASTING,
  decides: [],
  find({ study: { design }, at }) {
    if (design.heat.box === 'open') return null;
    const losses = lossesOf(design, at);
    const value = insideAir(design, losses.insideW);
    return {
      value,
      limit: AIR_LIMIT_C,
      relation: 'at most',
      wanted: 15,
      tell: () => ({
        figure: {
          id: 'inside-air',
          label: 'Air inside the box',
          unit: '°C',
          origin: 'formula',
          ...absurdHeat(value),
          expression: 'room + watts inside / (k × outside area)',
          inputs: [
            chosen('room', design.heat.ambientC, '°C'),
            simulated('copper', losses.copperW, 'W'),
            typical('iron', losses.ironW, 'W'),
            simulated('rectifier', losses.rectifierW, 'W'),
            simulated('regulators', losses.regulatorW + losses.outputsW, 'W'),
            simulated('small parts', losses.smallW, 'W'),
            computed('all that stays inside', losses.insideW, 'W'),
            typical('box', boxKPerW(design), 'K/W'),
          ],
          source:
            'Free convection and radiation from the faces: about 5.5 W/m²K painted metal, 3.75 plastic; vents halve the rise.',
          assumes: ['±30 %: where it stands and how its vents lie decide.'],
        },
        limitSource: 'Electrolytics and ordinary transformers want their air below about 70 °C.',
        sentence: `${formatQuantity(losses.insideW, 'W')} in ${formatNominal(design.heat.boxCm2, 'cm²')} of ${design.mainsSide.box}${design.heat.box === 'vented' ? ', vented' : ''}: ${heatWords(value)}.`,
        reason: 'Every ten kelvin halve the life of the capacitors that live in it.',
      }),
    };
  },
  cures: (design): Edit[] => [
    ...(design.heat.box === 'closed'
      ? [{ label: 'Vents in the box', patch: { heat: { box: 'vented' as const } } }]
      : []),
    ...(design.heat.sinkOutside || design.heat.sinkKPerW === null
      ? []
      : [{ label: 'Sink outside the box', patch: { heat: { sinkOutside: true } } }]),
    ...[1.5, 2.5].map((n) => ({
      label: `Box with ${formatNominal(Math.round(n * design.heat.boxCm2), 'cm²')}`,
      patch: { heat: { boxCm2: Math.round(n * design.heat.boxCm2) } },
    })),
  ],
};
