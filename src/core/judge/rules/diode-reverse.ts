import { emfPeakV } from '@/core/circuit/network';
import { arrangementFacts, dcSourceOf, hasDiodes } from '@/core/design/source';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import { UNLOADED, type Rule } from '../rule';
import { computed } from '@/core/picture/working';

export const diodeReverse: Rule = {
  title: 'Diode reverse voltage',
  station: 'rectifier',
  scope: 'supply',
  occasion: UNLOADED,
  decides: ['rectifier'],
  find({ study: { design }, at }) {
    if (!hasDiodes(design)) return null;
    const dc = dcSourceOf(design);
    const diode = diodeOf(design.rectifier);
    const openV = emfPeakV(at.network);
    // A DC source reverses only when its leads are swapped, while the reservoir is still charged.
    const value = dc ? openV + at.rail.inputMaxV : Math.max(...at.solution.diodes.map((d) => d.peakReverseV));
    return {
      value,
      limit: diode.reverseV,
      relation: 'at most',
      wanted: dc ? 0.2 * value : value,
      tell: () => {
        const times = arrangementFacts(design).reversePeaks;
        return {
          figure: {
            id: 'diode-reverse',
            label: 'Peak reverse voltage of one diode',
            unit: 'V',
            origin: 'simulated',
            expression: dc
              ? 'open volts, reversed, + charged reservoir'
              : 'largest cathode-to-anode voltage of the cycle',
            inputs: [
              dc ? computed('open volts', openV, 'V') : computed('open-circuit winding', at.winding.voltageRms, 'V'),
            ],
            source: 'Periodic steady state.',
            assumes: dc
              ? ['The leads are swapped before the reservoir has drained.']
              : ['No mains spikes: that is what the factor of two is kept for.'],
            estimate: {
              label: times === 1 ? 'the peak' : `${times} times the peak`,
              value: times * openV,
              expression: `${times === 1 ? '' : `${times}·`}√2·V`,
            },
          },
          limitSource: dc
            ? 'Repetitive peak reverse voltage of the class; a fifth is kept in hand.'
            : 'Repetitive peak reverse voltage of the class; twice the computed peak is wanted for mains transients.',
          sentence: `${formatQuantity(value, 'V')} against ${formatNominal(diode.reverseV, 'V')}.`,
          reason: dc
            ? 'A diode that breaks down backwards lets the swapped leads through after all.'
            : 'A diode that breaks down backwards shorts the winding through its neighbour.',
        };
      },
    };
  },
  cures: (design) => otherDiodes(design),
};
