import { dcSourceOf, termsOf } from '@/core/design/source';
import type { Figure } from '@/core/study/figure';
import { of, STEADY, type FigureContext } from './context';

/** The figures of the load. */
export function loadFigures({ design, point, solution, simulated, formula }: FigureContext): Figure[] {
  const source = solution.energyBalance.sourceW;
  return [
    simulated(
      'output-mean',
      'Output',
      point.outputMeanV,
      'V',
      design.regulator.kind === 'none' ? 'mean reservoir voltage' : 'the regulator’s output, mean over the cycle',
    ),
    simulated(
      'output-ripple',
      'Output ripple, p-p',
      point.outputRippleVpp,
      'V',
      design.regulator.kind === 'none'
        ? 'highest − lowest'
        : 'reservoir ripple × rejection + what dropout lets through',
      [of('reservoir ripple', point.rail.ripplePeakToPeakV, 'V', 'simulated')],
    ),
    simulated('output-current', 'Current', point.outputMeanA, 'A', 'mean load current', [
      of('asked', design.demand.outputA, 'A', 'chosen'),
    ]),
    simulated('output-watts', 'Load', point.watts.load, 'W', 'mean of output volts × load current'),
    formula(
      'efficiency',
      'Reaches the load',
      source > 0 ? (100 * point.watts.load) / source : 0,
      '%',
      `load power / power from the EMF of the ${termsOf(design).winding}`,
      [of('load', point.watts.load, 'W', 'simulated'), of('from the EMF', source, 'W', 'simulated')],
      STEADY,
      dcSourceOf(design) ? [] : ['Core loss is not in it.'],
    ),
  ];
}
