import { dcSourceOf, termsOf } from '@/core/design/source';
import { CONDITIONS, wordsOf } from '@/core/circuit/condition';
import { capacitanceAt, esrOf, reservoirPlace } from '@/core/circuit/filter-of';
import { typicalLeakage } from '@/core/parts/capacitor';
import { hasChokeInput } from '@/core/design/filters';
import type { Figure } from '@/core/study/figure';
import { storedFigure } from '@/core/study/stored-energy';
import { of, type FigureContext } from './context';

/** The figures of the reservoir. */
export function reservoirFigures({
  picture,
  band,
  design,
  point,
  levels,
  loadA,
  fullWave,
  simulated,
  formula,
}: FigureContext): Figure[] {
  const c = capacitanceAt(design, CONDITIONS[band].capacitor);
  const idleV = picture.points.idle.reservoir.maxV;
  const can = point.network.sections[0]!.rails[0]!.filter[reservoirPlace(design)];
  const dc = dcSourceOf(design);
  const choke = hasChokeInput(design) ? design.filter.before.find((s) => s.kind === 'choke') : undefined;
  const estimate =
    choke?.kind === 'choke' && c > 0
      ? {
          estimate: {
            label: 'second harmonic through L and C',
            value:
              ((4 / 3) * point.rail.meanV) /
              Math.max(4 * (2 * Math.PI * design.mains.frequencyHz) ** 2 * choke.inductanceH * c - 1, 1e-9),
            expression: '2·(2/3)·V/(4·ω²·L·C − 1)',
          },
        }
      : c > 0 && !dc
        ? {
            estimate: {
              label: 'I·t/C',
              value: loadA / (design.mains.frequencyHz * (fullWave ? 2 : 1) * c),
              expression: fullWave ? 'I/(2·f·C)' : 'I/(f·C)',
            },
          }
        : {};
  return [
    simulated(
      'reservoir-ripple',
      'Ripple, p-p',
      point.reservoir.maxV - point.reservoir.minV,
      'V',
      'highest − lowest reservoir voltage',
      [
        of('load current', loadA, 'A', 'simulated'),
        of('capacitance', c, 'F'),
        of('ESR', can?.kind === 'capacitor' ? can.esrOhm : 0, 'ohm'),
      ],
      estimate,
    ),
    simulated('reservoir-mean', 'Mean', point.reservoir.meanV, 'V', 'mean reservoir voltage'),
    simulated('reservoir-valley', 'Valley', levels.reservoirMinV, 'V', 'lowest reservoir voltage of the cycle', [
      of('capacitance', c, 'F'),
    ]),
    simulated(
      'reservoir-current',
      'Ripple current',
      point.can?.rmsA ?? 0,
      'A',
      'RMS of (rectifier − load current)',
      [],
      dc ? {} : { estimate: { label: '1.4 × load', value: 1.4 * loadA, expression: '1.2 to 1.6 × load current' } },
    ),
    simulated(
      'reservoir-idle',
      `Idle, ${termsOf(design).high}`,
      idleV,
      'V',
      'highest reservoir voltage without load',
      [of('leakage', typicalLeakage(design.reservoir.capacitanceF, design.reservoir.ratedV), 'A', 'typical')],
      { condition: wordsOf(design, 'idle') },
    ),
    { ...storedFigure(design, picture.points.idle), id: 'reservoir-energy', label: 'Stored, idle' },
    simulated(
      'reservoir-ground',
      dc ? 'Current in the ground wire' : 'Pulse in the ground wire',
      Math.max(...point.wave.rectifierA),
      'A',
      `highest current towards the reservoir; it returns to the ${termsOf(design).winding} through the ground wire`,
      [],
      {
        assumes: [
          'Star point at the reservoir: what shares this wire with the pulse hears it as hum no regulator removes.',
        ],
      },
    ),
    {
      ...formula(
        'reservoir-esr',
        'ESR, new',
        esrOf(design),
        'ohm',
        design.reservoir.esrOhm === null ? 'loss tangent / (2π·120 Hz·C)' : 'as entered',
        [of('capacitance', design.reservoir.capacitanceF, 'F', 'chosen')],
        'Loss tangent typical of the voltage class.',
      ),
      origin: design.reservoir.esrOhm === null ? 'typical' : 'chosen',
      condition: undefined,
    } as Figure,
  ];
}
