import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { CONDITIONS } from '@/core/circuit/condition';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import type { Rule } from '../verdict';

export const diodeReverse: Rule = {
  id: 'diode-reverse',
  title: 'Diode reverse voltage',
  station: 'rectifier',
  find({ design, idle }) {
    const diode = diodeOf(design.rectifier);
    const value = Math.max(...idle.solution.diodes.map((d) => d.peakReverseV));
    const times = ARRANGEMENTS[design.rectifier.kind].facts.reversePeaks;
    const estimate = times * Math.SQRT2 * idle.winding.voltageRms;
    return {
      figure: {
        id: 'diode-reverse',
        label: 'Peak reverse voltage of one diode',
        value,
        unit: 'V',
        origin: 'simulated',
        condition: CONDITIONS.idle.words,
        expression: 'largest cathode-to-anode voltage of the cycle',
        inputs: [{ label: 'open-circuit winding', value: idle.winding.voltageRms, unit: 'V', origin: 'formula' }],
        source: 'Periodic steady state.',
        assumes: ['No mains spikes: that is what the factor of two is kept for.'],
        estimate: {
          label: times === 1 ? 'the peak' : 'twice the peak',
          value: estimate,
          expression: times === 1 ? '√2·V' : '2·√2·V',
        },
      },
      limit: diode.reverseV,
      limitSource: `Repetitive peak reverse voltage of the class; twice the computed peak is wanted for mains transients.`,
      relation: 'at most',
      wantedMargin: value,
      sentence: `${formatQuantity(value, 'V')} against ${formatNominal(diode.reverseV, 'V')}.`,
      reason: 'A diode that breaks down backwards shorts the winding through its neighbour.',
    };
  },
  cures: (design) => otherDiodes(design),
};
