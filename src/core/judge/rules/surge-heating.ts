import { hasDiodes } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { diodeOf } from '@/core/parts/diode';
import { formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import type { Rule } from '../verdict';

/** The heat of the first cycle in the junction, beside its peak. */
export const surgeHeating: Rule = {
  id: 'surge-heating',
  title: 'First surge, I²t',
  station: 'rectifier',
  find({ design, surge }) {
    if (design.reservoir.capacitanceF <= 0 || !hasDiodes(design)) return null;
    const diode = diodeOf(design.rectifier);
    const limit = (diode.surgeA ** 2 * 0.5) / (2 * design.mains.frequencyHz);
    return {
      figure: {
        id: 'surge-heating',
        label: 'I²t of the hardest-hit diode in the first cycle',
        value: surge.i2t,
        unit: 'A²s',
        origin: 'simulated',
        condition: wordsOf(design, 'surge'),
        expression: 'integral of the squared current over the first cycle',
        inputs: [
          { label: 'highest current', value: surge.peakA, unit: 'A', origin: 'simulated' },
          { label: 'surge rating', value: diode.surgeA, unit: 'A', origin: 'typical' },
        ],
        source: 'Switch-on from rest at 90°, copper at 20 °C, capacitance at its upper tolerance.',
        assumes: ['The rating is for one half sine of the mains: IFSM²·t/2.'],
      },
      limit,
      limitSource: `IFSM²·t/2 over half a cycle: ${diode.name}.`,
      relation: 'at most',
      wantedMargin: 0.2 * limit,
      sentence: `${formatQuantity(surge.i2t, 'A²s')} of ${formatQuantity(limit, 'A²s')}.`,
      reason: 'A peak may pass and the heat behind it may not: a big reservoir charges for several half cycles.',
    };
  },
  cures: (design) => otherDiodes(design),
};
