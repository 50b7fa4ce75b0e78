import { arrangementOf, hasDiodes } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { formatQuantity } from '@/core/quantity/format';
import { otherDiodes } from '../cures';
import type { Rule } from '../verdict';

/** Direct current above which a bridge wants a heatsink or the chassis, A: a rule of thumb. */
const FREE_AIR_A = 3;

export const bridgeHeat: Rule = {
  id: 'bridge-heat',
  title: 'Rectifier heat',
  station: 'rectifier',
  advisory: true,
  find({ design, high }) {
    if (!hasDiodes(design)) return null;
    const { rails } = arrangementOf(design);
    const amps = rails * high.rail.loadMeanA;
    if (amps < 0.5 * FREE_AIR_A) return null;
    const watts = high.watts.rectifier;
    return {
      figure: {
        id: 'bridge-heat',
        label: 'Direct current through the rectifier',
        value: amps,
        unit: 'A',
        origin: 'simulated',
        condition: wordsOf(design, 'high'),
        expression: 'mean load current, all rails',
        inputs: [{ label: 'lost in the diodes', value: watts, unit: 'W', origin: 'simulated' }],
        source: 'Periodic steady state; diode loss is the mean of v·i.',
        assumes: ['A bridge or diodes in free air, without a sink.'],
      },
      limit: FREE_AIR_A,
      limitSource: 'Rule of thumb: above about 3 A a bridge goes on a heatsink or the chassis.',
      relation: 'at most',
      wantedMargin: 0.2 * FREE_AIR_A,
      sentence:
        amps > FREE_AIR_A
          ? `${formatQuantity(watts, 'W')} at ${formatQuantity(amps, 'A')}: screw it to a heatsink or the chassis.`
          : `${formatQuantity(watts, 'W')} at ${formatQuantity(amps, 'A')}, within what it gets rid of in free air.`,
      reason: 'Two drops of a volt at several amperes are a small soldering iron.',
    };
  },
  cures: (design) => otherDiodes(design).filter((e) => /Schottky/.test(e.label)),
};
