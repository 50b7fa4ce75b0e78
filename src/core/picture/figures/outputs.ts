import { wordsOf } from '@/core/circuit/condition';
import { termsOf } from '@/core/design/source';
import { outputModel, outputsOf } from '@/core/design/outputs';
import type { Figure } from '@/core/study/figure';
import { rippleHz } from '@/core/study/point';
import { neededOf } from '@/core/study/output-point';
import type { Picture } from '@/core/picture/picture';
import { junctionWorking } from '../heat-working';
import { of, STEADY } from '../working';

/** What one further output does, each number with its working: headroom and ripple at the lowest input, heat at the highest. */
export function outputFigures({ design, points: { low, high } }: Picture, n: number): Figure[] {
  const output = outputsOf(design).find((o) => o.place === n)!;
  const model = outputModel(output);
  const say = termsOf(design);
  const atLow = low.outputs[n]!;
  const atHigh = high.outputs[n]!;
  const simulated = { origin: 'simulated' as const, source: STEADY, assumes: [] as string[] };
  const rail = { low: low.rails[output.rail]!.rail, high: high.rails[output.rail]!.rail };
  if (!model || atLow.headroomV === null)
    return [
      {
        ...simulated,
        id: 'further-lowest',
        label: `Lowest, ${say.low}`,
        value: atLow.outputMinV,
        unit: 'V',
        condition: wordsOf(design, 'low'),
        expression: 'lowest voltage of the rail it hangs on',
        inputs: [of('mean', atLow.outputMeanV, 'V', 'simulated')],
      },
      {
        ...simulated,
        id: 'further-ripple',
        label: 'Ripple, p-p',
        value: atLow.outputRippleVpp,
        unit: 'V',
        condition: wordsOf(design, 'low'),
        expression: 'that of the rail it hangs on',
        inputs: [],
      },
    ];
  const working = atHigh.heat && junctionWorking(atHigh.heat, atHigh.regulatorW);
  return [
    {
      ...simulated,
      id: 'further-headroom',
      label: `Headroom, ${say.low}`,
      value: atLow.headroomV,
      unit: 'V',
      condition: wordsOf(design, 'low'),
      expression: 'lowest voltage of the rail it shares − what it needs',
      inputs: [of('valley', rail.low.minV, 'V', 'simulated'), of('needed', neededOf(design, output)!, 'V', 'typical')],
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
        of('rail', rail.high.meanV, 'V', 'simulated'),
        of('output', atHigh.outputMeanV, 'V', 'simulated'),
        of('current', atHigh.outputMeanA, 'A', 'simulated'),
        of('its own', model.quiescentA, 'A', 'typical'),
      ],
    },
    ...(atHigh.heat && working
      ? [
          {
            id: 'further-junction',
            label: 'Junction',
            value: atHigh.heat.junctionC,
            unit: '°C' as const,
            origin: 'formula' as const,
            condition: wordsOf(design, 'high'),
            expression: working.expression,
            inputs: [...working.inputs, of('it bears', model.pass.junctionMaxC, '°C', 'typical')],
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
        of('rail', rail.low.ripplePeakToPeakV, 'V', 'simulated'),
        of('rejection', model.rejectionDb(rippleHz(design, output.rail)), 'dB', 'typical'),
        of('let through', atLow.outputMaxV - atLow.outputMinV, 'V', 'simulated'),
      ],
    },
  ];
}
