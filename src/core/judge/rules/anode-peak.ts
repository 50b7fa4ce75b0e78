import { hasDiodes } from '@/core/design/source';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { otherDiodes, biggerReservoir } from '../cures';
import { FULL, type Rule } from '../rule';
import { simulated } from '@/core/picture/working';

/** Share of a valve's peak rating kept in hand. */
const KEPT = 0.1;

export const anodePeak: Rule = {
  title: 'Anode peak current',
  station: 'rectifier',
  scope: 'supply',
  occasion: FULL,
  decides: ['rectifier'],
  find({ study: { design }, at }) {
    if (!hasDiodes(design)) return null;
    const valve = diodeOf(design.rectifier);
    if (valve.technology !== 'valve') return null;
    const value = Math.max(...at.solution.diodes.map((d) => d.peakA));
    return {
      value,
      limit: valve.peakA,
      relation: 'at most',
      wanted: KEPT * valve.peakA,
      tell: () => ({
        figure: {
          id: 'anode-peak',
          label: 'Highest current of an anode, every cycle',
          unit: 'A',
          origin: 'simulated',
          expression: 'crest of the charging pulse',
          inputs: [simulated('mean of one anode', Math.max(...at.solution.diodes.map((d) => d.meanA)), 'A')],
          source: 'Periodic steady state of source, valve and reservoir; the valve by i = K·v^1.5.',
          assumes: ['Perveance typical of the class; a tired cathode gives less and drops more.'],
        },
        limitSource: `Highest repeated anode current of the class: ${valve.name}.`,
        sentence: `${formatQuantity(value, 'A')} of ${formatNominal(valve.peakA, 'A')}.`,
        reason: 'A cathode asked for more than it gives off loses its coating. A big first capacitor asks for it.',
      }),
    };
  },
  cures: (design) => [...biggerReservoir(design, [-1, -2, -3]), ...otherDiodes(design)],
};
