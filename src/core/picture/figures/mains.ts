import { mainsVolts } from '@/core/circuit/feed';
import type { Figure } from '@/core/study/figure';
import { of, type FigureContext } from './context';

/** The figures of the mains. */
export function mainsFigures({ design, formula }: FigureContext): Figure[] {
  return (['low', 'nominal', 'high'] as const).map((level) => ({
    ...formula(
      `mains-${level}`,
      `${level[0]!.toUpperCase()}${level.slice(1)} line`,
      mainsVolts(design, level),
      'V',
      level === 'nominal' ? 'as chosen' : `nominal × (1 ${level === 'low' ? '−' : '+'} tolerance)`,
      [
        of('nominal', design.mains.voltageRms, 'V', 'chosen'),
        ...(level === 'nominal'
          ? []
          : [of('tolerance', level === 'low' ? design.mains.lowPct : design.mains.highPct, '%', 'chosen')]),
      ],
      'Usual limits of public nets (EN 50160: ±10 % at 230 V).',
      ['A clean sine; real mains is 0 to 5 % flat at its peak.'],
    ),
    condition: undefined,
  })) as Figure[];
}
