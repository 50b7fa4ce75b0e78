import { REGULATOR_JUNCTION_MAX_C, regulatorSize, rippleRejectionDb } from '@/core/parts/regulator';
import type { Figure } from '@/core/study/figure';
import { of, type FigureContext } from './context';

/** The figures of the regulator. */
export function regulatorFigures({ picture, design, point, levels, simulated, formula }: FigureContext): Figure[] {
  if (design.regulator.kind === 'none' || !point.heat || picture.neededV === null) return [];
  const size = regulatorSize(design.regulator.size);
  return [
    simulated(
      'regulator-headroom',
      'Headroom',
      levels.reservoirMinV - picture.neededV,
      'V',
      'lowest reservoir voltage − (output + dropout)',
      [of('valley', levels.reservoirMinV, 'V', 'simulated'), of('needed', picture.neededV, 'V', 'formula')],
    ),
    simulated(
      'regulator-watts',
      'Burns',
      point.watts.regulator,
      'W',
      'mean of input power − output power',
      [
        of('mean input', point.rail.meanV, 'V', 'simulated'),
        of('output', point.outputMeanV, 'V', 'simulated'),
        of('quiescent', size.quiescentA, 'A', 'typical'),
      ],
      {
        estimate: {
          label: 'mean drop × load',
          value: (point.rail.meanV - point.outputMeanV) * point.outputMeanA,
          expression: '(mean input − output) × load current',
        },
      },
    ),
    formula(
      'regulator-junction',
      'Junction',
      point.heat.junctionC,
      '°C',
      `air + watts × (${point.heat.chain.map((x) => x.label).join(' + ')})`,
      [
        of('air', design.heat.ambientC, '°C', 'chosen'),
        of('watts', point.watts.regulator, 'W', 'simulated'),
        ...point.heat.chain.map((x) => of(x.label, x.kPerW, 'K/W', 'typical')),
        of('limit', REGULATOR_JUNCTION_MAX_C, '°C', 'data sheet'),
      ],
      'Chain of thermal resistances, steady.',
    ),
    formula(
      'regulator-sink',
      'Sink metal',
      point.heat.sinkC,
      '°C',
      'air + watts × sink to air',
      [of('air', design.heat.ambientC, '°C', 'chosen'), of('watts', point.watts.regulator, 'W', 'simulated')],
      'Chain of thermal resistances, steady.',
    ),
    {
      ...formula(
        'regulator-rejection',
        'Rejection',
        rippleRejectionDb(design.regulator.outputV),
        'dB',
        '78 dB at 5 V falling to 56 dB at 24 V with the logarithm of the output',
        [of('output', design.regulator.outputV, 'V', 'chosen')],
        'Typical of the 78 family at 100/120 Hz.',
      ),
      origin: 'typical',
      condition: undefined,
    } as Figure,
  ];
}
