import { mainsVolts } from '@/core/circuit/feed';
import { dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { sourceOhm } from '@/core/parts/dc-source';
import { capitalised } from '@/core/quantity/format';
import { lifeFigure } from '@/core/study/life-figure';
import type { Figure } from '@/core/study/figure';
import { of, type FigureContext } from './context';

/** The figures of a DC source: its open volts at both ends of its range, and how long a battery lasts. */
export function dcSourceFigures({ design, picture, formula }: FigureContext): Figure[] {
  const dc = dcSourceOf(design)!;
  const say = termsOf(design);
  const open = (['low', 'nominal', 'high'] as const).map((level): Figure => ({
    ...formula(
      `mains-${level}`,
      capitalised(say[level]),
      mainsVolts(design, level),
      'V',
      dc.kind === 'battery'
        ? level === 'nominal'
          ? 'mean of fresh and given up'
          : 'as given'
        : 'plate volts × (1 + idle) × (1 ± spread)',
      dc.kind === 'battery'
        ? [of('fresh', dc.freshV, 'V', 'chosen'), of('given up at', dc.emptyV, 'V', 'chosen')]
        : [
            of('plate', dc.ratedV, 'V', 'chosen'),
            of('above it when idle', dc.idlePct, '%', 'chosen'),
            of('spread', dc.spreadPct, '%', 'chosen'),
          ],
      'Open-circuit volts.',
      dc.kind === 'battery'
        ? ['Its volts fall evenly with the charge drawn.']
        : ['Its spread holds the mains’ behind it.'],
    ),
    condition: undefined,
  }));
  return picture.life ? [lifeFigure(design, picture.life), ...open] : open;
}

/** What the source keeps for itself. */
export function dcResistanceFigures({ design, point, solution, simulated, formula }: FigureContext): Figure[] {
  const dc = dcSourceOf(design)!;
  const amps = solution.windings[0]!;
  return [
    simulated(
      'winding-loss',
      'Lost inside it',
      point.watts.winding,
      'W',
      hasDiodes(design) ? 'resistance × mean square current' : 'resistance and leads × mean square current',
    ),
    simulated('winding-rms', 'Current drawn', amps.rmsA, 'A', 'root of the mean square of the current in its lead'),
    formula(
      'winding-ohm',
      'Its resistance',
      sourceOhm(dc),
      'ohm',
      dc.kind === 'battery' ? 'as given' : 'plate volts × idle rise / plate current',
      dc.kind === 'battery'
        ? [of('given', dc.resistanceOhm, 'ohm', 'chosen')]
        : [
            of('plate', dc.ratedV, 'V', 'chosen'),
            of('idle', dc.idlePct, '%', 'chosen'),
            of('at', dc.ratedA, 'A', 'chosen'),
          ],
      dc.kind === 'battery' ? 'As typed; typical of its class.' : 'A straight line from idle to its plate.',
    ),
  ];
}
