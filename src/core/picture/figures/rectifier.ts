import { diodeOf } from '@/core/parts/diode';
import { wordsOf } from '@/core/circuit/condition';
import type { Figure } from '@/core/study/figure';
import { hasDiodes, termsOf } from '@/core/design/source';
import { of, type FigureContext } from './context';

/** The figures of the rectifier. */
export function rectifierFigures({
  picture,
  design,
  point,
  solution,
  facts,
  levels,
  loadA,
  simulated,
}: FigureContext): Figure[] {
  if (!hasDiodes(design)) return [];
  const droppedA = point.rails.reduce((sum, p, r) => sum + facts.drops[r]! * p.rail.loadMeanA, 0);
  const valve = diodeOf(design.rectifier).technology === 'valve';
  const diode = solution.diodes.reduce((a, b) => (b.meanA > a.meanA ? b : a));
  return [
    simulated('diode-mean', 'Mean, each diode', diode.meanA, 'A', 'mean of the diode current', [
      of('load current', loadA, 'A', 'simulated'),
    ]),
    simulated(
      'diode-drop',
      'Taken at the crest',
      levels.terminalPeakV - levels.reservoirMaxV,
      'V',
      `highest ${termsOf(design).winding} voltage while conducting − highest reservoir voltage`,
      [],
      valve
        ? {}
        : {
            estimate: {
              label: '0.9 V a diode in the path',
              value: 0.9 * facts.diodesInPath,
              expression: 'diodes in path × 0.9 V',
            },
          },
    ),
    simulated(
      'diode-loss',
      valve ? 'Loss, heaters included' : 'Loss, all diodes',
      point.watts.rectifier,
      'W',
      `mean of diode voltage × current${valve ? ', and what heats the cathodes' : ''}`,
      [],
      valve
        ? {}
        : {
            estimate: {
              label: '0.9 V a diode in the path',
              value: 0.9 * droppedA,
              expression: 'diodes in path × 0.9 V × load current, all rails',
            },
          },
    ),
    simulated('diode-angle', 'Conducts', diode.conductionDeg, '°', '360° × time above 1 % of the peak / period'),
    simulated(
      'diode-surge',
      'First surge',
      picture.surge.peakA,
      'A',
      'highest current of a start at the voltage peak',
      [of('I²t of the first cycle', picture.surge.i2t, 'A²s', 'simulated')],
      { condition: wordsOf(design, 'surge') },
    ),
  ];
}
