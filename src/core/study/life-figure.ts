import { butFor, CONDITIONS, wordsOf } from '@/core/circuit/condition';
import { dcSourceOf } from '@/core/design/source';
import type { Design } from '@/core/design/design';
import type { Figure } from './figure';

/** How long a battery feeds a design. */
export interface BatteryLife {
  hours: number;
  /** Share of its charge that is used by then, 0 to 1. */
  used: number;
  /** Open-circuit volts at which the supply lets go; null where it holds until the battery is given up. */
  letsGoV: number | null;
  /** Mean current drawn on the way, A. */
  meanA: number;
}

/** The hours as a figure with its working. */
export function lifeFigure(design: Design, life: BatteryLife): Figure {
  const dc = dcSourceOf(design)!;
  return {
    id: 'battery-life',
    label: 'Lasts',
    value: life.hours,
    unit: 'h',
    origin: 'simulated',
    condition: wordsOf(design, butFor(CONDITIONS.nominal, { state: 'lasting load' })),
    expression: 'charge used / mean current',
    inputs: [
      { label: 'holds', value: dc.kind === 'battery' ? dc.capacityAh : 0, unit: 'Ah', origin: 'chosen' },
      { label: 'used by then', value: 100 * life.used, unit: '%', origin: 'simulated' },
      { label: 'mean current', value: life.meanA, unit: 'A', origin: 'simulated' },
      ...(life.letsGoV === null
        ? []
        : [{ label: 'lets go at open', value: life.letsGoV, unit: 'V' as const, origin: 'simulated' as const }]),
    ],
    source: 'Steady states along the discharge.',
    assumes: [
      'Its volts fall evenly with the charge drawn; real cells fall fast, then slowly, then fast.',
      'Capacity as printed: large currents and cold leave less.',
    ],
  };
}
