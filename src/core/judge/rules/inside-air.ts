import { wordsOf } from '@/core/circuit/condition';
import type { Edit } from '@/core/design/design';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { boxKPerW, insideAir } from '@/core/study/heat';
import { lossesOf } from '@/core/study/losses';
import type { Rule } from '../verdict';

/** Air in which electrolytics and transformer insulation still last, °C. */
const AIR_LIMIT_C = 70;

/** What the box makes of all the watts: the air its capacitors and its transformer live in. */
export const insideAirRule: Rule = {
  id: 'inside-air',
  title: 'Air inside the box',
  station: 'regulator',
  find({ design, high, lowest }) {
    if (design.heat.box === 'open') return null;
    const worst =
      lowest && lossesOf(design, lowest.watts).insideW > lossesOf(design, high.watts).insideW ? lowest : high;
    const losses = lossesOf(design, worst.watts);
    const value = insideAir(design, losses.insideW);
    return {
      figure: {
        id: 'inside-air',
        label: 'Air inside the box',
        value,
        unit: '°C',
        origin: 'formula',
        condition: wordsOf(design, worst.condition),
        expression: 'room + watts inside / (k × outside area)',
        inputs: [
          { label: 'room', value: design.heat.ambientC, unit: '°C', origin: 'chosen' },
          { label: 'copper', value: losses.copperW, unit: 'W', origin: 'simulated' },
          { label: 'iron', value: losses.ironW, unit: 'W', origin: 'typical' },
          { label: 'rectifier', value: losses.rectifierW, unit: 'W', origin: 'simulated' },
          { label: 'regulator', value: losses.regulatorW, unit: 'W', origin: 'simulated' },
          { label: 'all that stays inside', value: losses.insideW, unit: 'W', origin: 'formula' },
          { label: 'box', value: boxKPerW(design), unit: 'K/W', origin: 'typical' },
        ],
        source:
          'Free convection and radiation from the faces: about 5.5 W/m²K painted metal, 3.75 plastic; vents halve the rise.',
        assumes: ['±30 %: where it stands and how its vents lie decide.'],
      },
      limit: AIR_LIMIT_C,
      limitSource: 'Electrolytics of the 85 °C grade and ordinary transformers want their air below about 70 °C.',
      relation: 'at most',
      wantedMargin: 15,
      sentence: `${formatQuantity(losses.insideW, 'W')} in ${formatNominal(design.heat.boxCm2, 'cm²')} of ${design.mainsSide.box}${design.heat.box === 'vented' ? ', vented' : ''}: ${formatQuantity(value, '°C')}.`,
      reason: 'Every ten kelvin halve the life of the capacitors that live in it.',
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
      patch: { heat: { boxCm2: Math.min(50000, Math.round(n * design.heat.boxCm2)) } },
    })),
  ],
};
