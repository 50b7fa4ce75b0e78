import { wordsOf } from '@/core/circuit/condition';
import { TOUCH_LIMIT_C } from '@/core/parts/heatsink';
import { formatQuantity } from '@/core/quantity/format';
import { outputSinks, sinks } from '../cures';
import type { Rule } from '../verdict';

export const sinkTouch: Rule = {
  id: 'sink-touch',
  title: 'Heatsink to the touch',
  station: 'regulator',
  advisory: true,
  find({ design, high, lowest }) {
    if (!high.heat) return null;
    const worst = lowest?.heat && lowest.heat.sinkC > high.heat.sinkC ? lowest : high;
    const { sinkC, airC } = worst.heat!;
    const bare = worst.heat!.chain.length === 1;
    return {
      ...(bare ? { title: 'The part to the touch' } : {}),
      figure: {
        id: 'sink-touch',
        label: bare ? 'Temperature of the part’s case' : 'Temperature of the sink’s metal',
        value: sinkC,
        unit: '°C',
        origin: 'formula',
        condition: wordsOf(design, worst.condition),
        expression: bare ? 'air + watts × (junction to air − junction to case)' : 'air + watts × sink to air',
        inputs: [
          { label: 'air at the sink', value: airC, unit: '°C', origin: 'formula' },
          { label: 'watts in the regulator', value: worst.regulatorW, unit: 'W', origin: 'simulated' },
        ],
        source: 'Steady heat flow; touch limit after ISO 13732-1 for short contact with bare metal.',
        assumes: ['Full load until everything is warm.'],
      },
      limit: TOUCH_LIMIT_C,
      limitSource: 'Bare metal over 60 °C burns a finger (ISO 13732-1).',
      relation: 'at most',
      wantedMargin: 10,
      sentence:
        sinkC > TOUCH_LIMIT_C
          ? `${formatQuantity(sinkC, '°C')}: guard it or label it, and touch it with a thermometer only.`
          : `${formatQuantity(sinkC, '°C')} at the metal.`,
      reason: 'It does not harm the supply, it harms you. Inside a closed box it also warms everything else.',
    };
  },
  cures: (design) => [...sinks(design, [1, 2, 3, 5]), ...outputSinks(design)],
};
