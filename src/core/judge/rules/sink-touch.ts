import { TOUCH_LIMIT_C } from '@/core/parts/heatsink';
import { fans, sinks } from '../cures';
import { absurdHeat, heatWords } from '../heat-words';
import { LASTING, type Rule } from '../rule';
import { metalWorking } from '@/core/picture/heat-working';

export const sinkTouch: Rule = {
  title: 'Heatsink to the touch',
  station: 'regulator',
  scope: 'output',
  occasion: LASTING,
  decides: [],
  followsSink: true,
  find({ at, model }) {
    if (!at.heat || !model) return null;
    const { sinkC, chain } = at.heat;
    const bare = chain.length === 1;
    return {
      value: sinkC,
      limit: TOUCH_LIMIT_C,
      relation: 'at most',
      wanted: 10,
      caution: true,
      tell: () => ({
        ...(bare ? { title: 'The part to the touch' } : {}),
        figure: {
          id: 'sink-touch',
          label: bare ? 'Temperature of the part’s case' : 'Temperature of the sink’s metal',
          unit: '°C',
          origin: 'formula',
          ...absurdHeat(sinkC),
          ...metalWorking(at.heat!, at.regulatorW, model.pass.jcKPerW / model.pass.count),
          source: 'Steady heat flow; touch limit after ISO 13732-1 for short contact with bare metal.',
          assumes: ['The lasting load until everything is warm.'],
        },
        limitSource: 'Bare metal over 60 °C burns a finger (ISO 13732-1).',
        sentence:
          sinkC > TOUCH_LIMIT_C
            ? `${heatWords(sinkC)}: guard it or label it, and touch it with a thermometer only.`
            : `${heatWords(sinkC)} at the metal.`,
        reason: 'It does not harm the supply, it harms you. Inside a closed box it also warms everything else.',
      }),
    };
  },
  cures: (design) => [...sinks(design, [1, 2, 3, 5]), ...fans(design)],
};
