import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import type { Rule } from '../verdict';

export const diodeSurge: Rule = {
  id: 'diode-surge',
  title: 'First surge',
  station: 'rectifier',
  find({ design, surge }) {
    if (design.reservoir.capacitanceF <= 0 || !hasDiodes(design)) return null;
    const dc = dcSourceOf(design);
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
        condition: wordsOf(design, 'surge'),
        expression: dc
          ? 'highest diode current after it is joined'
          : 'highest diode current of a start at the peak of the mains voltage',
        inputs: [
          {
            label: dc ? 'resistance of the source' : 'winding resistance, cold',
            value: loop,
            unit: 'ohm',
            origin: 'formula',
          },
          {
            label: dc ? 'its open volts' : 'peak of the winding',
            value: Math.SQRT2 * winding.voltageRms,
            unit: 'V',
            origin: 'formula',
          },
          { label: 'I²t of the first cycle', value: surge.i2t, unit: 'A²s', origin: 'simulated' },
          {
            label: 'I²t the diode stands',
            value: (diode.surgeA ** 2 * 0.5) / (2 * design.mains.frequencyHz),
            unit: 'A²s',
            origin: 'typical',
          },
        ],
        source: dc
          ? 'Joined from rest, capacitance at its upper tolerance.'
          : 'Switch-on from rest at 90°, copper at 20 °C, capacitance at its upper tolerance.',
        assumes: dc
          ? ['Whatever current limit the source has is not counted on.']
          : ['The mains is stiff; wiring and leakage inductance would soften it a little.'],
        estimate: {
          label: dc ? 'open volts over resistance' : 'peak over cold winding resistance',
          value: (Math.SQRT2 * winding.voltageRms) / loop,
          expression: dc ? 'V/R' : '√2·V/R',
        },
      },
      limit: diode.surgeA,
      limitSource: `One-half-cycle surge rating of the class: ${diode.name}.`,
      relation: 'at most',
      wantedMargin: 0.2 * diode.surgeA,
      sentence: `${formatQuantity(surge.peakA, 'A')} of ${formatNominal(diode.surgeA, 'A')} for half a cycle.`,
      reason: dc
        ? 'An empty reservoir is a short. Only the source’s own resistance limits the first pulse.'
        : 'An empty reservoir is a short. Only copper limits the first pulse, and it is coldest then.',
    };
  },
  cures: (design) => otherDiodes(design),
};
