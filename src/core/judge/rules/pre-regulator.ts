import { wordsOf } from '@/core/circuit/condition';
import type { Edit } from '@/core/design/design';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { biggerReservoir, sinks, windingVolts } from '../cures';
import type { Rule } from '../verdict';

/** Whether the first of two in cascade holds what it should. A caution: when it lets go the second still regulates. */
export const preRegulatorHolds: Rule = {
  id: 'pre-regulator',
  title: 'Pre-regulator holds',
  station: 'regulator',
  advisory: true,
  find({ design, low }) {
    const model = aheadModel(design.preRegulator);
    if (!model || !low.ahead) return null;
    const { headroomV, holdsV } = low.ahead;
    return {
      figure: {
        id: 'pre-regulator',
        label: 'Headroom of the pre-regulator',
        value: headroomV,
        unit: 'V',
        origin: 'simulated',
        condition: wordsOf(design, 'low'),
        expression: 'lowest reservoir voltage − (what it holds + its dropout)',
        inputs: [
          { label: 'lowest reservoir voltage', value: low.rail.minV, unit: 'V', origin: 'simulated' },
          { label: 'it holds', value: holdsV, unit: 'V', origin: 'chosen' },
          { label: 'its dropout', value: low.rail.minV - headroomV - holdsV, unit: 'V', origin: 'typical' },
        ],
        source: 'Periodic steady state; dropout typical of the class.',
        assumes: ['The second goes on regulating while its own input stays high enough.'],
      },
      limit: 0,
      limitSource: 'Below zero it passes its share of the ripple on.',
      relation: 'at least',
      wantedMargin: 0.5,
      sentence:
        headroomV >= 0
          ? `${model.name} holds ${formatNominal(Number(holdsV.toPrecision(3)), 'V')} with ${formatQuantity(headroomV, 'V', 2)} to spare.`
          : `${model.name} lets go in the valleys, ${formatQuantity(-headroomV, 'V', 2)} short: its rejection is lost there.`,
      reason: 'What the first lets through the second has to take down alone.',
    };
  },
  cures: (design): Edit[] => {
    const { preRegulator } = design;
    return [
      ...(preRegulator.kind === 'tracking' && preRegulator.aboveV > 3.5
        ? [{ label: 'Track 3 V above the output', patch: { preRegulator: { ...preRegulator, aboveV: 3 } } }]
        : []),
      ...biggerReservoir(design, [1, 2]),
      ...windingVolts(design, [1, 2]),
    ];
  },
};

/** The pre-regulator's own junction, on the sink it shares. */
export const preRegulatorHeat: Rule = {
  id: 'pre-regulator-heat',
  title: 'Pre-regulator junction',
  station: 'regulator',
  find({ design, high, lowest }) {
    const model = aheadModel(design.preRegulator);
    const worst = lowest?.ahead && high.ahead && lowest.ahead.junctionC > high.ahead.junctionC ? lowest : high;
    if (!model || !worst.ahead) return null;
    const { junctionC, watts } = worst.ahead;
    return {
      figure: {
        id: 'pre-regulator-heat',
        label: 'Junction of the pre-regulator',
        value: junctionC,
        unit: '°C',
        origin: 'formula',
        condition: wordsOf(design, worst.condition),
        expression: 'sink, or air, + its watts × its own chain',
        inputs: [
          { label: 'watts in it', value: watts, unit: 'W', origin: 'simulated' },
          { label: 'watts in the regulator', value: worst.regulatorW, unit: 'W', origin: 'simulated' },
          { label: 'junction to case', value: model.jcKPerW, unit: 'K/W', origin: 'typical' },
        ],
        source: 'Both on one sink: each warms the other through it.',
        assumes: ['Insulated from each other where their metals differ.'],
      },
      limit: model.junctionMaxC,
      limitSource: `Highest junction temperature of the class, ${model.junctionMaxC} °C; 20 K kept in hand.`,
      relation: 'at most',
      wantedMargin: 20,
      sentence: `${formatQuantity(junctionC, '°C')} with ${formatQuantity(watts, 'W')} of the ${formatQuantity(watts + worst.regulatorW, 'W')} in it.`,
      reason: 'Two parts share the heat only as their volts are shared.',
    };
  },
  cures: (design): Edit[] => [...sinks(design, [1, 2, 3, 5]), ...windingVolts(design, [-1, -2])],
};
