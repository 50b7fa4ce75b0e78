import { emfPeakV } from '@/core/circuit/network';
import { mainsVolts } from '@/core/circuit/feed';
import { bankRatedV } from '@/core/design/bank';
import { arrangementFacts, dcSourceOf, termsOf } from '@/core/design/source';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { openVoltsOf } from '@/core/study/open-volts';
import { reservoirVolts, transformerSize, windingVolts } from '../cures';
import { UNLOADED, type Rule } from '../rule';
import { chosen } from '@/core/picture/working';

/** The can that stands highest: of a multiplier's not all do. */
export const reservoirVoltage: Rule = {
  title: 'Reservoir voltage, idle',
  station: 'reservoir',
  scope: 'rail',
  occasion: UNLOADED,
  decides: ['transformer', 'reservoir'],
  early: 2,
  find({ design, at }) {
    if (design.reservoir.capacitanceF <= 0 || !at.can) return null;
    const value = at.can.maxV;
    const limit = bankRatedV(design.reservoir);
    return {
      value,
      limit,
      relation: 'at most',
      wanted: 0.15 * limit,
      tell: () => {
        const say = termsOf(design);
        const { reservoir } = design;
        const { cellPeaks } = arrangementFacts(design);
        return {
          figure: {
            id: 'reservoir-voltage',
            label: 'Highest voltage across a can of the reservoir, no load',
            unit: 'V',
            origin: 'simulated',
            expression: 'highest voltage of the cycle across it, output unloaded',
            inputs: [openVoltsOf(at, say.winding), chosen(say.source, mainsVolts(design, 'high'), 'V')],
            source: 'Periodic steady state; only the can’s leakage and the regulator’s own current flow.',
            assumes: [`The ${say.winding} stands at its open-circuit voltage, not at the nameplate’s.`, 'No spikes.'],
            ...(dcSourceOf(design)
              ? {}
              : {
                  estimate: {
                    label: '√2 times the open-circuit volts, for each peak it stands at',
                    value: Math.max(...cellPeaks) * emfPeakV(at.network),
                    expression: `${Math.max(...cellPeaks) === 1 ? '' : `${Math.max(...cellPeaks)}·`}√2·V`,
                  },
                }),
          },
          limitSource: reservoir.pair
            ? 'Two cans in series never share alike: nine tenths of twice one, 15 % kept in hand.'
            : 'Rated voltage of the can; 15 % kept in hand.',
          sentence: `Idles at ${formatQuantity(value, 'V')} on ${reservoir.pair ? `two ${formatNominal(reservoir.ratedV, 'V')} cans in series` : `a ${formatNominal(limit, 'V')} can`}.`,
          reason: `With the load unplugged ${dcSourceOf(design) ? 'nothing pulls its open volts' : 'on a high-mains evening nothing pulls the peak'} down. An electrolytic over its voltage vents or bursts.`,
        };
      },
    };
  },
  cures: (design) => [
    ...reservoirVolts(design, [1, 2, 3]),
    ...windingVolts(design, [-1, -2]),
    ...transformerSize(design, [1, 2]),
  ],
};
