import { wordsOf } from '@/core/circuit/condition';
import { termsOf } from '@/core/design/source';
import { regulatorModel } from '@/core/parts/regulators';
import type { Figure } from '@/core/study/figure';
import { outputNeedsV } from '@/core/study/further-outputs';
import { rippleHz } from '@/core/study/operating-point';
import type { Picture } from '../picture';
import { of, STEADY } from './context';

/** What one further output does, each number with its working: headroom and ripple at the lowest input, heat at the highest. */
export function outputFigures({ design, points: { low, high } }: Picture, n: number): Figure[] {
  const output = design.outputs[n]!;
  const model = regulatorModel(output.regulator);
  const say = termsOf(design);
  const atLow = low.outputs[n]!;
  const atHigh = high.outputs[n]!;
  const simulated = { origin: 'simulated' as const, source: STEADY, assumes: [] as string[] };
  return [
    {
      ...simulated,
      id: 'further-headroom',
      label: `Headroom, ${say.low}`,
      value: atLow.headroomV,
      unit: 'V',
      condition: wordsOf(design, 'low'),
      expression: 'lowest voltage of the rail it shares − what it needs',
      inputs: [of('valley', low.rail.minV, 'V', 'simulated'), of('needed', outputNeedsV(output), 'V', 'typical')],
      assumes: ['Dropout at the worse of a cold and a hot junction.'],
    },
    {
      ...simulated,
      id: 'further-watts',
      label: `Burns, ${say.high}`,
      value: atHigh.regulatorW,
      unit: 'W',
      condition: wordsOf(design, 'high'),
      expression: 'mean of (rail − output) × its current, and its own current × rail',
      inputs: [
        of('rail', high.rail.meanV, 'V', 'simulated'),
        of('output', atHigh.outputMeanV, 'V', 'simulated'),
        of('current', atHigh.outputMeanA, 'A', 'simulated'),
        of('its own', model.quiescentA, 'A', 'typical'),
      ],
    },
    ...(atHigh.heat
      ? [
          {
            id: 'further-junction',
            label: 'Junction',
            value: atHigh.heat.junctionC,
            unit: '°C' as const,
            origin: 'formula' as const,
            condition: wordsOf(design, 'high'),
            expression: `air + watts × (${atHigh.heat.chain.map((c) => c.label).join(' + ')})`,
            inputs: [
              of('air', atHigh.heat.airC, '°C', 'formula'),
              of('watts', atHigh.regulatorW, 'W', 'simulated'),
              ...atHigh.heat.chain.map((c) => of(c.label, c.kPerW, 'K/W', 'typical')),
              of('it bears', model.pass.junctionMaxC, '°C', 'typical'),
            ],
            source: 'Steady heat flow; the watts are those of the simulated cycle.',
            assumes: ['The load stays on until everything is warm.'],
          },
        ]
      : []),
    {
      ...simulated,
      id: 'further-ripple',
      label: 'Ripple, p-p',
      value: atLow.outputRippleVpp,
      unit: 'V',
      condition: wordsOf(design, 'low'),
      expression: 'ripple of the rail × rejection + what dropout lets through',
      inputs: [
        of('rail', low.rail.ripplePeakToPeakV, 'V', 'simulated'),
        of('rejection', model.rejectionDb(rippleHz(design)), 'dB', 'typical'),
        of('let through', atLow.outputMaxV - atLow.outputMinV, 'V', 'simulated'),
      ],
    },
  ];
}
