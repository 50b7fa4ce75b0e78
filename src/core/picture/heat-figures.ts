import type { Figure } from '@/core/study/figure';
import type { HeatView } from '@/core/study/heat-report';

/** The hottest spot of every part of a heat report, each with the way heat takes to it as its working. */
export function heatFigures(view: HeatView): Figure[] {
  return view.rows.map((row): Figure => {
    const end = row.steps[row.steps.length - 1]!;
    return {
      id: `heat-${row.id}`,
      label: `${row.name}, ${end.name}`,
      value: end.tempC,
      unit: '°C',
      origin: 'formula',
      expression: `${row.steps.map((s) => s.name).join(' → ')}: each step rises by its watts × its resistance`,
      inputs: [
        { label: 'watts', value: row.watts, unit: 'W', origin: 'simulated' },
        { label: row.steps[0]!.name, value: row.steps[0]!.tempC, unit: '°C' },
        ...row.steps.slice(1).map((s, n) => ({
          label: `${row.steps[n]!.name} to ${s.name}`,
          value: s.tempC - row.steps[n]!.tempC,
          unit: 'K' as const,
        })),
        { label: 'limit', value: row.limitC, unit: '°C' },
      ],
      source: row.limitSource,
      assumes: [
        view.minutes === null ? 'In the end, when nothing gets warmer any more.' : `After ${view.minutes} minutes.`,
        'Typical resistances, ±30 %.',
      ],
    };
  });
}
