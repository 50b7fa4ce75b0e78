import { bankRatedV } from '@/core/design/bank';
import { dcSourceOf, termsOf } from '@/core/design/source';
import { openVoltsOf } from '@/core/study/open-volts';
import { mainsVolts } from '@/core/circuit/feed';
import { wordsOf } from '@/core/circuit/condition';
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
    const say = termsOf(design);
    const ratedV = bankRatedV(design.reservoir);
    return {
      figure: {
        id: 'reservoir-voltage',
        label: `Reservoir voltage at ${say.high}, no load`,
        value,
        unit: 'V',
        origin: 'simulated',
        condition: wordsOf(design, 'idle'),
        expression: 'highest reservoir voltage of the cycle, output unloaded',
        inputs: [
          openVoltsOf(idle, say.winding),
          {
            label: say.source,
            value: mainsVolts(design, 'high'),
            unit: 'V',
            origin: 'chosen',
          },
        ],
        source: 'Periodic steady state; only the can’s leakage and the regulator’s own current flow.',
        assumes: [`The ${say.winding} stands at its open-circuit voltage, not at the nameplate’s.`, 'No spikes.'],
        ...(dcSourceOf(design)
          ? {}
          : {
              estimate: {
                label: '√2 times the open-circuit volts',
                value: Math.SQRT2 * idle.winding.voltageRms,
                expression: '√2·V',
              },
            }),
      },
      limit: ratedV,
      limitSource: design.reservoir.pair
        ? 'Two cans in series never share alike: nine tenths of twice one, 15 % kept in hand.'
        : 'Rated voltage of the can; 15 % kept in hand.',
      relation: 'at most',
      wantedMargin: 0.15 * ratedV,
      sentence: `Idles at ${formatQuantity(value, 'V')} on ${design.reservoir.pair ? `two ${formatNominal(design.reservoir.ratedV, 'V')} cans in series` : `a ${formatNominal(ratedV, 'V')} can`}.`,
      reason: `With the load unplugged ${dcSourceOf(design) ? 'nothing pulls its open volts' : 'on a high-mains evening nothing pulls the peak'} down. An electrolytic over its voltage vents or bursts.`,
    };
  },
  cures: (design) => [
    ...reservoirVolts(design, [1, 2, 3]),
    ...windingVolts(design, [-1, -2]),
    ...transformerSize(design, [1, 2]),
  ],
};
