import { openVolts, type DcSource } from '@/core/parts/dc-source';
import { TOUCH_DC_V } from '@/core/parts/touch-limits';
import { formatQuantity as q } from '@/core/quantity/format';
import { figure, type TestPoint } from './test-point';

/** The DC source by itself: its open volts between empty and fresh, or within an adapter's spread. */
export function sourcePoint(dc: DcSource, meter: (v: number) => number): Omit<TestPoint, 'stage'> {
  const lowV = openVolts(dc, 'low');
  const highV = openVolts(dc, 'high');
  const nominalV = openVolts(dc, 'nominal');
  const name = dc.kind === 'battery' ? 'Battery' : 'Adapter';
  return {
    id: 'mains',
    label: `${name}, open`,
    how: 'DC range, red to the pole that will be plus, nothing connected. The sign tells the polarity.',
    unit: 'V',
    expected: figure(
      'mains',
      `${name} today`,
      nominalV,
      'V',
      'chosen',
      dc.kind === 'battery' ? 'between given up and fresh' : 'plate volts × (1 + idle) × (1 ± spread)',
      dc.kind === 'battery'
        ? [
            { label: 'fresh', value: dc.freshV, unit: 'V' },
            { label: 'given up at', value: dc.emptyV, unit: 'V' },
          ]
        : [
            { label: 'plate', value: dc.ratedV, unit: 'V' },
            { label: 'above it when idle', value: dc.idlePct, unit: '%' },
            { label: 'spread', value: dc.spreadPct, unit: '%' },
          ],
      'The source as given.',
      [],
    ),
    low: lowV - meter(lowV),
    high: highV + meter(highV),
    caution:
      highV > TOUCH_DC_V
        ? `${q(highV, 'V')} DC: nothing bare within reach.`
        : dc.kind === 'battery'
          ? 'A battery has no limit of its own: no ring, no spanner, fuse in the lead first.'
          : undefined,
    ifLow:
      dc.kind === 'battery'
        ? 'Empty, or a dead cell: charge or change it. A minus sign: the leads are swapped.'
        : 'A smaller adapter than its plate says, or leads swapped where the sign is minus.',
    ifHigh:
      dc.kind === 'battery'
        ? 'Still on its charger, or a battery of more cells.'
        : 'An unregulated adapter: idle it stands far above its plate. Or one of more volts.',
  };
}
