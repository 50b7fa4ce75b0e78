import { mainsVolts, modelOf } from '@/core/circuit/condition';
import { copperRatio } from '@/core/parts/transformer';
import { windingCount } from '@/core/design/words';
import type { Figure } from '@/core/study/figure';
import { of, type FigureContext } from './context';

/** The figures of the winding. */
export function windingFigures({
  band,
  design,
  point,
  solution,
  winding,
  facts,
  loadA,
  simulated,
  formula,
}: FigureContext): Figure[] {
  const model = modelOf(design);
  const feeding = solution.windings.slice(0, windingCount(design));
  const rmsA = Math.max(...feeding.map((w) => w.rmsA));
  const halves = windingCount(design);
  const ohm = model.ownHotOhm + model.sharedHotOhm;
  return [
    simulated(
      'winding-rms',
      'RMS current',
      rmsA,
      'A',
      'root of the mean square of the winding current',
      [of('load current', loadA, 'A', 'simulated')],
      {
        estimate: {
          label: 'rule of thumb',
          value: facts.rmsFactor * loadA,
          expression: `${facts.name}, capacitor input: about ${facts.rmsFactor} × load current`,
        },
      },
    ),
    simulated(
      'winding-peak',
      'Charging pulse',
      Math.max(...feeding.map((w) => w.peakA)),
      'A',
      'highest winding current of the cycle',
    ),
    simulated(
      'winding-va',
      'Apparent power',
      solution.windings.reduce((s, w) => s + w.voltAmpere, 0),
      'VA',
      'open-circuit RMS volts × RMS current, all windings',
      [of('rated', design.transformer.ratedVA, 'VA', 'chosen')],
    ),
    formula(
      'winding-open',
      'Open-circuit volts',
      winding.voltageRms,
      'V',
      'rated volts × (1 + regulation) × mains / nominal mains',
      [
        of('rated volts', design.transformer.ratedV, 'V', 'chosen'),
        of('regulation', 100 * model.regulation, '%', model.regulationKnown ? 'data sheet' : 'typical'),
        of('mains', mainsVolts(design, band), 'V'),
      ],
      model.regulationKnown
        ? 'Nameplate.'
        : 'Nameplate, with the regulation typical of a laminated transformer of this size.',
    ),
    formula(
      'winding-ohm',
      'Winding resistance, warm',
      ohm,
      'ohm',
      '(open-circuit − rated volts) / rated current; half of it is the primary’s',
      [
        of('rated current', model.ratedA, 'A', 'formula'),
        of('cold, 20 °C', ohm / copperRatio(design.transformer.hotC), 'ohm', 'formula'),
        of('copper', design.transformer.hotC, '°C', 'chosen'),
      ],
      'R(T) = R20·(234.5 + T)/254.5 for copper.',
      [
        'The plate’s regulation holds for warm copper.',
        ...(halves === 2 ? ['Only one half carries current at a time; both share the primary.'] : []),
      ],
    ),
    simulated(
      'winding-loss',
      'Copper loss',
      point.watts.winding,
      'W',
      'resistance × mean square current, primary and secondary',
    ),
  ];
}
