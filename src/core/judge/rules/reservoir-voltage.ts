import { bankRatedV } from '@/core/design/bank';
import { CONDITIONS } from '@/core/circuit/condition';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { reservoirVolts, transformerSize, windingVolts } from '../cures';
import type { Rule } from '../verdict';

export const reservoirVoltage: Rule = {
  id: 'reservoir-voltage',
  title: 'Reservoir voltage, idle',
  station: 'reservoir',
  find({ design, idle }) {
    if (design.reservoir.capacitanceF <= 0) return null;
    const value = idle.rail.maxV;
    const ratedV = bankRatedV(design.reservoir);
    return {
      figure: {
        id: 'reservoir-voltage',
        label: 'Reservoir voltage at high line, no load',
        value,
        unit: 'V',
        origin: 'simulated',
        condition: CONDITIONS.idle.words,
        expression: 'highest reservoir voltage of the cycle, output unloaded',
        inputs: [
          { label: 'open-circuit winding', value: idle.winding.voltageRms, unit: 'V', origin: 'formula' },
          {
            label: 'mains',
            value: design.mains.voltageRms * (1 + design.mains.highPct / 100),
            unit: 'V',
            origin: 'chosen',
          },
        ],
        source: 'Periodic steady state; only the can’s leakage and the regulator’s own current flow.',
        assumes: ['The winding stands at its open-circuit voltage, not at the nameplate’s.', 'No mains spikes.'],
        estimate: {
          label: '√2 times the open-circuit volts',
          value: Math.SQRT2 * idle.winding.voltageRms,
          expression: '√2·V',
        },
      },
      limit: ratedV,
      limitSource: design.reservoir.pair
        ? 'Two cans in series never share alike: nine tenths of twice one, 15 % kept in hand.'
        : 'Rated voltage of the can; 15 % kept in hand.',
      relation: 'at most',
      wantedMargin: 0.15 * ratedV,
      sentence: `Idles at ${formatQuantity(value, 'V')} on ${design.reservoir.pair ? `two ${formatNominal(design.reservoir.ratedV, 'V')} cans in series` : `a ${formatNominal(ratedV, 'V')} can`}.`,
      reason:
        'With the load unplugged on a high-mains evening nothing pulls the peak down. An electrolytic over its voltage vents or bursts.',
    };
  },
  cures: (design) => [
    ...reservoirVolts(design, [1, 2, 3]),
    ...windingVolts(design, [-1, -2]),
    ...transformerSize(design, [1, 2]),
  ],
};
