import { CONDITIONS } from '@/core/circuit/condition';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import type { Rule } from '../verdict';

export const diodeSurge: Rule = {
  id: 'diode-surge',
  title: 'First surge',
  station: 'rectifier',
  find({ design, surge }) {
    if (design.reservoir.capacitanceF <= 0) return null;
    const diode = diodeOf(design.rectifier);
    const { mains, sections } = surge.network;
    const { winding } = sections[0]!;
    const loop = winding.resistanceOhm + mains.sharedResistanceOhm;
    return {
      figure: {
        id: 'diode-surge',
        label: 'First current pulse into the empty reservoir',
        value: surge.peakA,
        unit: 'A',
        origin: 'simulated',
        condition: CONDITIONS.surge.words,
        expression: 'highest diode current of a start at the peak of the mains voltage',
        inputs: [
          { label: 'winding resistance, cold', value: loop, unit: 'ohm', origin: 'formula' },
          { label: 'peak of the winding', value: Math.SQRT2 * winding.voltageRms, unit: 'V', origin: 'formula' },
          { label: 'I²t of the first cycle', value: surge.i2t, unit: 'A²s', origin: 'simulated' },
          {
            label: 'I²t the diode stands',
            value: (diode.surgeA ** 2 * 0.5) / (2 * design.mains.frequencyHz),
            unit: 'A²s',
            origin: 'typical',
          },
        ],
        source: 'Switch-on from rest at 90°, copper at 20 °C, capacitance at its upper tolerance.',
        assumes: ['The mains is stiff; wiring and leakage inductance would soften it a little.'],
        estimate: {
          label: 'peak over cold winding resistance',
          value: (Math.SQRT2 * winding.voltageRms) / loop,
          expression: '√2·V/R',
        },
      },
      limit: diode.surgeA,
      limitSource: `One-half-cycle surge rating of the class: ${diode.name}.`,
      relation: 'at most',
      wantedMargin: 0.2 * diode.surgeA,
      sentence: `${formatQuantity(surge.peakA, 'A')} of ${formatNominal(diode.surgeA, 'A')} for half a cycle.`,
      reason: 'An empty reservoir is a short. Only copper limits the first pulse, and it is coldest then.',
    };
  },
  cures: (design) => otherDiodes(design),
};
