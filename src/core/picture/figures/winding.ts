import { mainsVolts, modelOf } from '@/core/circuit/feed';
import { copperRatio } from '@/core/parts/transformer';
import { feedingRmsA, feedingWindings } from '@/core/study/feeding';
import type { Figure } from '@/core/study/figure';
import { of, type FigureContext } from './context';
import { copperWorking, openVoltsWorking } from './transformer';

/** The figures of the winding. */
export function windingFigures({
  band,
  design,
  point,
  solution,
  winding,
  facts,
  words,
  loadA,
  simulated,
  formula,
}: FigureContext): Figure[] {
  const model = modelOf(design);
  const feeding = feedingWindings(design, solution);
  const rmsA = feedingRmsA(design, solution);
  const open = openVoltsWorking(design, { called: 'mains', mainsV: mainsVolts(design, band) });
  const copper = copperWorking(design, point.warmth.copperC);
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
          value: words.rmsFactor * loadA,
          expression: `${words.name}, capacitor input: about ${words.rmsFactor} × load current`,
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
    formula('winding-open', 'Open-circuit volts', winding.voltageRms, 'V', open.expression, open.inputs, open.source),
    formula(
      'winding-ohm',
      'Winding resistance, warm',
      (model.ownColdOhm + (facts.together ? 2 : 1) * model.sharedColdOhm) * copperRatio(point.warmth.copperC),
      'ohm',
      copper.expression,
      copper.inputs,
      copper.source,
      copper.assumes,
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
