import { inductanceAt } from '@/core/circuit/choke-flux';
import type { Figure } from '@/core/study/figure';
import { of, type FigureContext } from './context';

/** The figures of the filter ahead of the reservoir. */
export function filterAheadFigures({ design, point, solution, loadA, simulated, formula }: FigureContext): Figure[] {
  const at = design.filter.before.findIndex((s) => s.kind === 'choke');
  const choke = solution.elements[0]?.[at];
  const part = design.filter.before[at];
  const list: Figure[] = [
    simulated('input-mean', 'Rectifier output', point.rail.inputMeanV, 'V', 'mean voltage ahead of the filter'),
    simulated(
      'input-low',
      'Lowest there',
      point.rail.inputMinV,
      'V',
      'lowest voltage ahead of the filter in the cycle',
      [],
      {
        assumes: [
          'Where a choke’s current ceases the voltage jumps in no time; stray capacitance and the diode’s recovery decide the real spike.',
        ],
      },
    ),
  ];
  if (!choke || part?.kind !== 'choke') return list;
  const henry = part.swinging ? inductanceAt(part.inductanceH, part.ratedA / 2, loadA) : part.inductanceH;
  return [
    simulated('choke-least', 'Choke current, least', choke.minA, 'A', 'lowest choke current of the cycle', [
      of('mean', choke.meanA, 'A', 'simulated'),
    ]),
    formula(
      'choke-critical',
      'Ceases below',
      point.rail.meanV / (3 * 2 * Math.PI * design.mains.frequencyHz * henry),
      'A',
      'V/(3·ω·L)',
      [of('output', point.rail.meanV, 'V', 'simulated'), of('inductance', henry, 'H', 'chosen')],
      'First harmonic of the rectified sine against the direct current, full-wave.',
      ['A rule of thumb; the lowest current beside it is simulated.'],
    ),
    simulated('choke-rms', 'Choke current, RMS', choke.rmsA, 'A', 'root of the mean square', [
      of('rated', part.ratedA, 'A', 'chosen'),
    ]),
    simulated('choke-volts', 'Across the choke, p-p', choke.peakToPeakV, 'V', 'highest − lowest voltage across it'),
    ...list,
  ];
}

/** The figures of the filter behind the reservoir. */
export function filterBehindFigures({ point, loadA, simulated }: FigureContext): Figure[] {
  const mean = point.rail.meanV;
  return [
    simulated('filter-ripple', 'Ripple behind it, p-p', point.rail.ripplePeakToPeakV, 'V', 'highest − lowest', [
      of('ahead of it', point.reservoir.maxV - point.reservoir.minV, 'V', 'simulated'),
    ]),
    simulated('filter-drop', 'Takes', point.reservoir.meanV - mean, 'V', 'mean at the reservoir − mean behind it', [
      of('load current', loadA, 'A', 'simulated'),
    ]),
    simulated('filter-mean', 'Mean behind it', mean, 'V', 'mean over the cycle'),
    simulated(
      'filter-loss',
      'Loss, all filter parts',
      point.watts.reservoir,
      'W',
      'ESR, choke copper, resistors and bleeder × mean square current',
    ),
  ];
}
