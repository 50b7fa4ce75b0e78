import { mainModel } from '@/core/design/outputs';
import type { Figure } from '@/core/study/figure';
import { rippleHz } from '@/core/study/point';
import { junctionWorking, metalWorking } from '../heat-working';
import { of, type FigureContext } from './context';

/** The figures of the regulator. */
export function regulatorFigures({ design, point, simulated, formula }: FigureContext): Figure[] {
  const model = mainModel(design);
  if (!model || !point.heat || point.headroomV === null) return [];
  const { pass } = model;
  const junction = junctionWorking(point.heat, point.regulatorW);
  const metal = metalWorking(point.heat, point.regulatorW, pass.jcKPerW / pass.count);
  return [
    simulated(
      'regulator-headroom',
      'Headroom',
      point.headroomV,
      'V',
      'lowest voltage at its input − (output + dropout)',
      [
        of('valley', point.rail.minV, 'V', 'simulated'),
        of('needed', point.rail.minV - point.headroomV, 'V', 'formula'),
      ],
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
        of('quiescent', model.quiescentA, 'A', 'typical'),
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
      junction.expression,
      [...junction.inputs, of('limit', pass.junctionMaxC, '°C', 'data sheet')],
      'Chain of thermal resistances, steady.',
    ),
    formula(
      'regulator-sink',
      point.heat.sink ? 'Sink metal' : 'Its case',
      point.heat.sinkC,
      '°C',
      metal.expression,
      metal.inputs,
      'Chain of thermal resistances, steady.',
    ),
    {
      ...formula(
        'regulator-rejection',
        'Rejection',
        model.rejectionDb(rippleHz(design)),
        'dB',
        'typical of the family and its output, falling above the corner of its loop',
        [of('output', model.outputV, 'V', 'chosen'), of('ripple', rippleHz(design), 'Hz', 'formula')],
        'Typical of the class at the ripple’s frequency.',
      ),
      origin: 'typical',
      condition: undefined,
    } as Figure,
  ];
}
