import { emfPeakV } from '@/core/circuit/network';
import { wordsOf } from '@/core/circuit/condition';
import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import type { Rule } from '../rule';
import { computed, simulated, typical } from '@/core/picture/working';

const SOURCE = 'Switch-on from rest at 90°, copper at 20 °C, capacitance at its upper tolerance.';

/** I²t one half sine of the rated surge brings, A²s: IFSM²·t/2 over half a cycle of the mains. */
function ratedI2t(surgeA: number, frequencyHz: number): number {
  return (surgeA ** 2 * 0.5) / (2 * frequencyHz);
}

export const diodeSurge: Rule = {
  title: 'First surge',
  station: 'rectifier',
  scope: 'supply',
  occasion: 'once',
  decides: ['rectifier'],
  find({ study }) {
    const { design } = study;
    if (design.reservoir.capacitanceF <= 0 || !hasDiodes(design)) return null;
    const diode = diodeOf(design.rectifier);
    const { surge } = study;
    return {
      value: surge.peakA,
      limit: diode.surgeA,
      relation: 'at most',
      wanted: 0.2 * diode.surgeA,
      tell: () => {
        const dc = dcSourceOf(design);
        const { mains, sections } = surge.network;
        const { winding } = sections[0]!;
        const loop = winding.resistanceOhm + mains.sharedResistanceOhm;
        return {
          figure: {
            id: 'diode-surge',
            label: 'First current pulse into the empty reservoir',
            unit: 'A',
            origin: 'simulated',
            condition: wordsOf(design, 'surge'),
            expression: dc
              ? 'highest diode current after it is joined'
              : 'highest diode current of a start at the peak of the mains voltage',
            inputs: [
              computed(dc ? 'resistance of the source' : 'winding resistance, cold', loop, 'ohm'),
              computed(dc ? 'its open volts' : 'peak of the winding', emfPeakV(surge.network), 'V'),
              simulated('I²t of the first cycle', surge.i2t, 'A²s'),
              ...(diode.technology === 'valve'
                ? []
                : [typical('I²t the diode stands', ratedI2t(diode.surgeA, design.mains.frequencyHz), 'A²s')]),
            ],
            source: dc ? 'Joined from rest, capacitance at its upper tolerance.' : SOURCE,
            assumes: dc
              ? [
                  surge.limitedA === null
                    ? 'The source has no limit of its own.'
                    : 'The start rides on the adapter’s limit.',
                ]
              : [
                  'The mains is stiff; wiring and leakage inductance would soften it a little.',
                  ...(diode.technology === 'valve'
                    ? ['Its cathode is hot already, as after a moment without mains; from cold it begins softly.']
                    : []),
                ],
            estimate: {
              label: dc ? 'open volts over resistance' : 'peak over cold winding resistance',
              value: emfPeakV(surge.network) / loop,
              expression: dc ? 'V/R' : '√2·V/R',
            },
          },
          limitSource: `${diode.technology === 'valve' ? 'Highest transient current of an anode' : 'One-half-cycle surge rating of the class'}: ${diode.name}.`,
          sentence: `${formatQuantity(surge.peakA, 'A')} of ${formatNominal(diode.surgeA, 'A')} for half a cycle.`,
          reason: dc
            ? 'An empty reservoir is a short. Only the source’s own resistance limits the first pulse.'
            : 'An empty reservoir is a short. Only copper limits the first pulse, and it is coldest then.',
        };
      },
    };
  },
  cures: (design) => otherDiodes(design),
};

/** The heat of the first cycle in the junction, beside its peak. */
export const surgeHeating: Rule = {
  title: 'First surge, I²t',
  station: 'rectifier',
  scope: 'supply',
  occasion: 'once',
  decides: ['rectifier'],
  find({ study }) {
    const { design } = study;
    if (design.reservoir.capacitanceF <= 0 || !hasDiodes(design)) return null;
    const diode = diodeOf(design.rectifier);
    // A valve's rating knows the peak alone: its cathode is worn by amperes, not melted by their heat.
    if (diode.technology === 'valve') return null;
    const { surge } = study;
    const limit = ratedI2t(diode.surgeA, design.mains.frequencyHz);
    return {
      value: surge.i2t,
      limit,
      relation: 'at most',
      wanted: 0.2 * limit,
      tell: () => ({
        figure: {
          id: 'surge-heating',
          label: 'I²t of the hardest-hit diode in the first cycle',
          unit: 'A²s',
          origin: 'simulated',
          condition: wordsOf(design, 'surge'),
          expression: 'integral of the squared current over the first cycle',
          inputs: [simulated('highest current', surge.peakA, 'A'), typical('surge rating', diode.surgeA, 'A')],
          source: SOURCE,
          assumes: ['The rating is for one half sine of the mains: IFSM²·t/2.'],
        },
        limitSource: `IFSM²·t/2 over half a cycle: ${diode.name}.`,
        sentence: `${formatQuantity(surge.i2t, 'A²s')} of ${formatQuantity(limit, 'A²s')}.`,
        reason: 'A peak may pass and the heat behind it may not: a big reservoir charges for several half cycles.',
      }),
    };
  },
  cures: (design) => otherDiodes(design),
};
