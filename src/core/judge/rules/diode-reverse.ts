import { arrangementOf, dcSourceOf, hasDiodes } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import type { Rule } from '../verdict';

export const diodeReverse: Rule = {
  id: 'diode-reverse',
  title: 'Diode reverse voltage',
  station: 'rectifier',
  find({ design, idle }) {
    if (!hasDiodes(design)) return null;
    const dc = dcSourceOf(design);
    const diode = diodeOf(design.rectifier);
    const times = arrangementOf(design).facts.reversePeaks;
    // A DC source reverses only when its leads are swapped, while the reservoir is still charged.
    const value = dc
      ? Math.SQRT2 * idle.winding.voltageRms + idle.rail.inputMaxV
      : Math.max(...idle.solution.diodes.map((d) => d.peakReverseV));
    const estimate = times * Math.SQRT2 * idle.winding.voltageRms;
    return {
      figure: {
        id: 'diode-reverse',
        label: 'Peak reverse voltage of one diode',
        value,
        unit: 'V',
        origin: 'simulated',
        condition: wordsOf(design, 'idle'),
        expression: dc ? 'open volts, reversed, + charged reservoir' : 'largest cathode-to-anode voltage of the cycle',
        inputs: [
          dc
            ? { label: 'open volts', value: Math.SQRT2 * idle.winding.voltageRms, unit: 'V', origin: 'formula' }
            : { label: 'open-circuit winding', value: idle.winding.voltageRms, unit: 'V', origin: 'formula' },
        ],
        source: 'Periodic steady state.',
        assumes: dc
          ? ['The leads are swapped before the reservoir has drained.']
          : ['No mains spikes: that is what the factor of two is kept for.'],
        estimate: {
          label: times === 1 ? 'the peak' : 'twice the peak',
          value: estimate,
          expression: times === 1 ? '√2·V' : '2·√2·V',
        },
      },
      limit: diode.reverseV,
      limitSource: dc
        ? 'Repetitive peak reverse voltage of the class; a fifth is kept in hand.'
        : 'Repetitive peak reverse voltage of the class; twice the computed peak is wanted for mains transients.',
      relation: 'at most',
      wantedMargin: dc ? 0.2 * value : value,
      sentence: `${formatQuantity(value, 'V')} against ${formatNominal(diode.reverseV, 'V')}.`,
      reason: dc
        ? 'A diode that breaks down backwards lets the swapped leads through after all.'
        : 'A diode that breaks down backwards shorts the winding through its neighbour.',
    };
  },
  cures: (design) => otherDiodes(design),
};
